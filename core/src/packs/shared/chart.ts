import type { Account } from "../../model/account.ts";

/** The codes proposed for accounts that are about something particular; left out where the pack has none. */
export interface UsualCodes {
  outOfScope?: string;
  exempt?: string;
  export?: string;
  capital?: string;
  blocked?: string;
  lease?: string;
  meals?: string;
}

/** The tax accounts of one levy, or of several that share them (`GST/HST`). */
export interface TaxAccounts {
  levy: string;
  name: string;
  /** First number of its block, for example 2200: output, due, input and the rest follow it. */
  at: number;
  authority: string;
  /** Single-stage taxes have no input account: what a business pays is cost. */
  input: boolean;
  /** Whether the business keeps something for filing in time. */
  allowance?: boolean;
  /** Whether tax on purchases may wait before it is deducted. */
  held?: boolean;
  /** Whether a scheme may work tax out from turnover. */
  scheme?: boolean;
  /** Whether credit not used stays with the authority. */
  carried?: boolean;
  /** Only the running accounts, or only the ones shared by all levies of one return. */
  only?: "running" | "shared";
}

/** The chart a new client starts with. Numbers and names are the practice's to change. */
export function chart(usual: UsualCodes, taxes: readonly TaxAccounts[]): Account[] {
  const plain = (
    code: string,
    name: string,
    type: Account["type"],
    role: Account["role"] = null,
    topic: string | null = null,
    usualCode: string | undefined = undefined,
  ): Account => ({ code, name, type, role, levy: null, topic, usualCode: usualCode ?? null });
  const rows = [
    plain("0100", "Equipment", "asset", null, null, usual.capital),
    plain("0200", "Motor cars", "asset", null, "cars", usual.blocked),
    plain("1000", "Bank", "asset", "bank"),
    plain("1050", "Card takings in transit", "asset", "card-clearing"),
    plain("1100", "Trade debtors", "asset", "receivable"),
    plain("1150", "Stock of the stock book", "asset", "stock"),
    plain("2100", "Trade creditors", "liability", "payable"),
    plain("2400", "Loans", "liability", null, "loans", usual.outOfScope),
    plain("3000", "Capital and reserves", "equity"),
    plain("3900", "Opening balances", "equity", "opening"),
    plain("3200", "Dividends and drawings", "equity", null, "dividends", usual.outOfScope),
    plain("4000", "Sales", "income", "sales"),
    plain("4100", "Sales abroad", "income", null, null, usual.export),
    plain("4900", "Other income", "income", null, "other-income"),
    plain("5000", "Purchases", "expense", "purchases"),
    plain("5100", "Cost of what was sold from the stock book", "expense", "stock-cost"),
    plain("5200", "Carriage and customs", "expense"),
    plain("6000", "Rent", "expense"),
    plain("6100", "Light and heat", "expense"),
    plain("6200", "Office costs", "expense"),
    plain("6250", "Software and online services", "expense"),
    plain("6300", "Advertising", "expense"),
    plain("6400", "Professional fees", "expense"),
    plain("6500", "Travel", "expense"),
    plain("6550", "Car leasing", "expense", null, usual.lease ? "car-lease" : null, usual.lease),
    plain("6600", "Entertaining", "expense", null, "entertaining", usual.meals ?? usual.blocked),
    plain("6700", "Repairs", "expense"),
    plain("6800", "Bank charges", "expense", "bank-charges", null, usual.exempt),
    plain("6850", "Payment differences", "expense", "difference"),
    plain("6860", "Exchange differences", "expense", "exchange"),
    plain("7000", "Wages and salaries", "expense", null, "wages", usual.outOfScope),
    ...taxes.flatMap(taxRows),
  ];
  return rows.sort((a, b) => (a.code < b.code ? -1 : 1));
}

const EXPENSES = 5700;
const GAINS = 2750;

function taxRows(taxes: TaxAccounts): Account[] {
  const { levy, name, at, authority, only } = taxes;
  const row = (
    offset: number,
    title: string,
    type: Account["type"],
    role: NonNullable<Account["role"]>,
  ): Account => ({ code: String(at + offset), name: title, type, role, levy, topic: null, usualCode: null });
  const running = [
    row(0, `Output tax, ${name}`, "liability", "output-tax"),
    ...(taxes.input ? [row(-1000, `Input tax, ${name}`, "asset", "input-tax")] : []),
    ...(taxes.held ? [row(-995, `Input tax not yet deducted, ${name}`, "asset", "held-credit")] : []),
  ];
  const shared = [
    row(1, `${name} due to ${authority}`, "liability", "due-to-authority"),
    ...(taxes.carried ? [row(-999, `Credit carried forward, ${name}`, "asset", "carried-credit")] : []),
    row(EXPENSES, `${name} rounding`, "expense", "rounding"),
    row(EXPENSES + 1, `${name} adjustments`, "expense", "adjustment"),
    row(EXPENSES + 2, `Interest and penalties, ${name}`, "expense", "charges"),
    ...(taxes.scheme
      ? [
          row(EXPENSES + 4, `Cost of ${name} schemes`, "expense", "scheme-cost"),
          row(GAINS, `Gain of ${name} schemes`, "income", "scheme-gain"),
        ]
      : []),
    ...(taxes.allowance ? [row(EXPENSES + 3, `${name} kept for filing in time`, "income", "allowance")] : []),
  ];
  return [...(only === "shared" ? [] : running), ...(only === "running" ? [] : shared)];
}
