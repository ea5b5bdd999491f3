import type { CalendarDate } from "../calendar/date.ts";
import type { Party, Site } from "../supply/circumstances.ts";
import type { Direction, SupplyKind } from "./taxCode.ts";

/**
 * What each kind of document does: which side it is on, whether it mirrors (credit notes), and which account
 * stands against it. A journal has no side: its lines are debits and credits.
 */
export const DOCUMENT_KINDS = {
  "sales-invoice": { direction: "sale", sign: 1, counter: "receivable", name: "Sales invoice" },
  "sales-credit-note": { direction: "sale", sign: -1, counter: "receivable", name: "Sales credit note" },
  "purchase-bill": { direction: "purchase", sign: 1, counter: "payable", name: "Purchase bill" },
  "purchase-credit-note": {
    direction: "purchase",
    sign: -1,
    counter: "payable",
    name: "Purchase credit note",
  },
  "cash-sale": { direction: "sale", sign: 1, counter: "bank", name: "Cash sale" },
  expense: { direction: "purchase", sign: 1, counter: "bank", name: "Expense" },
  "import-declaration": { direction: "purchase", sign: 1, counter: "payable", name: "Import declaration" },
  /** A bill written by the buyer on behalf of the supplier. */
  "self-billed-bill": { direction: "purchase", sign: 1, counter: "payable", name: "Self-billed bill" },
  /** What a card terminal took on a trading day, and what its operator keeps. */
  "terminal-summary": { direction: "sale", sign: 1, counter: "card-clearing", name: "Terminal summary" },
  "fee-bill": { direction: "purchase", sign: 1, counter: "card-clearing", name: "Fee bill" },
  journal: { direction: null, sign: 1, counter: null, name: "Journal" },
  "opening-balance": { direction: null, sign: 1, counter: null, name: "Opening balances" },
} as const satisfies Record<
  string,
  {
    direction: Direction | null;
    sign: 1 | -1;
    counter: CounterRole | null;
    name: string;
  }
>;

/** Roles of the accounts that stand against a document. */
export type CounterRole = "receivable" | "payable" | "bank" | "card-clearing";

export type DocumentKind = keyof typeof DOCUMENT_KINDS;
export type PriceMode = "exclusive" | "inclusive";

/** A discount: `percent` of the price, or an `amount` in major units. One of the two. */
export interface Discount {
  percent?: string;
  amount?: string;
}

/**
 * A line as typed. Money is in major units as decimal strings. `amount` is before discount, in the line's own mode of
 * prices or that of the document; where it is absent it is quantity × unit price. `typedTax` holds the tax on the paper
 * by levy.
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
  prices: PriceMode;
  /** ISO 4217; left out, or that of the books, where it is no other. Amounts of the document are in it. */
  currency?: string;
  exchange?: ExchangeInput;
  /** It was there before the books: it is open to be paid, and its tax was reported unless it waits for payment. */
  opening?: boolean;
  /** The account the money went through, where it was paid at once and not by the usual bank. */
  paidThrough?: string;
  discount?: Discount;
  /** Tax of the whole document as printed on the paper, by levy. */
  typedTax?: Record<string, string>;
  lines: readonly LineInput[];
  /** Where the supply is made from; filled in from the document's place. */
  site?: Site;
  /** The other side; filled in from the document's contact. */
  party?: Party;
  /** Number of the document a credit note corrects. */
  corrects?: string | null;
  /** Tax point of the document a credit note corrects: its rates apply, and its period decides the boxes. */
  originalDate?: CalendarDate | null;
  /** Gross of that document in minor units, where it is in the books. */
  originalGross?: number | null;
}

/** Whether the lines of a kind are debits and credits instead of supplies. */
export function isJournal({ kind }: Pick<DocumentInput, "kind">): boolean {
  return DOCUMENT_KINDS[kind].direction === null;
}

/** The day that decides the period: the tax point, or the date of the document. */
export function taxPointOf(document: Pick<DocumentInput, "date" | "taxPoint">): CalendarDate {
  return document.taxPoint ?? document.date;
}

/** The day that decides the rate: a credit note keeps the rate of the document it corrects. */
export function rateDateOf(
  document: Pick<DocumentInput, "date" | "taxPoint" | "originalDate">,
): CalendarDate {
  return document.originalDate ?? taxPointOf(document);
}
