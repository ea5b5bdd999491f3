import { textAt } from "../../at.ts";
import { parseDate } from "../../calendar/parseDate.ts";
import type { CalendarDate } from "../../calendar/date.ts";
import type { DateOrder } from "../../calendar/parseDate.ts";
import { displayAmount } from "../../money/amount.ts";
import { REGISTER_FIELDS } from "./columns.ts";
import type { ColumnMapping, RegisterField } from "./columns.ts";
import { registerAmount } from "./registerAmount.ts";
import { levyColumns, taxField } from "../tables/tableKinds.ts";
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
  due: CalendarDate | null;
  party: string;
  partyNumber: string;
  partyCountry: string;
  partyRegion: string;
  text: string;
  credit: boolean;
  /** Without tax, or with it where only that is told. */
  amount: number;
  inclusive: boolean;
  /** All tax of the row; null where the file leaves it open. */
  tax: number | null;
  /** By levy, where the file tells them apart. */
  taxes: Readonly<Record<string, number>>;
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
    return textAt(cells, reading.mapping[field]).trim();
  };
  const problem = (field: RegisterField, message: string) => {
    problems.push({ row, column: reading.mapping[field] ?? null, field, value: cell(field), message });
  };
  const date = dateCell("date", true);
  const taxPoint = dateCell("taxPoint", false);
  const due = dateCell("due", false);
  const amounts = readAmounts();
  if (cell("number") === "") problem("number", "The document number is missing.");
  if (problems.length > 0 || date === null || amounts === null) return { ok: false, problems };
  const credit =
    CREDIT_WORDS.test(cell("kind")) ||
    amounts.amount < 0 ||
    (amounts.amount === 0 && (amounts.tax ?? NO_TAX) < 0);
  return {
    ok: true,
    row: {
      row,
      number: cell("number"),
      date,
      taxPoint,
      due,
      party: cell("party"),
      partyNumber: cell("partyNumber"),
      partyCountry: cell("partyCountry"),
      partyRegion: cell("partyRegion"),
      text: cell("text"),
      credit,
      ...amounts,
      code: cell("code"),
      rate: cell("rate"),
      account: cell("account"),
    },
  };

  function dateCell(field: "date" | "taxPoint" | "due", required: boolean): CalendarDate | null {
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

  function amountCell(field: string): number | null {
    const index = reading.mapping[field];
    const text = textAt(cells, index).trim();
    const amount = registerAmount(text, reading.decimal, reading.digits);
    if (amount !== undefined) return amount;
    problems.push({ row, column: index ?? null, field, value: text, message: `"${text}" is not an amount.` });
    return null;
  }

  /** The tax of the row: the column of it, or the columns of the levies added up. */
  function readTaxes(): Pick<RegisterRow, "tax" | "taxes"> {
    const told = levyColumns(reading.mapping).flatMap(([levy]): [string, number][] => {
      const amount = amountCell(taxField(levy));
      return amount === null ? [] : [[levy, amount]];
    });
    const whole = amountCell("tax");
    const sum = told.length === 0 ? null : told.reduce((total, [, amount]) => total + amount, 0);
    if (whole !== null && sum !== null && whole !== sum) {
      const [says, parts] = [displayAmount(whole, reading.digits), displayAmount(sum, reading.digits)];
      problem("tax", `The levies add up to ${parts}, the tax is ${says}. Correct one of them.`);
    }
    return { tax: whole ?? sum, taxes: Object.fromEntries(told) };
  }

  function readAmounts(): Pick<RegisterRow, "amount" | "inclusive" | "tax" | "taxes"> | null {
    const before = problems.length;
    const [net, gross] = [amountCell("net"), amountCell("gross")];
    const { tax, taxes } = readTaxes();
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
      return { amount: net, inclusive: false, tax: tax ?? (gross === net ? null : gross - net), taxes };
    }
    if (net !== null) return { amount: net, inclusive: false, tax, taxes };
    if (gross !== null && tax !== null) return { amount: gross - tax, inclusive: false, tax, taxes };
    if (gross !== null) return { amount: gross, inclusive: true, tax, taxes };
    if (tax !== null) return { amount: 0, inclusive: false, tax, taxes };
    problem(
      reading.mapping.net === undefined ? "gross" : "net",
      `${REGISTER_FIELDS.net} and ${REGISTER_FIELDS.gross.toLowerCase()} are both missing.`,
    );
    return null;
  }
}

/** A row that tells no tax takes none off. */
const NO_TAX = 0;
