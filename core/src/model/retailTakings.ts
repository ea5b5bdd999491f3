/**
 * A scheme whose output tax comes from daily takings.
 * - `takings`: the code of takings whose rate is not known; `rates`: the rates goods are sold at: its schedule (left out for
 *   goods without tax), the code of takings known to be at it, and the codes of goods bought for resale at it.
 * - `price`: the attribute of a purchase line that holds what its goods are expected to sell for, with tax.
 * - `settings`: which answers hold the method, the minority rate of a direct calculation, and stocks at selling price when
 *   it began (by rate, in the order of `rates`, and of the minority goods) and at the end of its year.
 */
export interface RetailTakings {
  kind: "retail-takings";
  takings: string;
  rates: readonly { id: string; schedule?: string; takings: string; goods: readonly string[] }[];
  price: string;
  settings: {
    method: string;
    minority: string;
    opening: readonly string[];
    openingStock: string;
    closingStock: string;
  };
  boxes: { tax: string; lessTax: string };
}

/** The ways of a retail scheme. */
export const RETAIL_METHODS = {
  "point-of-sale": "point of sale",
  "apportionment-1": "apportionment 1: by what was bought for resale",
  "apportionment-2": "apportionment 2: by expected selling prices",
  "direct-1": "direct calculation 1: by the minority goods",
  "direct-2": "direct calculation 2: with stock, once a year",
} as const;
export type RetailMethod = keyof typeof RETAIL_METHODS;
