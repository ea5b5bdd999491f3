import { textAt } from "../at.ts";
import type { AccountType } from "../model/account.ts";
import { DOCUMENT_KINDS } from "../model/documentKinds.ts";
import type { DocumentKind } from "../model/documentKinds.ts";
import type { Direction, Treatment } from "../model/taxCode.ts";
import { agreement } from "./agreement.ts";
import type { Agreement, Explained } from "./agreement.ts";

/**
 * Lines and entries alike in everything that tells why income and the value of the return differ in them; amounts in minor
 * units, income positive.
 */
export interface ApartGroup {
  /** Kind of the entry, and of its document. */
  entry: string;
  document: DocumentKind | null;
  /** The account of the line. */
  account: AccountType | null;
  role: string | null;
  coded: boolean;
  /** Where its value is reported: on these returns, waiting for money, on others, by another registration, nowhere. */
  fact: "here" | "held" | "later" | "earlier" | "elsewhere" | "none";
  /** Whether its entry is dated in the span. */
  dated: "in" | "outside" | "none";
  late: boolean;
  /** The cause a person named. */
  named: string | null;
  ledger: number;
  base: number;
  rows: number;
}

/** What the sales of a code, and purchases that land among sales, put into the turnover boxes. Minor units. */
export interface CodeOnReturn {
  code: string;
  direction: Direction;
  treatment: Treatment;
  /** Value without tax, and the tax on it. */
  net: number;
  tax: number;
  /** Of the value, what a scheme sets aside. */
  aside: number;
  boxes: number;
  rows: number;
}

/** What the returns of the span hold. Minor units. */
export interface TurnoverOnReturns {
  codes: readonly CodeOnReturn[];
  /** What schemes and people put there, and what boxes lose to rounding or gained since they were sealed. */
  schemes: number;
  byHand: { amount: number; rows: number };
  rounding: number;
  sinceSealed: number;
}

/** Which side of the profit and loss account a bridge begins at. */
export const BRIDGES = {
  turnover: { direction: "sale", accounts: "income" },
  purchases: { direction: "purchase", accounts: "expense" },
} as const satisfies Record<string, { direction: Direction; accounts: AccountType }>;

export type BridgeOf = keyof typeof BRIDGES;

const cause = (id: string, name: string) => ({ id, name, found: "rule" as const });

const CAUSES = {
  closing: cause("closing", "Closing entries: gains of schemes, allowances, rounding"),
  payments: cause("payments", "Entries of payments: exchange differences, discounts"),
  entries: cause("entries", "Other entries without a document"),
  purchases: cause("purchases", "Purchases posted to income accounts"),
  part: cause("part", "Reported in part, or at another value than it is posted"),
  onIncome: cause("on-income", "Purchases posted to income accounts"),
  sold: cause("sold", "Sales posted to cost accounts"),
  taxInCost: cause("tax-in-cost", "Tax that is part of the cost: blocked, partial, private"),
  bought: cause("bought", "Bought onto balance sheet accounts: capital goods, stock, prepayments"),
  unbilled: cause("unbilled", "Costs without a bill: wages, depreciation, accruals"),
  cost: cause("cost", "Sales posted to cost accounts"),
  balance: cause("balance", "Supplies on balance sheet accounts: disposals, deposits"),
  late: cause("late", "Late items: reported here, dated before"),
  before: cause("before", "Reported here, dated outside the span"),
  held: cause("held", "Invoiced, reported when the money comes"),
  later: cause("later", "Dated here, reported later"),
  earlier: cause("earlier", "Dated here, reported earlier"),
  elsewhere: cause("elsewhere", "Reported by another registration"),
  nowhere: cause("nowhere", "Outside the scope: on no return"),
  reverse: cause("reverse", "Purchases among turnover: reverse charge, acquisitions"),
  tax: cause("tax", "Tax inside the value, as the form asks"),
  margin: cause("margin", "Margin in place of the price"),
  base: cause("base", "Shown in part, or at another base"),
  scheme: cause("scheme", "Turnover as a scheme works it out"),
  byHand: cause("by-hand", "Boxes adjusted by hand"),
  sealed: cause("sealed", "Changed in the books since it was sealed"),
  rounding: cause("rounding", "Rounding of boxes"),
} as const;

