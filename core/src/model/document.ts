import type { CalendarDate } from "../calendar/date.ts";
import { DOCUMENT_KINDS, hasPostings } from "./documentKinds.ts";
import type { DocumentKind } from "./documentKinds.ts";
import type { ItemDefaults, Party, Site } from "./party.ts";
import type { Direction, SupplyKind, TaxCode } from "./taxCode.ts";

export type PriceMode = "exclusive" | "inclusive";

/** A discount: `percent` of the price, or an `amount` in major units. One of the two. */
export interface Discount {
  percent?: string;
  amount?: string;
}

/**
 * A line as typed. Money is in major units as decimal strings. `amount` is before discount, in the line's own mode of
 * prices or that of the document; where it is absent it is quantity × unit price. `typedTax` holds the tax on the paper
 * by levy, `typedTotal` the one figure of a paper that does not tell the levies apart; it is shared by what is
 * calculated for each. A `code` of null is none on purpose; left out, one is found.
 * On a journal `amount` is a debit when positive, a credit when negative.
 */
export interface LineInput {
  text?: string;
  amount?: string;
  quantity?: string;
  unitPrice?: string;
  /** Whether the line's price has tax in it, where it is not as the rest of the document. */
  prices?: PriceMode;
  discount?: Discount;
  code?: string | null;
  codeReason?: string;
  account?: string;
  item?: string;
  supply?: SupplyKind;
  typedTax?: Record<string, string>;
  typedTotal?: string;
  typedReason?: string;
  attributes?: Record<string, string>;
  /** What the item is for tax; with it a missing code is found by the supply rules. */
  taxClass?: string | null;
}

/** Units of the currency of the books for one unit of the document's; where the rate comes from and of which day. */
export interface ExchangeInput {
  rate: string;
  source?: string;
  date?: CalendarDate | null;
}

/** A document as typed: everything the computation needs, and nothing it works out itself. */
export interface DocumentInput {
  kind: DocumentKind;
  number?: string;
  date: CalendarDate;
  taxPoint?: CalendarDate | null;
  /** The day on which payment was agreed. */
  due?: CalendarDate | null;
  prices: PriceMode;
  /** ISO 4217; left out, or that of the books, where it is no other. Amounts of the document are in it. */
  currency?: string;
  exchange?: ExchangeInput;
  /** It was there before the books: it is open to be paid, and its tax was reported unless it waits for payment. */
  opening?: boolean;
  /** Why the tax of a purchase is not deducted yet: a hold of the pack. */
  creditHold?: string;
  /** The account the money went through, where it was paid at once and not by the usual bank. */
  paidThrough?: string;
  discount?: Discount;
  /** Tax of the whole document as printed on the paper, by levy, or by levy and rate: `VAT`, `VAT 20`. */
  typedTax?: Record<string, string>;
  /** Tax of the whole document as one figure. */
  typedTotal?: string;
  lines: readonly LineInput[];
  /** Where the supply is made from; filled in from the document's place. */
  site?: Site;
  /** The other side; filled in from the document's contact. */
  party?: Party;
  /** What the items its lines name say, by their id; filled in from the client's items. */
  items?: Readonly<Record<string, ItemDefaults>>;
  /** Number of the document a credit note corrects. */
  corrects?: string | null;
  /** Tax point of the document a credit note corrects: its rates apply, and its period decides the boxes. */
  originalDate?: CalendarDate | null;
  /** Gross of that document in minor units, where it is in the books. */
  originalGross?: number | null;
  /** Rates it bears whatever its schedules say by now: those it was counted with, or those of what it corrects. */
  recordedRates?: readonly RecordedRate[];
}

/** The percentage a levy was charged at under a code, by the day that decided it. */
export interface RecordedRate {
  code: string;
  levy: string;
  on: CalendarDate;
  rate: string;
  /** The schedule it is of, where it is not the percentage of the levy: an amount, a rate in a formula, a limit. */
  schedule?: string;
}

/** Whether the lines of a kind are debits and credits instead of supplies. */
export function isJournal({ kind }: Pick<DocumentInput, "kind">): boolean {
  return hasPostings(kind);
}

/** How a line counts: its side, and whether it takes off. */
export interface LineSide {
  direction: Direction | null;
  sign: 1 | -1;
}

/** The side of a line: that of the document; on a journal the one its code and its sign tell, null without a code. */
export function lineSide(
  document: Pick<DocumentInput, "kind">,
  line: Pick<LineInput, "amount">,
  code: Pick<TaxCode, "direction"> | undefined,
): LineSide {
  const { direction, sign } = DOCUMENT_KINDS[document.kind];
  if (direction !== null) return { direction, sign };
  if (!code) return { direction: null, sign: 1 };
  const negative = (line.amount ?? "").trim().startsWith("-");
  const side = code.direction === "both" ? (negative ? "sale" : "purchase") : code.direction;
  return { direction: side, sign: (side === "sale") === negative ? 1 : -1 };
}

/** The day that decides the period: the tax point, or the date of the document. */
export function taxPointOf(document: Pick<DocumentInput, "date" | "taxPoint">): CalendarDate {
  return document.taxPoint ?? document.date;
}

/** The attribute of a line that names the day whose rate it bears, where that is another one. */
export const RATE_DAY = "rateOn";

/**
 * The day that decides the rate: a credit note keeps the rate of the document it corrects; a line may say another day,
 * where its supply lies on both sides of a change of rate.
 */
export function rateDateOf(
  document: Pick<DocumentInput, "date" | "taxPoint" | "originalDate">,
  line?: Pick<LineInput, "attributes">,
): CalendarDate {
  return line?.attributes?.[RATE_DAY] || (document.originalDate ?? taxPointOf(document));
}
