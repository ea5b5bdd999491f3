import type { CalendarDate } from "../calendar/date.ts";
import type { SupplyKind } from "./taxCode.ts";

/**
 * How much of a supply on both sides of a change of rate bears the old one: all of it, what was delivered before, what
 * was paid before, or the higher or the lower of the two.
 */
export type OldShare = "all" | "delivered" | "paid" | "higher" | "lower";

/** A code and the rate it stands for, percent. */
export interface CodeAtRate {
  code: string;
  rate: string;
}

/** A day on which supplies went from one code to another because each rate has a code of its own. */
export interface RateMove {
  on: CalendarDate;
  before: CodeAtRate;
  after: readonly CodeAtRate[];
  source: string;
}

/**
 * What a law says of supplies that are invoiced, paid and delivered on both sides of a change of rate.
 * - `invoicedBefore`, `invoicedAfter`: the old share where the invoice came before the change, or after it.
 * - `election`: the old rate is a choice of the supplier. `supply`: only for goods, or services.
 */
export interface RateChangeRule {
  supply?: SupplyKind;
  invoicedBefore: OldShare;
  invoicedAfter: OldShare;
  election?: boolean;
  says: string;
  source: string;
}
