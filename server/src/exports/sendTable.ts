import Joi from "joi";
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

/** What is asked for with a table that can be kept as a file. */
export const formatQuery = Joi.object({
  format: Joi.string()
    .valid(...Object.keys(TABLE_TYPES))
    .required(),
});

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
