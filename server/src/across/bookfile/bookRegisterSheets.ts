import type { SheetCell, SheetColumn } from "@fiscalon/core/formats/registers/sheetColumns";
import { formatAmount, parseAmount } from "@fiscalon/core/money/amount";
import type { BookFile } from "@fiscalon/contract/book";
import type { BookRegisterSheet } from "@fiscalon/contract/bookRegisterSheets";
import type { SheetMapping } from "@fiscalon/contract/registerSheets";
import type { Work, Writing } from "../../base/work.ts";
import { insertSheet } from "../../books/agree/register/sheetSql.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";

/** Registers that were compared, as they are kept. */
export async function registerSheetsOfBook(
  work: Work,
  { client, plain }: ClientSetup,
): Promise<Pick<BookFile, "registerSheets">> {
  const kept = await work.rows<{ id: number; name: string; columns: string; mapping: string }>(
    "SELECT id, name, columns, mapping FROM register_sheets WHERE client_id = $1 ORDER BY id",
    [client.id],
  );
  const registerSheets: BookRegisterSheet[] = [];
  for (const { id, name, columns, mapping } of kept) {
    const rows = await work.rows<{ cells: string }>(
      "SELECT cells FROM register_rows WHERE sheet_id = $1 ORDER BY no",
      [id],
    );
    registerSheets.push({
      name,
      columns: JSON.parse(columns) as SheetColumn[],
      mapping: JSON.parse(mapping) as SheetMapping,
      rows: rows.map(({ cells }) =>
        (JSON.parse(cells) as SheetCell[]).map((cell) =>
          typeof cell === "number" ? formatAmount(cell, plain.digits) : cell,
        ),
      ),
    });
  }
  return registerSheets.length === 0 ? {} : { registerSheets };
}

/** Brings the registers of a book file. */
export async function addRegisterSheets(
  work: Writing,
  { client, plain }: ClientSetup,
  { registerSheets = [] }: BookFile,
): Promise<void> {
  for (const { rows, ...sheet } of registerSheets) {
    const amounts = sheet.columns.map(({ kind }) => kind === "amount");
    await insertSheet(
      work,
      client.id,
      sheet,
      rows.map((row) =>
        row.map((cell, at) =>
          cell !== null && amounts[at] === true ? parseAmount(cell, plain.digits) : cell,
        ),
      ),
    );
  }
}
