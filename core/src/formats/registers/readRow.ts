import { parseDate } from "../../calendar/parseDate.ts";
import type { CalendarDate } from "../../calendar/date.ts";
import type { DateOrder } from "../../calendar/parseDate.ts";
import { displayAmount } from "../../money/amount.ts";
import { REGISTER_FIELDS } from "./columns.ts";
import type { ColumnMapping, RegisterField } from "./columns.ts";
import { registerAmount } from "./registerAmount.ts";
import type { DecimalSign } from "./registerAmount.ts";

/** How the columns of a register are to be read. */
export interface RowReading {
  mapping: ColumnMapping;
  dateOrder: DateOrder;
  decimal: DecimalSign;
  digits: number;
}

/** One row, read. Amounts in minor units as printed (a credit may be negative); null where the cell is blank. */
export interface RegisterRow {
  row: number;
  number: string;
  date: CalendarDate;
  taxPoint: CalendarDate | null;
  party: string;
  partyNumber: string;
  partyCountry: string;
  text: string;
  credit: boolean;
  net: number;
  tax: number | null;
  code: string;
  rate: string;
  account: string;
}

/** Something wrong, or worth knowing, in a row. `column` from 0; null when it is not about one cell. */
export interface RowProblem {
  row: number;
  column: number | null;
  /** Field of the kind of table. */
  field: string | null;
  value: string;
  message: string;
}

const CREDIT_WORDS = /credit|refund|^cn$|^crn?$|gutschrift/i;

/** Reads one row of cells, or says what is wrong with it, cell by cell. `row` is its line number in the file. */
export function readRow(
  cells: readonly string[],
  row: number,
  reading: RowReading,
): { ok: true; row: RegisterRow } | { ok: false; problems: RowProblem[] } {
  const problems: RowProblem[] = [];
  const cell = (field: RegisterField) => {
    const index = reading.mapping[field];
    return index === undefined ? "" : (cells[index] ?? "").trim();
  };
  const problem = (field: RegisterField, message: string) => {
    problems.push({ row, column: reading.mapping[field] ?? null, field, value: cell(field), message });
  };
  const date = dateCell("date", true);
  const taxPoint = dateCell("taxPoint", false);
  const amounts = readAmounts();
  if (cell("number") === "") problem("number", "The document number is missing.");
  if (problems.length > 0 || date === null || amounts === null) return { ok: false, problems };
  const credit =
    CREDIT_WORDS.test(cell("kind")) || amounts.net < 0 || (amounts.net === 0 && (amounts.tax ?? 0) < 0);
  return {
    ok: true,
    row: {
      row,
      number: cell("number"),
      date,
      taxPoint,
      party: cell("party"),
      partyNumber: cell("partyNumber"),
      partyCountry: cell("partyCountry"),
      text: cell("text"),
      credit,
      ...amounts,
      code: cell("code"),
      rate: cell("rate"),
      account: cell("account"),
    },
  };

  function dateCell(field: "date" | "taxPoint", required: boolean): CalendarDate | null {
    const text = cell(field);
    if (text === "") {
      if (required) problem(field, "The date is missing.");
      return null;
    }
    const date = parseDate(text, reading.dateOrder);
    if (date === undefined) {
      problem(
        field,
        `"${text}" is no date that exists. Write it like ${reading.dateOrder === "mdy" ? "07/31/2026" : "31/07/2026"}.`,
      );
      return null;
    }
    return date;
  }

  function amountCell(field: "net" | "tax" | "gross"): number | null {
    const amount = registerAmount(cell(field), reading.decimal, reading.digits);
    if (amount === undefined) problem(field, `"${cell(field)}" is not an amount.`);
    return amount ?? null;
  }

  function readAmounts(): { net: number; tax: number | null } | null {
    const before = problems.length;
    const [net, tax, gross] = [amountCell("net"), amountCell("tax"), amountCell("gross")];
    if (problems.length > before) return null;
    if (net !== null && gross !== null) {
      if (tax !== null && net + tax !== gross) {
        const sum = displayAmount(net + tax, reading.digits);
        problem(
          "gross",
          `Net and tax make ${sum}, not ${displayAmount(gross, reading.digits)}. Correct one of the three.`,
        );
        return null;
      }
      return { net, tax: tax ?? (gross === net ? null : gross - net) };
    }
    if (net !== null) return { net, tax };
    if (gross !== null) return { net: gross - (tax ?? 0), tax };
    if (tax !== null) return { net: 0, tax };
    problem(
      reading.mapping.net === undefined ? "gross" : "net",
      `${REGISTER_FIELDS.net} and ${REGISTER_FIELDS.gross.toLowerCase()} are both missing.`,
    );
    return null;
  }
}
