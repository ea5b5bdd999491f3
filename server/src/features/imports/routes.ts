import type { FastifyInstance, FastifyRequest } from "fastify";
import Joi from "joi";
import { FiscalError } from "@fiscalon/core/errors";
import { IMPORT_CONTENTS, importSettings } from "@fiscalon/contract/imports";
import type { ImportContent, ImportSettings } from "@fiscalon/contract/imports";
import { id } from "@fiscalon/contract/fields";
import type { AppContext } from "../../appContext.ts";
import { csvAnswer } from "../../base/csvAnswer.ts";
import { clientParams, described } from "../../base/validation.ts";
import { orderFields, paging } from "../../db/listOrder.ts";
import { IMPORT_ORDER, importPage } from "./importPage.ts";
import type { ImportFilter } from "./importPage.ts";
import { notFound } from "../../base/errors.ts";
import { readKeptFile } from "../../base/files.ts";
import { changeSettings, importBatch, importRecord, receiveFile } from "./service.ts";

type Id = { Params: { id: number } };
type Import = { Params: { id: number; import: number } };
const importParams = Joi.object({ id: id.required(), import: id.required() });
const receiveQuery = Joi.object({
  direction: Joi.string().valid("sale", "purchase").default("purchase"),
  content: Joi.string()
    .valid(...Object.keys(IMPORT_CONTENTS))
    .default("register"),
});

export async function importRoutes(app: FastifyInstance, { jobs }: AppContext): Promise<void> {
  app.get<Id & { Querystring: ImportFilter }>(
    "/clients/:id/imports",
    {
      schema: described("A page of imports, newest first", "Books", {
        params: clientParams,
        querystring: Joi.object({ ...paging, ...orderFields(IMPORT_ORDER) }),
      }),
    },
    (request) => importPage(request.work, request.params.id, request.query),
  );

  app.post<Id & { Querystring: { direction: "sale" | "purchase"; content: ImportContent } }>(
    "/clients/:id/imports",
    {
      schema: described(
        "Drop a file: table, workbook, e-invoice or audit file (multipart, one file)",
        "Books",
        {
          params: clientParams,
          querystring: receiveQuery,
        },
      ),
    },
    async (request, reply) => {
      const file = await request.file();
      if (!file) throw new FiscalError("imports/no-file", "Choose a file.", "file");
      const bytes = await file.toBuffer();
      const { direction, content } = request.query;
      const importId = await receiveFile(request.work, request.params.id, {
        content,
        direction,
        name: file.filename,
        bytes,
      });
      return reply.status(201).send(await importBatch(request.work, request.params.id, importId));
    },
  );

  app.get<Import>(
    "/clients/:id/imports/:import",
    { schema: described("An import", "Books", { params: importParams }) },
    (request) => oneBatch(request),
  );

  app.put<Import & { Body: Partial<ImportSettings> }>(
    "/clients/:id/imports/:import/settings",
    {
      schema: described("Change how the file is read", "Books", {
        params: importParams,
        body: importSettings,
      }),
    },
    async (request) => {
      await changeSettings(request.work, request.params.id, request.params.import, request.body);
      return oneBatch(request);
    },
  );

  for (const [path, kind, summary] of [
    ["check", "import-check", "Dry run, as a job"],
    ["post", "import-post", "Post all documents or none, as a job"],
    ["undo", "import-undo", "Take every document of an import out again, as a job"],
  ] as const) {
    app.post<Import>(
      `/clients/:id/imports/:import/${path}`,
      { schema: described(summary, "Books", { params: importParams }) },
      async (request, reply) => {
        const { id: clientId, import: importId } = request.params;
        await importRecord(request.work, clientId, importId);
        return reply.status(202).send(await jobs.start(request.work, clientId, { kind, clientId, importId }));
      },
    );
  }

  app.get<Import>(
    "/clients/:id/imports/:import/rejected",
    {
      schema: described("Rows that could not be read, as CSV with what is wrong", "Books", {
        params: importParams,
      }),
    },
    async (request, reply) => {
      const record = await importRecord(request.work, request.params.id, request.params.import);
      if (record.rejectedHash === null) throw notFound("A file of rejected rows");
      const name = record.fileName.replace(/\.[^.]*$/, "").replace(/[^\w .-]+/g, "-");
      return csvAnswer(reply, `${name}-to-mend`, readKeptFile(request.work.folder, record.rejectedHash));
    },
  );

  function oneBatch({ params, work }: Pick<FastifyRequest<Import>, "params" | "work">) {
    return importBatch(work, params.id, params.import);
  }
}
