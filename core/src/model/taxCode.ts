import type { CalendarDate } from "../calendar/date.ts";

export type Direction = "sale" | "purchase";
export type SupplyKind = "goods" | "services";

export const TREATMENTS = [
  "standard",
  "reduced",
  "zero",
  "exempt",
  "out-of-scope",
  "reverse-charge",
  "reverse-charge-supplier",
  "import",
  "export",
  "intra-union",
  "margin",
  "blocked",
  "adjustment",
] as const;
export type Treatment = (typeof TREATMENTS)[number];

/**
 * One row of an effective-dated schedule, both days inclusive. `rate` is a decimal string: a percentage, or for
 * amounts per unit, thresholds and limits an amount in major units.
 */
export interface RateRow {
  from: CalendarDate;
  to: CalendarDate | null;
  rate: string;
  source: string;
  /** Why the figure should be looked up before it is relied on. */
  doubt?: string;
}

export type RateSchedules = Readonly<Record<string, readonly RateRow[]>>;

/**
 * How the tax of a component is found: `percent` of its base by a schedule; an amount `per-unit` of quantity or
 * `per-document`, in major units by a schedule; a `formula` over net, gross, quantity, unitPrice, prior (the tax
 * of the components before it) and the inputs of the code; `none` where the supply bears no tax; `typed` where
 * the only figure is the one on a document of the authority.
 */
export type RateSpec =
  | { kind: "percent"; schedule: string }
  | { kind: "per-unit"; schedule: string }
  | { kind: "per-document"; schedule: string }
  | { kind: "formula"; formula: string; base?: string }
  | { kind: "none" }
  | { kind: "typed" };

/**
 * What a percentage is applied to, when it is not simply the net (with the earlier components that are part of
 * later bases): a `share` in percent of the net or of the gross, and of each unit's price only the part `over` one
 * amount and `upTo` another, in major units.
 */
export interface BaseSpec {
  of?: "net" | "gross";
  share?: string;
  over?: string;
  upTo?: string;
}

/** A condition on a supply: each key of the supply's circumstances must have one of the values. See circumstances.ts. */
export type When = Readonly<Record<string, string | readonly string[]>>;

/** Where a component lands: tags in the notation of boxTags.ts, or the first of several routes that applies. */
export type Boxes = string | readonly { when?: When; tags: string }[];

/** A share of a tax that goes to an account, by its role for the levy or by its number. `share` in percent. */
export interface Split {
  share: string;
  role?: "output-tax" | "input-tax" | "cost" | "due-to-authority";
  account?: string;
}

/**
 * One levy of a tax code.
 * - `partOfLaterBases`: later components are charged on a price that includes this one (tax on tax).
 * - `charged`: on the document; `self-assessed` by the buyer; or `declared-only` by the supplier of a reverse
 *   charge, who shows the rate and charges nothing.
 * - `recoverable`: percentage of the tax on a purchase that is deducted, decimal string; the rest is cost. A line
 *   can say less with the attribute `recoverable`.
 * - `cap`: the tax is deducted only as far as it is tax on a price up to a limit for each item, in major units by a
 *   schedule; the price without tax, or with it.
 * - `when`: the component is left out where the supply does not meet the condition.
 * - `onlyRegistered`: counted only where a registration covers the levy; otherwise as if it were not there.
 * - `boxes`: by direction; the ones for credit notes where the law gives these boxes of their own, otherwise a
 *   credit note takes the same boxes with the opposite sign. `saleLate`: those of a sale that turns up after the return
 *   of its period, where that stands apart.
 * - `splits`: to which accounts the tax goes, where that is not the usual one; shares sum to 100.
 */
export interface Component {
  levy: string;
  rate: RateSpec;
  base?: BaseSpec;
  partOfLaterBases: boolean;
  charged: "charged" | "self-assessed" | "declared-only";
  recoverable: string;
  cap?: { schedule: string; of: "net" | "gross" };
  when?: When;
  onlyRegistered?: boolean;
  splits?: { invoice: readonly Split[]; credit?: readonly Split[] };
  boxes: { sale?: Boxes; purchase?: Boxes; saleCredit?: Boxes; purchaseCredit?: Boxes; saleLate?: Boxes };
}

/** From which share on all is deducted, and up to which nothing; percent. */
export interface WholeShare {
  from: number;
  noneUpTo: number;
}

/** A code with another recoverable share. */
export interface CodeVariant {
  suffix: string;
  name: string;
  recoverable: string;
  cap?: Component["cap"];
  inputs?: readonly string[];
  wholeShare?: WholeShare;
}

/**
 * A tax code: what a line bears, and where that lands. The order of `components` is the order of charging.
 * - `amountIs`: what the amount on a line means: a `price` in the mode of the document; always the `gross` (second-hand
 *   goods with a notional tax inside the price); the `tax` itself, of a line without a value (a customs
 *   or courier bill); or only the `base` of the tax, which is not part of the document's total.
 * - `inputs`: numbers the line must carry as attributes for the formula (the purchase price under a margin scheme).
 * - `family`: the code stands for one code a value: `{r}` in code, schedules and boxes is replaced by it, `{p}` in
 *   boxes by its percentage.
 * - `variants`: the same code with another recoverable share, written `CODE-suffix`, which may need its own inputs.
 * - `wholeShare`: a typed share from so many percent on deducts all, one up to so many nothing.
 * - `order`: the law that fixes the order of the components, where there is one.
 * - `limit`: schedule of the document value above which the circumstance `size` is over.
 * - `scope`: fixes whether the supply counts as local or inter-state, whatever the places say.
 */
export interface TaxCode {
  code: string;
  name: string;
  direction: Direction | "both";
  supply: SupplyKind | "both";
  treatment: Treatment;
  from: CalendarDate | null;
  to: CalendarDate | null;
  components: readonly Component[];
  note: string;
  source: string;
  amountIs?: "price" | "gross" | "tax" | "base";
  inputs?: readonly string[];
  family?: readonly { value: string; percent: string }[];
  variants?: readonly CodeVariant[];
  wholeShare?: WholeShare;
  order?: string;
  scope?: string;
  limit?: string;
  /** Why what it does should be looked up before it is relied on. */
  doubt?: string;
  /** What to do where none of its components applies; left out where such a supply simply bears no tax. */
  noneApplies?: string;
  /** The tax of such a purchase is not deducted before what the hold of the pack waits for is there. */
  hold?: string;
  /** Id of the pack it comes from; absent for codes made by the practice. */
  pack?: string;
}