const LEFT_OUT: Partial<Record<Treatment, string>> = {
  exempt: "Exempt, in none of these boxes",
  "out-of-scope": "Outside the scope, in none of these boxes",
  "reverse-charge-supplier": "The customer owes the tax: in none of these boxes",
  export: "Exports, in none of these boxes",
  adjustment: "Adjustments of tax without a value",
};

/** Why a group is apart; null where a person has to say it. */
export function causeOf(group: ApartGroup, of: BridgeOf = "turnover"): Explained["cause"] {
  const { entry, document, account, coded, fact, dated, late, named } = group;
  if (named !== null) return { id: `named ${named}`, name: named, found: "person" };
  if (entry === "settlement") return CAUSES.closing;
  if (entry !== "document") return entry === "payment" ? CAUSES.payments : CAUSES.entries;
  const direction = document === null ? null : DOCUMENT_KINDS[document].direction;
  if (of === "purchases") return costCause(group, direction);
  if (direction === "purchase") return CAUSES.purchases;
  if (fact === "here") {
    if (account === "expense") return CAUSES.cost;
    if (account !== "income") return CAUSES.balance;
    if (dated === "in") return CAUSES.part;
    return late ? CAUSES.late : CAUSES.before;
  }
  if (fact === "none") return coded ? CAUSES.nowhere : null;
  return CAUSES[fact];
}

/** The same of a line on the side of costs. */
function costCause(
  { account, coded, fact, dated, late }: ApartGroup,
  direction: Direction | null,
): Explained["cause"] {
  if (direction === "sale") return CAUSES.sold;
  if (fact === "here") {
    if (account === "income") return CAUSES.onIncome;
    if (account !== "expense") return CAUSES.bought;
    if (dated === "in") return CAUSES.taxInCost;
    return late ? CAUSES.late : CAUSES.before;
  }
  if (fact !== "none") return CAUSES[fact];
  if (coded) return CAUSES.nowhere;
  return direction === null ? CAUSES.unbilled : null;
}

/** Why what a code puts into the boxes is not its value. */
export function causeOnReturn(
  { direction, treatment, net, tax, aside, boxes }: CodeOnReturn,
  of: BridgeOf = "turnover",
): Explained["cause"] {
  if (direction !== BRIDGES[of].direction) return CAUSES.reverse;
  const value = net - aside;
  if (boxes === 0) {
    const name = textAt(LEFT_OUT, treatment) || "In none of these boxes";
    return cause(`left-out ${name}`, name);
  }
  if (treatment === "margin") return CAUSES.margin;
  return boxes - value === tax ? CAUSES.tax : CAUSES.base;
}

/** By how much what a code puts into the boxes differs from its value. */
export function apartBy({ boxes, net, aside }: CodeOnReturn): number {
  return boxes - (net - aside);
}

/**
 * From income in the profit and loss account to the turnover boxes: what keeps lines apart from the return, then what the
 * form and the schemes make of their value.
 * @param income of the span, credit positive
 * @param declared what the turnover boxes hold
 */
export function turnoverBridge(
  income: number,
  declared: number,
  apart: readonly ApartGroup[],
  { codes, schemes, byHand, rounding, sinceSealed }: TurnoverOnReturns,
  of: BridgeOf = "turnover",
): Agreement {
  const aside = codes.reduce((sum, code) => sum + code.aside, 0);
  return agreement(income, declared, [
    ...apart.map((group) => ({
      cause: causeOf(group, of),
      amount: group.base - group.ledger,
      rows: group.rows,
    })),
    ...codes
      .map((code) => ({ code, amount: apartBy(code) }))
      .filter(({ amount }) => amount !== 0)
      .map(({ code, amount }) => ({ cause: causeOnReturn(code, of), amount, rows: code.rows })),
    { cause: CAUSES.scheme, amount: schemes - aside, rows: 0 },
    { cause: CAUSES.byHand, ...byHand },
    { cause: CAUSES.sealed, amount: sinceSealed, rows: 0 },
    { cause: CAUSES.rounding, amount: rounding, rows: 0 },
  ]);
}
