import Papa from "papaparse";
import type { DateOrder } from "../../calendar/parseDate.ts";
import { FiscalError } from "../../errors.ts";
import { recogniseTable } from "../tables/recogniseTable.ts";
import type { TableShape } from "../tables/recogniseTable.ts";
import type { LevyWords, TableName } from "../tables/tableKinds.ts";

const SAMPLE_ROWS = 400;

/**
 * Recognises a table in text: its separator, and what recogniseTable recognises.
 * @param text the beginning of the file, decoded; a last broken line does not matter
 * @param assumedOrder the order of dates where none of the sample has a day above 12
 * @throws FiscalError `formats/empty-file`, `formats/not-a-table`, `formats/no-header`
 */
export function recogniseRegister(
  text: string,
  assumedOrder: DateOrder,
  name: TableName = "register",
  levies: readonly LevyWords[] = [],
): TableShape {
  if (text.trim() === "")
    throw new FiscalError("formats/empty-file", "The file is empty. Export it again.", "file");
  const parsed = Papa.parse<string[]>(text, { preview: SAMPLE_ROWS, skipEmptyLines: false });
  return recogniseTable(parsed.data, parsed.meta.delimiter, name, assumedOrder, levies);
}
