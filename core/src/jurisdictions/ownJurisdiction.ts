import type { JurisdictionPack } from "./pack.ts";
import { checkedByShape } from "./shared/numberCheck.ts";

/** A jurisdiction made by the practice: a pack as plain data, with a pattern in the place of the number check. */
export type OwnJurisdiction = Omit<JurisdictionPack, "checkNumber" | "regionOfNumber" | "sourcing"> & {
  /** A regular expression the whole number must match, without blanks; empty for any number. */
  numberPattern: string;
};

/** An own jurisdiction as a pack among the others; its codes say where they come from, as those of shipped ones do. */
export function packOf(own: OwnJurisdiction): JurisdictionPack {
  const { numberPattern, ...rest } = own;
  const pattern = numberPattern === "" ? /^.+$/ : new RegExp(`^(?:${numberPattern})$`);
  const codes = own.codes.map((code) => ({ ...code, pack: own.id }));
  return { ...rest, codes, checkNumber: checkedByShape(pattern, own.numberName, own.numberHint) };
}
