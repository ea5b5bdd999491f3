import type { Direction } from "./taxCode.ts";

/** Roles of the accounts that stand against a document. */
export type CounterRole = "receivable" | "payable" | "bank" | "card-clearing";

/**
 * What a kind of document is. Everything that depends on the kind is a column here; nothing else lists kinds.
 * - `direction`, `sign`: which side it is on, and whether it mirrors. Without a side its lines are debits and credits.
 * - `counter`: the account against the lines; a journal has none.
 * - `creditedBy`: the kind of credit note that may correct it.
 * - `series`: how numbers of our own begin; null where the paper of the other side carries the number.
 *   `unbroken`: the customer or the authority may ask that none is missing.
 * - `uniqueBy`: whether a number may come once (`number`), or once from each party.
 * - `paper`: what leaves the house in our name, as the title of the paper; null for what does not.
 * - `entry`: typed by a person, or made by a feed.
 * - `waits`: on the cash basis it is reported as it is paid.
 * - `restTo`: the account that takes what its lines leave open.
 */
export interface KindDefinition {
  name: string;
  plural: string;
  direction: Direction | null;
  sign: 1 | -1;
  counter: CounterRole | null;
  creditedBy: "sales-credit-note" | "purchase-credit-note" | null;
  series: { prefix: string; unbroken: boolean } | null;
  uniqueBy: "number" | "party";
  paper: "invoice" | "credit-note" | "self-billed" | null;
  entry: "typed" | "feed";
  waits: boolean;
  restTo: "opening" | null;
}

const sale = {
  direction: "sale",
  sign: 1,
  counter: "receivable",
  creditedBy: "sales-credit-note",
  uniqueBy: "number",
  paper: null,
  entry: "typed",
  waits: false,
  restTo: null,
} as const satisfies Partial<KindDefinition>;

const purchase = {
  ...sale,
  direction: "purchase",
  counter: "payable",
  creditedBy: "purchase-credit-note",
  uniqueBy: "party",
} as const satisfies Partial<KindDefinition>;

const journal = {
  ...sale,
  direction: null,
  counter: null,
  creditedBy: null,
} as const satisfies Partial<KindDefinition>;

/** Every kind of document, in the order in which they are offered. */
export const DOCUMENT_KINDS = {
  "sales-invoice": {
    ...sale,
    name: "Sales invoice",
    plural: "Sales invoices",
    series: { prefix: "SI-", unbroken: true },
    paper: "invoice",
    waits: true,
  },
  "purchase-bill": {
    ...purchase,
    name: "Purchase bill",
    plural: "Purchase bills",
    series: null,
    waits: true,
  },
  "sales-credit-note": {
    ...sale,
    name: "Sales credit note",
    plural: "Sales credit notes",
    sign: -1,
    creditedBy: null,
    series: { prefix: "SC-", unbroken: true },
    paper: "credit-note",
    waits: true,
  },
  "purchase-credit-note": {
    ...purchase,
    name: "Purchase credit note",
    plural: "Purchase credit notes",
    sign: -1,
    creditedBy: null,
    series: null,
    waits: true,
  },
  "cash-sale": {
    ...sale,
    name: "Cash sale",
    plural: "Cash sales",
    counter: "bank",
    series: { prefix: "CS-", unbroken: false },
    paper: "invoice",
  },
  expense: {
    ...purchase,
    name: "Expense",
    plural: "Expenses",
    counter: "bank",
    series: { prefix: "EX-", unbroken: false },
  },
  "import-declaration": {
    ...purchase,
    name: "Import declaration",
    plural: "Import declarations",
    series: null,
  },
  /** A bill written by the buyer on behalf of the supplier. */
  "self-billed-bill": {
    ...purchase,
    name: "Self-billed bill",
    plural: "Self-billed bills",
    series: { prefix: "SB-", unbroken: true },
    paper: "self-billed",
    waits: true,
  },
  journal: {
    ...journal,
    name: "Journal",
    plural: "Journals",
    series: { prefix: "J-", unbroken: false },
  },
  "opening-balance": {
    ...journal,
    name: "Opening balances",
    plural: "Opening balances",
    series: { prefix: "O-", unbroken: false },
    restTo: "opening",
  },
  /** What a card terminal took on a trading day, and what its operator keeps. */
  "terminal-summary": {
    ...sale,
    name: "Terminal summary",
    plural: "Terminal summaries",
    counter: "card-clearing",
    series: { prefix: "T-", unbroken: false },
    entry: "feed",
  },
  "fee-bill": {
    ...purchase,
    name: "Fee bill",
    plural: "Fee bills",
    counter: "card-clearing",
    series: null,
    entry: "feed",
  },
} as const satisfies Record<string, KindDefinition>;

export type DocumentKind = keyof typeof DOCUMENT_KINDS;

/** The definition of a kind, with all columns. */
export function kindOf(kind: DocumentKind): KindDefinition {
  return DOCUMENT_KINDS[kind];
}

/** All kinds that fit, in the order in which they are offered. */
export function kindsWhere(
  fits: (definition: KindDefinition, kind: DocumentKind) => boolean,
): DocumentKind[] {
  return (Object.keys(DOCUMENT_KINDS) as DocumentKind[]).filter((kind) => fits(kindOf(kind), kind));
}

/** Whether the lines of a kind are debits and credits instead of supplies. */
export function hasPostings(kind: DocumentKind): boolean {
  return kindOf(kind).direction === null;
}

/** Whether a kind stays open until it is paid: it stands against debtors or creditors. */
export function isOpenItem(kind: DocumentKind): boolean {
  const { counter } = kindOf(kind);
  return counter === "receivable" || counter === "payable";
}

/** Whether the money of a kind comes in: sales, and credit notes of suppliers. */
export function bringsMoney(kind: DocumentKind): boolean {
  const { direction, sign } = kindOf(kind);
  return (direction === "sale") === sign > 0;
}

/** The kind a row of a register, an e-invoice or an audit file becomes. */
export function usualKind(direction: Direction, credit: boolean): DocumentKind {
  const [invoice] = kindsWhere(
    (one) => one.direction === direction && one.sign > 0 && one.counter !== "bank",
  );
  const usual = invoice ?? "sales-invoice";
  return credit ? (kindOf(usual).creditedBy ?? usual) : usual;
}

/** The kinds a credit note may correct. */
export function correctable(creditNote: DocumentKind): DocumentKind[] {
  return kindsWhere((one) => one.creditedBy === creditNote);
}
