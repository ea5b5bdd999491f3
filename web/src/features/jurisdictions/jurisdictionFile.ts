import type { OwnJurisdiction } from "@fiscalon/core/jurisdictions/ownJurisdiction";

/** An own jurisdiction as its file holds it. */
export type JurisdictionFile = OwnJurisdiction & { format: "fiscalon-jurisdiction"; version: 1 };

export function fileOf(jurisdiction: OwnJurisdiction): JurisdictionFile {
  return { ...jurisdiction, format: "fiscalon-jurisdiction", version: 1 };
}
