import { HEADERS, REGISTER_FIELDS } from "../registers/columns.ts";

/** A kind of table that can come in: what its columns can hold, and the words that tell them. */
export interface TableKind {
  fields: Readonly<Record<string, string>>;
  /** Heading words by field, most telling first. */
  headings: Readonly<Record<string, RegExp>>;
  /** Groups of fields; a heading row names at least one of each group. */
  needs: readonly (readonly string[])[];
  /** Fields whose cells are amounts. */
  amounts: readonly string[];
  /** With fewer columns it is none. */
  columns: number;
}

export const TABLES = {
  register: {
    fields: REGISTER_FIELDS,
    headings: HEADERS,
    needs: [["date"], ["net", "gross"]],
    amounts: ["net", "gross", "tax"],
    columns: 3,
  },
  statement: {
    fields: {
      number: "Document number",
      date: "Date",
      party: "Customer or supplier",
      partyNumber: "Their tax number",
      kind: "Kind of document",
      text: "Text",
      rate: "Rate",
      net: "Net",
      tax: "Tax",
      gross: "Gross",
      debit: "Charges",
      credit: "Credits and payments",
    },
    headings: {
      number: new RegExp(
        `${HEADERS.number.source}|\\bmrn\\b|entry number|declaration|(invoice|bill|note|document) n`,
      ),
      date: HEADERS.date,
      partyNumber: HEADERS.partyNumber,
      party: HEADERS.party,
      kind: HEADERS.kind,
      text: HEADERS.text,
      rate: HEADERS.rate,
      net: HEADERS.net,
      gross: HEADERS.gross,
      tax: new RegExp(
        `${HEADERS.tax.source}|import (vat|gst|tax)|(vat|tax|gst) (paid|payable|postponed|accounted)`,
      ),
      debit: /^(debit|debits|dr|charge|charges|invoiced|billed)( amount)?$/,
      credit: /^(credit|credits|cr|payment|payments|paid)( amount)?$/,
    },
    needs: [["date"], ["net", "gross", "tax", "debit"]],
    amounts: ["net", "gross", "tax", "debit", "credit"],
    columns: 3,
  },
  journal: {
    fields: {
      number: "Entry number",
      date: "Date",
      account: "Account",
      text: "Text",
      debit: "Debit",
      credit: "Credit",
      amount: "Amount, debit positive",
      code: "Tax code",
    },
    headings: {
      number:
        /^(entry|journal|voucher|transaction|jnl|doc|document)?\s*(no|nr|num|number|ref|reference|id)$|^(entry|journal|voucher)$/,
      date: /date|^dated$|^day$/,
      account: /^(account|nominal|ledger|gl)( code| no| number| account)?$/,
      text: /description|details|^text$|narrative|memo|particulars/,
      debit: /^(debit|dr|debits)( amount)?$/,
      credit: /^(credit|cr|credits)( amount)?$/,
      amount: /^(amount|value|net)$/,
      code: /^(tax|vat|gst)? ?code$/,
    },
    needs: [["date"], ["account"], ["debit", "amount"]],
    amounts: ["debit", "credit", "amount"],
    columns: 3,
  },
  "trial-balance": {
    fields: {
      account: "Account",
      name: "Name of the account",
      debit: "Debit",
      credit: "Credit",
      balance: "Balance, debit positive",
    },
    headings: {
      account: /^(account|nominal|ledger|gl|code)( code| no| number)?$/,
      name: /^(account )?name$|description|^details$/,
      debit: /^(debit|dr|debits)( balance)?$/,
      credit: /^(credit|cr|credits)( balance)?$/,
      balance: /balance|^amount$|^closing$/,
    },
    needs: [["account"], ["debit", "balance"]],
    amounts: ["debit", "credit", "balance"],
    columns: 2,
  },
  contacts: {
    fields: {
      name: "Name",
      country: "Country, two letters",
      region: "Region",
      taxNumber: "Tax number",
    },
    headings: {
      taxNumber:
        /vat (reg|registration|number|no|id)|tax (number|no|id)|^(vrn|gstin|abn|vatid)$|registration n/,
      country: /country/,
      region: /^(region|state|province|county|emirate)$/,
      name: /^(name|company|customer|supplier|contact|party|business)( name)?$|company name|customer name|supplier name/,
    },
    needs: [["name"]],
    amounts: [],
    columns: 1,
  },
  items: {
    fields: {
      name: "Name",
      unitPrice: "Price of one",
      supply: "Goods or services",
      taxClass: "Tax class",
      saleCode: "Code on sales",
      purchaseCode: "Code on purchases",
      saleAccount: "Account of sales",
      purchaseAccount: "Account of purchases",
    },
    headings: {
      saleCode: /^(sales?|output) (tax |vat )?code$/,
      purchaseCode: /^(purchases?|input) (tax |vat )?code$/,
      saleAccount: /^(sales?|income) account$/,
      purchaseAccount: /^(purchases?|expense|cost) account$/,
      unitPrice: /price|^rate$/,
      supply: /^(kind|type|goods or services)$/,
      taxClass: /tax class|^class$/,
      name: /^(name|item|product|service|description)( name)?$/,
    },
    needs: [["name"]],
    amounts: ["unitPrice"],
    columns: 1,
  },
} as const satisfies Record<string, TableKind>;

