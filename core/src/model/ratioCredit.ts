import type { Treatment } from "./taxCode.ts";

/**
 * A scheme whose input tax is a fraction of what bills come to, by rate, in place of the tax on each.
 * - `takes`: treatments of purchases whose bills count; what is not charged on the bill is deducted the ordinary way.
 * - `boxes.input`: where it stands; `drops`: the boxes that lose what these bills would put there.
 */
export interface RatioCredit {
  kind: "ratio-credit";
  takes: readonly Treatment[];
  boxes: { input: string };
  drops: readonly string[];
}
