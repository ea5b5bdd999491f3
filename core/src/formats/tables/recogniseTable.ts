import { textAt } from "../../at.ts";
import type { DateOrder } from "../../calendar/parseDate.ts";
import { FiscalError } from "../../errors.ts";
import { guessDecimalSign } from "../registers/registerAmount.ts";
import type { DecimalSign } from "../registers/registerAmount.ts";
import { guessFields, levyColumns, TABLES, taxField } from "./tableKinds.ts";
import type { LevyWords, TableKind, TableName } from "./tableKinds.ts";

/** What a table looks like, recognised from its first rows. */
export interface TableShape {
  delimiter: string;
  /** Rows above the header (titles, blank lines), from 0. */
  headerRow: number;
  columns: { name: string; samples: string[] }[];
  mapping: Record<string, number>;
  dateOrder: DateOrder;
  /** Whether a date of the sample decides the order, or it was assumed. */
  dateOrderSure: boolean;
  decimal: DecimalSign;
}

/**
 * Recognises heading row, columns, order of dates and decimal sign of a table.
 * @param rows the first rows of the file
 * @param assumedOrder the order of dates where none of the sample has a day above 12
 * @param levies whose tax may have columns of its own
 * @throws FiscalError `formats/empty-file`, `formats/not-a-table`, `formats/no-header`
 */
export function recogniseTable(
  rows: readonly (readonly string[])[],
  delimiter: string,
  name: TableName,
  assumedOrder: DateOrder,
  levies: readonly LevyWords[] = [],
): TableShape {
  if (rows.every((row) => row.every((cell) => cell.trim() === "")))
    throw new FiscalError("formats/empty-file", "The file is empty. Export it again.", "file");
  const kind: TableKind = TABLES[name];
  const width = Math.max(...rows.map((row) => row.length));
  if (width < kind.columns || rows.some((row) => row.some((cell) => cell.includes("\u0000")))) {
    throw new FiscalError(
      "formats/not-a-table",
      "This is no table: no columns can be told apart. Save it as CSV or as a workbook with one record a row.",
      "file",
    );
  }
  const headerRow = headerRowOf(rows, kind);
  const header = rows[headerRow] ?? [];
  const body = rows.slice(headerRow + 1);
  const mapping = guessFields(header, kind, levies);
  const column = (index: number | undefined) =>
    index === undefined ? [] : body.map((row) => textAt(row, index)).filter((cell) => cell.trim() !== "");
  const dates = orderOfDates(column(mapping["date"]));
  return {
    delimiter,
    headerRow,
    columns: header.map((text, index) => ({ name: text.trim(), samples: column(index).slice(0, 3) })),
    mapping,
    dateOrder: dates ?? assumedOrder,
    dateOrderSure: dates !== undefined || mapping["date"] === undefined,
    decimal: guessDecimalSign(
      [...kind.amounts, ...levyColumns(mapping).map(([levy]) => taxField(levy))].flatMap((field) =>
        column(mapping[field]),
      ),
    ),
  };
}

/** The first row in which everything needed can be told from its names. */
function headerRowOf(rows: readonly (readonly string[])[], kind: TableKind): number {
  const scores = rows.slice(0, 20).map((row) => {
    const found = guessFields(row, kind);
    const whole = kind.needs.every((group) => group.some((field) => found[field] !== undefined));
    return Object.keys(found).length + (whole ? 10 : 0);
  });
  const best = Math.max(...scores);
  if (best >= 10) return scores.indexOf(best);
  const wanted = kind.needs.map((group) =>
    group.map((field) => kind.fields[field]?.toLowerCase()).join(" or "),
  );
  throw new FiscalError(
    "formats/no-header",
    `No row of headings was found. The file needs one that names at least ${wanted.join(", ")}.`,
    "file",
  );
}

/** The order of the dates of a column, where one of them tells it. */
export function orderOfDates(samples: readonly string[]): DateOrder | undefined {
  const votes = { dmy: 0, mdy: 0, ymd: 0 };
  for (const sample of samples) {
    const [first = "", second = ""] = sample.trim().split(/[\s./-]+/);
    if (first.length === 4) votes.ymd += 1;
    else if (Number(first) > 12) votes.dmy += 1;
    else if (Number(second) > 12) votes.mdy += 1;
  }
  const [order, count] = Object.entries(votes).sort((a, b) => b[1] - a[1])[0] ?? ["dmy", 0];
  return count > 0 ? (order as DateOrder) : undefined;
}
