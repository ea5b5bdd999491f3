import type { SignedBox } from "./attribution.ts";

/**
 * A scheme under which tax on some purchases is deducted in full while the year runs, and a part of it is taken back once
 * the year is over.
 * - `codes`: the purchases it is of; `share`: the percentage that is taken back, or the attribute of the line that holds it.
 * - `settings`: which answers hold the last month of the year, 1 to 12, and how many returns after its last one the part
 *   stands on.
 * - `boxes`: where it stands by levy.
 */
export interface YearlyAddBack {
  kind: "yearly-add-back";
  codes: readonly string[];
  share: { percent: string } | { attribute: string };
  settings: { yearEnds: string; later: string };
  boxes: Readonly<Record<string, SignedBox>>;
}
