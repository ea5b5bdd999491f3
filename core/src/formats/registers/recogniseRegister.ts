import Papa from "papaparse";
import type { DateOrder } from "../../calendar/parseDate.ts";
import { FiscalError } from "../../errors.ts";
import { guessColumns } from "./columns.ts";
import type { ColumnMapping } from "./columns.ts";
import { guessDecimalSign } from "./registerAmount.ts";
import type { DecimalSign } from "./registerAmount.ts";

/** What a register file looks like, recognised from its first lines. */
export interface RegisterShape {
  delimiter: string;
  /** Rows above the header (titles, blank lines), from 0. */
  headerRow: number;
  columns: { name: string; samples: string[] }[];
  mapping: ColumnMapping;
  dateOrder: DateOrder;
  /** Whether a date of the sample decides the order, or it was assumed. */
  dateOrderSure: boolean;
  decimal: DecimalSign;
}

const SAMPLE_ROWS = 400;

/**
 * Recognises separator, header, columns, order of dates and decimal sign of a register.
 * @param text the beginning of the file, decoded; a last broken line does not matter
 * @param assumedOrder the order of dates where none of the sample has a day above 12
 * @throws FiscalError `formats/empty-file`, `formats/not-a-table`, `formats/no-header`
 */
export function recogniseRegister(text: string, assumedOrder: DateOrder): RegisterShape {
  if (text.trim() === "")
    throw new FiscalError("formats/empty-file", "The file is empty. Export it again.", "file");
  const parsed = Papa.parse<string[]>(text, { preview: SAMPLE_ROWS, skipEmptyLines: false });
  const rows = parsed.data;
  const width = Math.max(...rows.map((row) => row.length));
  if (width < 3 || text.includes("\u0000")) {
    throw new FiscalError(
      "formats/not-a-table",
      "This is no register: no columns can be told apart. Save it as CSV with one document a row.",
      "file",
    );
  }
  const headerRow = headerRowOf(rows);
  const header = rows[headerRow] ?? [];
  const body = rows.slice(headerRow + 1);
  const mapping = guessColumns(header);
  const column = (index: number | undefined) =>
    index === undefined ? [] : body.map((row) => row[index] ?? "").filter((cell) => cell.trim() !== "");
  const dates = orderOfDates(column(mapping.date));
  return {
    delimiter: parsed.meta.delimiter,
    headerRow,
    columns: header.map((name, index) => ({ name: name.trim(), samples: column(index).slice(0, 3) })),
    mapping,
    dateOrder: dates ?? assumedOrder,
    dateOrderSure: dates !== undefined,
    decimal: guessDecimalSign([...column(mapping.net), ...column(mapping.gross), ...column(mapping.tax)]),
  };
}

/** The first row in which date, number and an amount can be told from their names. */
function headerRowOf(rows: readonly string[][]): number {
  const scores = rows.slice(0, 20).map((row) => {
    const found = guessColumns(row);
    const amount = found.net !== undefined || found.gross !== undefined;
    return Object.keys(found).length + (found.date !== undefined && amount ? 10 : 0);
  });
  const best = Math.max(...scores);
  if (best < 10) {
    throw new FiscalError(
      "formats/no-header",
      "No row of headings was found. The register needs a first row that names at least a date and an amount column.",
      "file",
    );
  }
  return scores.indexOf(best);
}

function orderOfDates(samples: readonly string[]): DateOrder | undefined {
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
