import type { LevyWords } from "../formats/tables/tableKinds.ts";
import type { JurisdictionPack } from "../model/pack.ts";

/** How papers and headings write the levies of jurisdictions: by their short name, their full one, and others. */
export function writtenLevies(packs: readonly JurisdictionPack[]): LevyWords[] {
  return packs.flatMap(({ levies }) =>
    levies.map(({ levy, name, written = [] }) => ({ levy, written: [levy, name, ...written] })),
  );
}
