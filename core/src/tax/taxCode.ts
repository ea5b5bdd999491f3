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
  "blocked",
] as const;
export type Treatment = (typeof TREATMENTS)[number];

/** One row of an effective-dated schedule. `rate` is a percentage as a decimal string, both days inclusive. */
export interface RateRow {
  from: CalendarDate;
  to: CalendarDate | null;
  rate: string;
  source: string;
}

export type RateSchedules = Readonly<Record<string, readonly RateRow[]>>;

/**
 * One levy of a tax code.
 * - `rate.kind`: `percent` of the base by a schedule; `none` where the supply bears no tax; `typed` where the
 *   only figure is the one on a document of the authority (an import certificate).
 * - `partOfLaterBases`: later components are charged on a price that includes this one (tax on tax).
 * - `charged`: on the document; `self-assessed` by the buyer; or `declared-only` by the supplier of a reverse
 *   charge, who shows the rate and charges nothing.
 * - `recoverable`: percentage of the tax on a purchase that is deducted, decimal string; the rest is cost.
 * - `boxes`: where net and tax land on the return, by direction, in the notation of boxTags.ts.
 */
export interface Component {
  levy: string;
  rate: { kind: "percent"; schedule: string } | { kind: "none" } | { kind: "typed" };
  partOfLaterBases: boolean;
  charged: "charged" | "self-assessed" | "declared-only";
  recoverable: string;
  boxes: { sale?: string; purchase?: string };
}

/** A tax code: what a line bears, and where that lands. The order of `components` is the order of charging. */
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
}
