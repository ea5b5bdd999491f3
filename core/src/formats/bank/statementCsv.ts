import { at, textAt } from "../../at.ts";
import type { CalendarDate } from "../../calendar/date.ts";
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
  const { columns, header } = headingOf(rows);
  const body = rows
    .map((cells, index) => ({ cells, row: index + 1 }))
    .filter(({ cells, row }) => row > header + 1 && cells.some((cell) => cell.trim() !== ""));
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
  // Some banks write money out with a minus in its column; where they do not, a minus there is money that came back.
  const outSign = body.every(({ cells, row }) => (money(cells, "out", row) ?? 0) <= 0) ? 1 : -1;
  const read = body.map(({ cells, row }): ReadRow => {
    const date = parseDate(cell(cells, "date"), dateOrder);
    if (date === undefined)
      throw new FiscalError(
        "formats/bad-date",
        `Row ${row}: "${cell(cells, "date")}" is no date that exists.`,
        "file",
      );
    const amount =
      columns.amount === undefined
        ? (money(cells, "in", row) ?? 0) + outSign * (money(cells, "out", row) ?? 0)
        : (bySide(money(cells, "amount", row), cell(cells, "side")) ?? 0);
    return {
      cells,
      date,
      amount,
      balance: columns.balance === undefined ? null : money(cells, "balance", row),
    };
  });
  const lines = read.flatMap(({ cells, date, amount }): StatementLine[] => {
    if (amount === 0) return [];
    const line = {
      date,
      amount,
      party: cell(cells, "party"),
      text: cell(cells, "text"),
      reference: cell(cells, "reference"),
    };
    return [{ id: uniqueId(cell(cells, "id"), line, seen), ...line }];
  });
  return { account: "", currency, ...balancesOf(read), lines };
}

/** A row as it was read; `balance` is what stands beside it, where the file has that. */
interface ReadRow {
  cells: readonly string[];
  date: CalendarDate;
  amount: number;
  balance: number | null;
}

/** The balance before the first line and after the last, from the column of balances; newest first or oldest first. */
function balancesOf(rows: readonly ReadRow[]): Pick<BankStatement, "opening" | "closing"> {
  const told = rows.filter(({ balance }) => balance !== null);
  const [top, bottom] = [told[0], told.at(-1)];
  if (!top || !bottom || told.length < rows.length) return { opening: null, closing: null };
  const newestFirst = top.date === bottom.date ? fitsNewestFirst(rows) : top.date > bottom.date;
  const [oldest, newest] = newestFirst ? [bottom, top] : [top, bottom];
  return { opening: (oldest.balance ?? 0) - oldest.amount, closing: newest.balance };
}

/** Within one day only the balances tell the order: each is the one before it and the amount. */
function fitsNewestFirst(rows: readonly ReadRow[]): boolean {
  return (
    rows.every(
      ({ balance, amount }, index) =>
        index === rows.length - 1 || balance === (at(rows, index + 1).balance ?? 0) + amount,
    ) && rows.length > 1
  );
}

/** An amount whose column beside says which way it went. */
function bySide(amount: number | null, side: string): number | null {
  if (amount === null) return null;
  if (/^(d|dr|db|debit|out|withdrawal|payment)$/i.test(side)) return -Math.abs(amount);
  return /^(c|cr|credit|in|deposit|receipt)$/i.test(side) ? Math.abs(amount) : amount;
}

function headingOf(rows: readonly (readonly string[])[]): {
  columns: Partial<Record<Column, number>>;
  header: number;
} {
  for (const [header, cells] of rows.slice(0, 20).entries()) {
    const columns: Partial<Record<Column, number>> = {};
    cells.forEach((text, index) => {
      const name = (Object.keys(HEADINGS) as Column[]).find(
        (one) => columns[one] === undefined && HEADINGS[one].test(text.trim().toLowerCase()),
      );
      if (name) columns[name] = index;
    });
    const told = columns.amount !== undefined || (columns.in !== undefined && columns.out !== undefined);
    if (columns.date !== undefined && told) return { columns, header };
  }
  throw new FiscalError(
    "formats/no-header",
    "No row of headings was found. A statement needs one that names the date and the amount, or money in and out.",
    "file",
  );
}
