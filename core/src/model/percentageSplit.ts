import type { SignedBox } from "./attribution.ts";

/** Takings, or stock bought, whose taxable part is a percentage: where its tax stands, and the part that bears none. */
export interface SplitSide {
  codes: readonly string[];
  boxes: { tax: SignedBox; free: SignedBox };
}

/**
 * A scheme of shops whose tills and bills do not tell what bears tax: fixed percentages of takings and of stock bought are
 * free of it, the rest holds tax at one rate inside.
 * - `levy`, `rate`: the tax and the schedule of its rate.
 * - `norms`: percentages that are free by the answer to `setting`; another answer takes those typed under `own`.
 */
export interface PercentageSplit {
  kind: "percentage-split";
  levy: string;
  rate: string;
  setting: string;
  norms: Readonly<Record<string, { sales: string; stock: string }>>;
  own: { sales: string; stock: string };
  sales: SplitSide;
  stock: SplitSide;
}
