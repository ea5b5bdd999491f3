import { FiscalError } from "../errors.ts";

/** What of a fact lands in a box: net base, tax, recoverable tax, or gross (net and tax). */
export type Measure = "n" | "t" | "r" | "g";

export interface BoxTag {
  box: string;
  sign: 1 | -1;
  measure: Measure;
}

const TAG = /^(\S+) ([+-])([ntrg])$/;
const parsed = new Map<string, readonly BoxTag[]>();

/**
 * Reads the notation of the packs: `"1 +t, 6 +n"` adds the tax to box 1 and the net base to box 6. Measures:
 * `n` net, `t` tax, `r` recoverable tax, `g` gross. The empty string lands nowhere.
 * @throws FiscalError `tax/bad-box-tag`
 */
export function boxTags(text: string): readonly BoxTag[] {
  const known = parsed.get(text);
  if (known) return known;
  const tags = text === "" ? [] : text.split(",").map((part) => boxTag(part.trim()));
  parsed.set(text, tags);
  return tags;
}

function boxTag(text: string): BoxTag {
  const match = TAG.exec(text);
  if (!match) {
    throw new FiscalError("tax/bad-box-tag", `"${text}" does not say where to land. Write it like "6 +n".`);
  }
  return { box: match[1] ?? "", sign: match[2] === "-" ? -1 : 1, measure: match[3] as Measure };
}
