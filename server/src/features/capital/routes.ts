import type { FastifyInstance } from "fastify";
import Joi from "joi";
import { capitalItemBody } from "@fiscalon/contract/capitalItems";
import type { CapitalItemBody } from "@fiscalon/contract/capitalItems";
import { described, registrationParams } from "../../base/validation.ts";
import { addItem, changeItem, removeItem } from "../../books/capital/keepItem.ts";
import { loadSetup, registrationIn } from "../../books/loadSetup.ts";
import { PdfThread } from "../../exports/pdfThread.ts";
import { formatQuery, sendTable } from "../../exports/sendTable.ts";
import type { TableFormat } from "../../exports/sendTable.ts";

import { capitalItem, capitalTable, capitalView } from "./view.ts";

type Registration = { Params: { id: number; rid: string } };
type Item = { Params: { id: number; rid: string; no: number } };
const BASE = "/clients/:id/registrations/:rid/capital-items";
const TAG = "Capital items";
const itemParams = registrationParams.append({ no: Joi.number().integer().min(1).required() });

export async function capitalRoutes(app: FastifyInstance): Promise<void> {
  const pdfs = new PdfThread();
  app.addHook("onClose", () => pdfs.end());

  app.get<Registration>(
    BASE,
    {
      schema: described("Capital items whose tax follows their use, with what each year adjusts", TAG, {
        params: registrationParams,
      }),
    },
    async ({ work, params }) =>
      capitalView(work, registrationIn(await loadSetup(work, params.id), params.rid)),
  );

  app.get<Registration & { Querystring: { format: TableFormat } }>(
    `${BASE}/export`,
    {
      schema: described("The list of capital items as CSV, workbook or PDF", TAG, {
        params: registrationParams,
        querystring: formatQuery,
      }),
    },
    async ({ work, params, query }, reply) => {
      const setup = await loadSetup(work, params.id);
      const table = await capitalTable(work, setup.client.name, registrationIn(setup, params.rid));
      return sendTable(reply, "capital-items", query.format, table, pdfs);
    },
  );

  app.post<Registration & { Body: CapitalItemBody }>(
    BASE,
    {
      schema: described("Put a capital item on the list", TAG, {
        params: registrationParams,
        body: capitalItemBody,
      }),
    },
    async ({ work, params, body }, reply) =>
      reply.status(201).send(
        await work.write(async (work) => {
          const r = registrationIn(await loadSetup(work, params.id), params.rid);
          const no = await addItem(work, r, body);
          await work.record({
            action: "create",
            entity: "capital-item",
            id: no,
            after: body,
          });
          return capitalItem(work, r, no);
        }),
      ),
  );

  app.put<Item & { Body: CapitalItemBody }>(
    `${BASE}/:no`,
    {
      schema: described("Change a capital item: its use, its end", TAG, {
        params: itemParams,
        body: capitalItemBody,
      }),
    },
    ({ work, params, body }) =>
      work.write(async (work) => {
        const r = registrationIn(await loadSetup(work, params.id), params.rid);
        await changeItem(work, r, params.no, body);
        await work.record({
          action: "change",
          entity: "capital-item",
          id: params.no,
          after: body,
        });
        return capitalItem(work, r, params.no);
      }),
  );

  app.delete<Item>(
    `${BASE}/:no`,
    { schema: described("Take a capital item off the list", TAG, { params: itemParams }) },
    async ({ work, params }, reply) => {
      await work.write(async (work) => {
        const r = registrationIn(await loadSetup(work, params.id), params.rid);
        await removeItem(work, r, params.no);
        await work.record({ action: "remove", entity: "capital-item", id: params.no });
      });
      return reply.status(204).send();
    },
  );
}