export type TableName = keyof typeof TABLES;

/** By field, the position of its column from 0. */
export type FieldColumns = Readonly<Partial<Record<string, number>>>;

/** Which column is which, guessed from the heading; each column is used once. */
export function guessFields(
  header: readonly string[],
  { headings, amounts }: TableKind,
  levies: readonly LevyWords[] = [],
): Record<string, number> {
  const names = header.map(plain);
  const columns: Record<string, number> = {};
  const taken = new Set<number>();
  for (const [field, pattern] of Object.entries(headings)) {
    const index = names.findIndex((name, at) => !taken.has(at) && name !== "" && pattern.test(name));
    if (index < 0) continue;
    columns[field] = index;
    taken.add(index);
  }
  return amounts.includes("tax") ? withLevies(columns, names, levies) : columns;
}

/** A levy and the other ways in which people write it. */
export interface LevyWords {
  levy: string;
  written: readonly string[];
}

/** The field of the tax of one levy, where a table tells them apart. */
export function taxField(levy: string): string {
  return `tax:${levy}`;
}

/** The levies whose tax has a column of its own, with the column. */
export function levyColumns(mapping: FieldColumns): [levy: string, column: number][] {
  return Object.entries(mapping).flatMap(([field, column]) =>
    field.startsWith("tax:") && column !== undefined ? [[field.slice("tax:".length), column]] : [],
  );
}

/** Columns that are headed by a levy; a single one of them is simply the tax. */
function withLevies(
  columns: Record<string, number>,
  names: readonly string[],
  levies: readonly LevyWords[],
): Record<string, number> {
  const others = new Set(
    Object.entries(columns)
      .filter(([field]) => field !== "tax")
      .map(([, index]) => index),
  );
  const found = new Map<string, number>();
  names.forEach((name, index) => {
    if (others.has(index) || NOT_AN_AMOUNT.test(name)) return;
    const levy = levies.find((one) => !found.has(one.levy) && one.written.some((word) => holds(name, word)));
    if (levy) found.set(levy.levy, index);
  });
  const [only] = found.values();
  if (found.size === 0 || only === undefined) return columns;
  if (found.size === 1) return { ...columns, tax: columns["tax"] ?? only };
  const { tax, ...rest } = columns;
  const inAll: Record<string, number> = tax === undefined || [...found.values()].includes(tax) ? {} : { tax };
  return {
    ...rest,
    ...inAll,
    ...Object.fromEntries([...found].map(([levy, index]) => [taxField(levy), index])),
  };
}

const NOT_AN_AMOUNT = /\b(rate|percent|no|num|number|reg|registration|id|code|in|type|treatment)\b|%/;

/** Whether a heading holds a word, or several, as whole words. */
function holds(name: string, word: string): boolean {
  return ` ${name.replace(/[^a-z0-9]+/g, " ")} `.includes(` ${word.toLowerCase()} `);
}

function plain(header: string): string {
  return header
    .toLowerCase()
    .replace(/[._:()#*]+/g, " ")
    .replace(/\s+/g, " ")
    .trim();
}
