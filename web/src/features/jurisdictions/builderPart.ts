import type { OwnJurisdiction } from "@fiscalon/core/jurisdictions/ownJurisdiction";

/** What every section of the builder gets. */
export interface BuilderPart {
  draft: OwnJurisdiction;
  set: (change: Partial<OwnJurisdiction>) => void;
  error: (path: string) => string | undefined;
}
