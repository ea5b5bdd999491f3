import { textAt } from "../../at.ts";
import { FiscalError } from "../../errors.ts";
import { parseDate } from "../../calendar/parseDate.ts";
import { registerAmount } from "../registers/registerAmount.ts";
import type { RowProblem } from "../registers/readRow.ts";
import { CUSTOMS } from "./furnished.ts";
import type { Heads } from "./furnished.ts";
import type { StatementContent, StatementRow } from "./statementRow.ts";

/** A sheet of a workbook, all cells as text. */
export interface SheetText {
  name: string;
  rows: readonly (readonly string[])[];
}

const COLUMNS = {
  partyNumber: /gstin of (supplier|isd|the supplier)|^gstin$/,
  partyName: /trade|legal name/,
  number: /(invoice|note|document|entry|boe|bill of entry)[^|]*number/,
  kind: /note type|document type|isd document type/,
  date: /(invoice|note|document|entry|boe|bill of entry)[^|]*date/,
  place: /place of supply/,
  reverse: /reverse charge/,
  rate: /rate/,
  value: /taxable value/,
  igst: /integrated tax/,
  cgst: /central tax/,
  sgst: /state|\but tax/,
  cess: /cess/,
  available: /itc availability|^eligibility/,
  reason: /reason/,
} as const;

type Column = keyof typeof COLUMNS;

/**
 * Reads the same list from the portal's workbook: sheets B2B, B2BA, B2B-CDNR, B2B-CDNRA, ISD and IMPG, each with a row
 * of groups and a row of columns above its rows, one row a rate.
 * Source: published column names of the portal, registers.md 3.
 * @throws FiscalError `formats/not-furnished`
 */
export function readFurnishedSheets(
  sheets: readonly SheetText[],
  heads: Heads,
  digits: number,
): StatementContent {
  const problems: RowProblem[] = [];
  const found = sheets.flatMap((sheet) => {
    const layout = layoutOf(sheet);
    return layout ? [rowsOf(sheet, layout, heads, digits, problems)] : [];
  });
  if (found.length === 0) {
    throw new FiscalError(
      "formats/not-furnished",
      "No sheet of this workbook lists furnished documents. It needs one with the supplier's number, document number and date, and taxable value.",
      "file",
    );
  }
  return { number: "", periodEnd: null, drawnOn: null, rows: found.flat(), problems, leftOut: 0 };
}

interface Layout {
  header: number;
  columns: Partial<Record<Column, number>>;
  /** Column of the number a row amends. */
  original: number | undefined;
  isNotes: boolean;
  isBorder: boolean;
}

function layoutOf({ name, rows }: SheetText): Layout | null {
  const isBorder = /^IMPG/i.test(name);
  for (let header = 0; header < Math.min(rows.length, 12); header += 1) {
    const words = headingWords(rows[header] ?? [], header > 0 ? (rows[header - 1] ?? []) : []);
    const columns = columnsOf(words);
    const whole = columns.number !== undefined && columns.date !== undefined && columns.value !== undefined;
    if (!whole || (!isBorder && columns.partyNumber === undefined)) continue;
    const original = words.findIndex((text) => isOfOriginal(text) && /number/.test(ownTitle(text)));
    return {
      header,
      columns,
      original: original < 0 ? undefined : original,
      isNotes: /CDNR/i.test(name),
      isBorder,
    };
  }
  return null;
}

/** The words of each column: of its group, which stands above and reaches to the next one, and its own. */
function headingWords(titles: readonly string[], groups: readonly string[]): string[] {
  let group = "";
  return titles.map((title, at) => {
    group = textAt(groups, at).trim() || group;
    return `${group} | ${title === "" ? group : title}`.toLowerCase().replace(/[₹()%]/g, "");
  });
}

function ownTitle(words: string): string {
  return words.slice(words.indexOf("| ") + 2);
}

/** Whether a column tells of the document that is amended: its number, its date. */
function isOfOriginal(words: string): boolean {
  return /original/.test(words) && /number|date/.test(ownTitle(words));
}

function columnsOf(words: readonly string[]): Partial<Record<Column, number>> {
  const columns: Partial<Record<Column, number>> = {};
  for (const [column, pattern] of Object.entries(COLUMNS) as [Column, RegExp][]) {
    const find = (read: (text: string) => string) =>
      words.findIndex((text) => !isOfOriginal(text) && pattern.test(read(text)));
    const own = find(ownTitle);
    const any = own >= 0 ? own : find((text) => text.replace(" | ", " "));
    if (any >= 0) columns[column] = any;
  }
  return columns;
}

function rowsOf(
  { name, rows }: SheetText,
  { header, columns, original, isNotes, isBorder }: Layout,
  heads: Heads,
  digits: number,
  problems: RowProblem[],
): StatementRow[] {
  const documents = new Map<string, StatementRow>();
  for (const [at, cells] of rows.entries()) {
    if (at <= header || cells.every((cell) => cell.trim() === "")) continue;
    const text = (column: Column) => textAt(cells, columns[column]).trim();
    const number = text("number");
    if (number === "" || /total$/i.test(number)) continue;
    const date = parseDate(text("date"), "dmy");
    if (date === undefined) {
      const message = `Sheet ${name}: "${text("date")}" is no date that exists.`;
      problems.push({
        row: at + 1,
        column: columns.date ?? null,
        field: "date",
        value: text("date"),
        message,
      });
      continue;
    }
    const sign = isNotes && !/debit|^d$/i.test(text("kind")) ? -1 : 1;
    const amount = (column: Column) => {
      const read = registerAmount(text(column), ".", digits);
      if (read !== undefined) return (read ?? NOTHING) * sign || 0;
      const message = `Sheet ${name}: "${text(column)}" is not an amount.`;
      problems.push({
        row: at + 1,
        column: columns[column] ?? null,
        field: column,
        value: text(column),
        message,
      });
      return 0;
    };
    const taxes = (Object.entries(heads) as [Column, string][]).flatMap(
      ([head, levy]): [string, number][] => {
        const tax = amount(head);
        return tax === 0 ? [] : [[levy, tax]];
      },
    );
    const partyNumber = isBorder && text("partyNumber") === "" ? CUSTOMS : text("partyNumber");
    const available = text("available");
    const key = [partyNumber, number, date].join("/");
    const before = documents.get(key);
    const rate = text("rate").replace(/\s*%$/, "");
    const row: StatementRow = {
      row: before?.row ?? at + 1,
      partyNumber,
      partyName: text("partyName") || (isBorder ? "Customs" : ""),
      number,
      original: textAt(cells, original).trim(),
      date,
      value: (before?.value ?? NOTHING) + amount("value"),
      tax: (before?.tax ?? NOTHING) + taxes.reduce((sum, [, tax]) => sum + tax, 0),
      gross: null,
      taxes: added(before?.taxes ?? {}, taxes),
      rate: before && before.rate !== rate ? "" : rate,
      place: text("place").replace(/-.*/, ""),
      ineligible: /^no?$/i.test(available) ? text("reason") || "no credit is available" : "",
      note: /^y/i.test(text("reverse")) ? "reverse charge" : "",
    };
    documents.set(key, row);
  }
  return [...documents.values()];
}

/** An empty cell. */
const NOTHING = 0;

function added(
  taxes: Readonly<Record<string, number>>,
  more: readonly [string, number][],
): Record<string, number> {
  const sums = { ...taxes };
  for (const [levy, tax] of more) sums[levy] = (sums[levy] ?? NOTHING) + tax;
  return sums;
}
