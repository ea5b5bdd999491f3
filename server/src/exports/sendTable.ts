import type { FastifyReply } from "fastify";
import type { PdfThread } from "./pdfThread.ts";
import type { ReportTable } from "./reportTable.ts";
import { tableCsv } from "./tableCsv.ts";
import { tablePdf } from "./tablePdf.ts";
import { tableXlsx } from "./tableXlsx.ts";

/** What a table can be sent as. */
export const TABLE_TYPES = {
  csv: "text/csv; charset=utf-8",
  xlsx: "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
  pdf: "application/pdf",
} as const;
export type TableFormat = keyof typeof TABLE_TYPES;

/**
 * Sends a table as a file to be kept; `name` without its ending.
 * @param pdfs where long tables are laid out; short ones need none
 */
export async function sendTable(
  reply: FastifyReply,
  name: string,
  format: TableFormat,
  table: ReportTable,
  pdfs?: PdfThread,
): Promise<FastifyReply> {
  const content =
    format === "csv"
      ? tableCsv(table)
      : format === "xlsx"
        ? await tableXlsx(table)
        : await (pdfs ? pdfs.table(table) : tablePdf(table));
  return reply
    .type(TABLE_TYPES[format])
    .header("content-disposition", `attachment; filename="${name}.${format}"`)
    .send(content);
}
