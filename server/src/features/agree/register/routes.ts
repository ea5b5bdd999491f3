import type { FastifyInstance } from "fastify";
import Joi from "joi";
import { FiscalError } from "@fiscalon/core/errors";
import { id } from "@fiscalon/contract/fields";
import { dimension, sheetFigure, sheetMapping } from "@fiscalon/contract/registerSheets";
import type { SheetMapping } from "@fiscalon/contract/registerSheets";
import { clientParams, described } from "../../../base/validation.ts";
import { loadSetup } from "../../../books/loadSetup.ts";
import { formatQuery, sendTable } from "../../../exports/sendTable.ts";
import type { TableFormat } from "../../../exports/sendTable.ts";
import { sheetPivot, sheetRows } from "./pivot.ts";
import type { PivotAsk } from "./pivot.ts";
import { receiveSheet, sheetList, sheetRecord, sheetView } from "./sheets.ts";
import { sheetTable } from "./sheetTable.ts";

interface Sheet {
  id: number;
  sheet: number;
}
const BASE = "/clients/:id/register-sheets";
const ONE = `${BASE}/:sheet`;
const TAG = "Agree";
const sheetParams = Joi.object({ id: id.required(), sheet: id.required() });
const ask = {
  rows: dimension,
  columns: dimension,
  figure: sheetFigure,
  search: Joi.string().allow("").max(100).default(""),
};

/** Exported registers compared as they are, without being posted. */
export async function registerSheetRoutes(app: FastifyInstance): Promise<void> {
  app.get<{ Params: { id: number } }>(
    BASE,
    {
      schema: described("Exported registers that were dropped to be compared", TAG, { params: clientParams }),
    },
    ({ work, params }) => sheetList(work, params.id),
  );

  app.post<{ Params: { id: number } }>(
    BASE,
    {
      schema: described("Drop an exported register to compare (multipart, one file); posts nothing", TAG, {
        params: clientParams,
      }),
    },
    async (request, reply) => {
      const setup = await loadSetup(request.work, request.params.id);
      const file = await request.file();
      if (!file) throw new FiscalError("imports/no-file", "Choose a file.", "file");
      const made = await receiveSheet(request.work, setup, file.filename, await file.toBuffer());
      return reply.status(201).send(await sheetView(request.work, setup, made));
    },
  );

  app.get<{ Params: Sheet }>(
    ONE,
    {
      schema: described("A register with both its values, and why they differ", TAG, { params: sheetParams }),
    },
    async ({ work, params }) => sheetView(work, await loadSetup(work, params.id), params.sheet),
  );

  app.put<{ Params: Sheet; Body: SheetMapping }>(
    `${ONE}/mapping`,
    {
      schema: described("Say which columns make up which value", TAG, {
        params: sheetParams,
        body: sheetMapping,
      }),
    },
    async ({ work, params, body }, reply) => {
      await work.write(async (work) => {
        const { columns } = await sheetRecord(work, params.id, params.sheet);
        const sums = [...body.accounts, ...body.returns, ...(body.tax === null ? [] : [body.tax])];
        if (sums.some((at) => columns[at]?.kind !== "amount")) {
          throw new FiscalError(
            "register/not-amounts",
            "Only columns of amounts can make up a value. Choose others.",
            "accounts",
          );
        }
        await work.run("UPDATE register_sheets SET mapping = $2 WHERE id = $1", [
          params.sheet,
          JSON.stringify(body),
        ]);
        await work.record({
          action: "change",
          entity: "statement",
          id: params.sheet,
          after: { register: body },
        });
      });
      return reply.status(204).send();
    },
  );

  app.delete<{ Params: Sheet }>(
    ONE,
    { schema: described("Take a register out", TAG, { params: sheetParams }) },
    async ({ work, params }, reply) => {
      await work.write(async (work) => {
        const { name } = await sheetRecord(work, params.id, params.sheet);
        await work.run("DELETE FROM register_rows WHERE sheet_id = $1", [params.sheet]);
        await work.run("DELETE FROM register_sheets WHERE id = $1", [params.sheet]);
        await work.record({
          action: "remove",
          entity: "statement",
          id: params.sheet,
          before: { register: name },
        });
      });
      return reply.status(204).send();
    },
  );

  app.get<{ Params: Sheet; Querystring: PivotAsk }>(
    `${ONE}/pivot`,
    {
      schema: described("A register put together by two dimensions", TAG, {
        params: sheetParams,
        querystring: Joi.object(ask),
      }),
    },
    ({ work, params, query }) => sheetPivot(work, params.id, params.sheet, query),
  );

  app.get<{
    Params: Sheet;
    Querystring: PivotAsk & { row: string | null; column: string | null; offset: number; limit: number };
  }>(
    `${ONE}/rows`,
    {
      schema: described("The rows behind a cell of it, by pages", TAG, {
        params: sheetParams,
        querystring: Joi.object({
          ...ask,
          row: Joi.string().allow("", null).max(500).default(null),
          column: Joi.string().allow("", null).max(500).default(null),
          offset: Joi.number().integer().min(0).default(0),
          limit: Joi.number().integer().min(1).max(500).default(100),
        }),
      }),
    },
    ({ work, params, query }) => sheetRows(work, params.id, params.sheet, query),
  );

  app.get<{ Params: Sheet; Querystring: { format: TableFormat } }>(
    `${ONE}/file`,
    {
      schema: described("The comparison with every row as a file", TAG, {
        params: sheetParams,
        querystring: formatQuery,
      }),
    },
    async ({ work, params, query }, reply) => {
      const setup = await loadSetup(work, params.id);
      const table = await sheetTable(work, setup, params.sheet);
      return sendTable(reply, `register-${params.sheet}`, query.format, table);
    },
  );
}
