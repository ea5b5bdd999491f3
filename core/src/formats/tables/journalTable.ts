import { displayAmount, formatAmount } from "../../money/amount.ts";
import type { DocumentInput, LineInput } from "../../model/document.ts";
import type { RowProblem } from "../registers/readRow.ts";
import { tableRows } from "./readTable.ts";
import type { TableReading, TableRow } from "./readTable.ts";

/** Documents of a table with the rows they came from. */
export interface TableDocument {
  input: DocumentInput & { number: string };
  rows: number[];
}

/** What the readers of ledger tables know of the set-up. */
export interface LedgerReading extends TableReading {
  accounts: ReadonlySet<string>;
  codes: ReadonlySet<string>;
}

/**
 * The entries of a journal: rows with the same number (or, without one, the same date) that follow each other are one
 * entry, which must balance.
 */
export function journalDocuments(
  rows: Iterable<readonly string[]>,
  reading: LedgerReading,
): { documents: TableDocument[]; problems: RowProblem[] } {
  const problems: RowProblem[] = [];
  const documents: (TableDocument & { key: string; open: number; last: TableRow })[] = [];
  for (const row of tableRows(rows, reading, problems)) {
    const date = row.date("date");
    const amount = signedAmount(row);
    const line = lineOf(row, amount, reading);
    if (date === null || amount === null || line === null) continue;
    const number = row.text("number");
    const key = `${number} ${date}`;
    const last = documents.at(-1);
    if (last?.key === key && (number !== "" || last.open !== 0)) {
      last.input = { ...last.input, lines: [...last.input.lines, line] };
      last.rows.push(row.row);
      last.open += amount;
      last.last = row;
      continue;
    }
    const input = {
      kind: "journal" as const,
      number: number || `row ${row.row}`,
      date,
      prices: "exclusive" as const,
      lines: [line],
    };
    documents.push({ key, input, rows: [row.row], open: amount, last: row });
  }
  const whole = documents.filter(({ input, open, last }) => {
    if (open === 0 || input.lines.some(({ code }) => code)) return true;
    const side = open > 0 ? "credits" : "debits";
    last.problem(
      "number",
      `Entry ${input.number} does not balance: ${displayAmount(Math.abs(open), reading.digits)} of ${side} are missing.`,
    );
    return false;
  });
  return { documents: whole.map(({ input, rows: own }) => ({ input, rows: own })), problems };
}

/** Debit less credit, or the one signed amount. */
function signedAmount(row: TableRow): number | null {
  const before = row.broken();
  const [debit, credit, amount] = [row.amount("debit"), row.amount("credit"), row.amount("amount")];
  if (row.broken() && !before) return null;
  if (debit === null && credit === null && amount === null) {
    row.problem("debit", "There is no amount.");
    return null;
  }
  return (debit ?? 0) - Math.abs(credit ?? 0) + (amount ?? 0);
}

function lineOf(row: TableRow, amount: number | null, reading: LedgerReading): LineInput | null {
  const account = row.text("account");
  const code = row.text("code");
  if (!reading.accounts.has(account)) {
    row.problem(
      "account",
      account === "" ? "The account is missing." : `There is no account ${account} in the chart.`,
    );
    return null;
  }
  if (code !== "" && !reading.codes.has(code)) {
    row.problem("code", `There is no tax code ${code}.`);
    return null;
  }
  if (amount === null) return null;
  const text = row.text("text");
  return {
    ...(text === "" ? {} : { text }),
    account,
    amount: formatAmount(amount, reading.digits),
    ...(code === "" ? {} : { code, codeReason: "code in the journal" }),
  };
}

/** An account a trial balance names that the chart lacks. */
export interface MissingAccount {
  code: string;
  name: string;
  row: number;
}

/** A trial balance as one document of opening balances on a day; rows of totals are left out. */
export function openingDocument(
  rows: Iterable<readonly string[]>,
  reading: LedgerReading,
  date: string,
): { documents: TableDocument[]; problems: RowProblem[]; missing: MissingAccount[] } {
  const problems: RowProblem[] = [];
  const missing: MissingAccount[] = [];
  const lines: LineInput[] = [];
  const from: number[] = [];
  for (const row of tableRows(rows, reading, problems)) {
    const account = row.text("account");
    if (account === "" || /^(grand )?totals?$/i.test(account)) continue;
    const [debit, credit, balance] = [row.amount("debit"), row.amount("credit"), row.amount("balance")];
    const amount = (debit ?? 0) - Math.abs(credit ?? 0) + (balance ?? 0);
    if (row.broken() || amount === 0) continue;
    if (!reading.accounts.has(account)) missing.push({ code: account, name: row.text("name"), row: row.row });
    const text = row.text("name");
    lines.push({ ...(text === "" ? {} : { text }), account, amount: formatAmount(amount, reading.digits) });
    from.push(row.row);
  }
  const input = {
    kind: "opening-balance" as const,
    number: `Opening ${date}`,
    date,
    prices: "exclusive" as const,
    lines,
  };
  return { documents: lines.length === 0 ? [] : [{ input, rows: from }], problems, missing };
}
