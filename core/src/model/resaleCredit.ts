/**
 * A scheme that credits tax inside the price of second-hand goods when they are sold again.
 * - `levy`, `sales`: the tax, and codes of sales whose line tells in the attribute `cost` what was paid; the credit is that
 *   part of the price, at most the tax on the sale. What cost no more than `upTo` was credited when it was bought.
 * - `part`: the part of a price that is tax: `of` in `parts`.
 * - `lots`: codes of lots bought to be sold in parts, and of their parts sold: the tax inside what the lots cost is kept as
 *   a pool, which takes the tax on the parts until it is used up.
 * - `setting`: the answer that holds the pool from before these books.
 * - `boxes`: where the credit stands, and the box that the pool keeps tax out of.
 */
export interface ResaleCredit {
  kind: "resale-credit";
  levy: string;
  sales: readonly string[];
  upTo: number;
  part: { of: number; parts: number };
  lots: { bought: readonly string[]; sold: readonly string[] };
  setting: string;
  boxes: { credit: string; kept: string };
}
