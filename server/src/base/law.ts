import { amendedPack } from "@fiscalon/core/jurisdictions/amendedPack";
import { packOf } from "@fiscalon/core/jurisdictions/ownJurisdiction";
import type { OwnJurisdiction } from "@fiscalon/core/jurisdictions/ownJurisdiction";
import type { LawChange } from "@fiscalon/core/model/lawChange";
import { Packs } from "@fiscalon/core/model/packs";
import { SHIPPED } from "@fiscalon/core/packs/shipped";

/** The law a practice works with: what ships, its own jurisdictions, and what it found out. */
export interface Law {
  packs: Packs;
  /** Its own jurisdictions, by id. */
  jurisdictions: readonly OwnJurisdiction[];
  /** What it found out, in the order it was put on record. */
  changes: readonly LawChange[];
}

/** The shipped jurisdictions and those of the practice, as packs, with what the practice corrected in them. */
export function lawOf(jurisdictions: readonly OwnJurisdiction[], changes: readonly LawChange[]): Law {
  const packs = new Packs(
    [...SHIPPED, ...jurisdictions.map(packOf)].map((pack) => amendedPack(pack, changes)),
  );
  return { packs, jurisdictions, changes };
}
