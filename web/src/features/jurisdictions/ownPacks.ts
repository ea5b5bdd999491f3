import type { OwnJurisdiction } from "@fiscalon/core/jurisdictions/ownJurisdiction";
import { packOf } from "@fiscalon/core/jurisdictions/ownJurisdiction";
import { useOwnPacks as registerPacks } from "@fiscalon/core/jurisdictions/packs";
import { api } from "../../kit/api.ts";

/** Makes the practice's own jurisdictions known in the browser; at start and after each change. */
export async function loadOwnPacks(): Promise<void> {
  registerPacks((await api.get<OwnJurisdiction[]>("/jurisdictions/own")).map(packOf));
}

/** An own jurisdiction as its file holds it. */
export type JurisdictionFile = OwnJurisdiction & { format: "fiscalon-jurisdiction"; version: 1 };

export function fileOf(own: OwnJurisdiction): JurisdictionFile {
  return { ...own, format: "fiscalon-jurisdiction", version: 1 };
}
