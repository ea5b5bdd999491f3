import { textAt } from "../../at.ts";
import { FiscalError } from "../../errors.ts";
import { parseDate } from "../../calendar/parseDate.ts";
import type { DateOrder } from "../../calendar/parseDate.ts";
import { registerAmount, guessDecimalSign } from "../registers/registerAmount.ts";
import type { BankStatement, StatementLine } from "./bankStatement.ts";
import { orderOfDates } from "../tables/recogniseTable.ts";
import { uniqueId } from "./camt053.ts";

/** What a column of a bank's CSV can hold, by words in its heading. */
const HEADINGS = {
  date: /^(transaction |booking |posting |value )?date$|^booked/,
  amount: /^(amount|value)( \(?[a-z]{3}\)?)?$/,
  in: /paid in|money in|^credit|deposit|^in$/,
  out: /paid out|money out|^debit|withdrawal|^out$/,
  balance: /balance/,
  side: /^(amount |entry |transaction )?(type|indicator|side)$|^(cr|credit) ?[/|-] ?(dr|debit)$|^(dr|debit) ?[/|-] ?(cr|credit)$|^d\/c$|^c\/d$/,
  party: /payee|counterparty|^name$|beneficiary|^from|^to$/,
  text: /description|details|narrative|memo|text|particulars/,
  reference: /reference|^ref$/,
  id: /^(transaction )?id$|transaction (number|reference)/,
} as const;
type Column = keyof typeof HEADINGS;

/**
 * Reads a bank's CSV: a heading row that names a date and either one signed amount or money in and out.
 * @param rows the cells of the file, row by row
 * @param assumedOrder the order of dates where none of them has a day above 12
 * @throws FiscalError `formats/no-header`, and with the row `formats/bad-date`, `formats/bad-amount`
 */
export function readStatementCsv(
  rows: readonly (readonly string[])[],
  currency: string,
  digits: number,
  assumedOrder: DateOrder = "dmy",
): BankStatement {
  const { columns, at } = headingOf(rows);
  const body = rows
    .map((cells, index) => ({ cells, row: index + 1 }))
    .filter(({ cells, row }) => row > at + 1 && cells.some((cell) => cell.trim() !== ""));
  const cell = (cells: readonly string[], name: Column) => textAt(cells, columns[name]).trim();
  const samples = body
    .slice(0, 200)
    .flatMap(({ cells }) => (["amount", "in", "out"] as const).map((name) => cell(cells, name)));
  const decimal = guessDecimalSign(samples);
  const dateOrder = orderOfDates(body.map(({ cells }) => cell(cells, "date"))) ?? assumedOrder;
  const seen = new Map<string, number>();
  const money = (cells: readonly string[], name: Column, row: number): number | null => {
    const amount = registerAmount(cell(cells, name), decimal, digits, "more");
    if (amount === undefined) {
      throw new FiscalError(
        "formats/bad-amount",
        `Row ${row}: "${cell(cells, name)}" is not an amount.`,
        "file",
      );
    }
    return amount;
  };
  const lines = body.flatMap(({ cells, row }): StatementLine[] => {
    const date = parseDate(cell(cells, "date"), dateOrder);
    if (date === undefined)
      throw new FiscalError(
        "formats/bad-date",
        `Row ${row}: "${cell(cells, "date")}" is no date that exists.`,
        "file",
      );
    const amount =
      columns.amount === undefined
        ? Math.abs(money(cells, "in", row) ?? 0) - Math.abs(money(cells, "out", row) ?? 0)
        : bySide(money(cells, "amount", row), cell(cells, "side"));
    if (amount === null || amount === 0) return [];
    const line = {
      date,
      amount,
      party: cell(cells, "party"),
      text: cell(cells, "text"),
      reference: cell(cells, "reference"),
    };
    return [{ id: uniqueId(cell(cells, "id"), line, seen), ...line }];
  });
  return { account: "", currency, opening: null, closing: null, lines };
}

/** An amount whose column beside says which way it went. */
function bySide(amount: number | null, side: string): number | null {
  if (amount === null) return null;
  if (/^(d|dr|db|debit|out|withdrawal|payment)$/i.test(side)) return -Math.abs(amount);
  return /^(c|cr|credit|in|deposit|receipt)$/i.test(side) ? Math.abs(amount) : amount;
}

function headingOf(rows: readonly (readonly string[])[]): {
  columns: Partial<Record<Column, number>>;
  at: number;
} {
  for (const [at, cells] of rows.slice(0, 20).entries()) {
    const columns: Partial<Record<Column, number>> = {};
    cells.forEach((text, index) => {
      const name = (Object.keys(HEADINGS) as Column[]).find(
        (one) => columns[one] === undefined && HEADINGS[one].test(text.trim().toLowerCase()),
      );
      if (name) columns[name] = index;
    });
    const told = columns.amount !== undefined || (columns.in !== undefined && columns.out !== undefined);
    if (columns.date !== undefined && told) return { columns, at };
  }
  throw new FiscalError(
    "formats/no-header",
    "No row of headings was found. A statement needs one that names the date and the amount, or money in and out.",
    "file",
  );
}
