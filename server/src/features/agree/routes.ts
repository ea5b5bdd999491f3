import type { FastifyInstance } from "fastify";
import Joi from "joi";
import { agreeLineBody } from "@fiscalon/contract/agreements";
import type { AgreeLineBody } from "@fiscalon/contract/agreements";
import { date, id } from "@fiscalon/contract/fields";
import { reasonBody } from "@fiscalon/contract/returns";
import { releaseBody } from "@fiscalon/contract/credit";
import type { ReleaseBody } from "@fiscalon/contract/credit";
import { clientParams, described, returnParams } from "../../base/validation.ts";
import { orderFields, paging } from "../../db/listOrder.ts";
import { formatQuery, sendTable } from "../../exports/sendTable.ts";
import type { TableFormat } from "../../exports/sendTable.ts";
import { releaseCredit, takeBackRelease } from "../../books/credit/releaseCredit.ts";
import { unpaidBody } from "@fiscalon/contract/unpaid";
import type { UnpaidBody } from "@fiscalon/contract/unpaid";
import { takeUnpaid } from "../../books/unpaid/takeUnpaid.ts";
import { ORDERS, unpaidPage } from "./unpaid.ts";
import type { UnpaidFilter } from "./unpaid.ts";
import { HELD_ORDER, heldCredit } from "./heldCredit.ts";
import type { HeldFilter } from "./heldCredit.ts";
import { loadSetup, registrationIn } from "../../books/loadSetup.ts";
import { agreeLine, agreementLines, agreementTable } from "./overview.ts";
import type { Span } from "../../books/agree/turnover/apartRows.ts";
import { yearTable, yearView } from "./yearView.ts";
import { controlAgreement } from "../../books/agree/controlAgreement.ts";
import { explainEntry } from "./explainEntry.ts";

const YEAR = "/clients/:id/registrations/:rid/year";
const registrationParams = clientParams.append({ rid: Joi.string().max(60).required() });
const span = { from: date.required(), to: date.required() };
const AGREEMENTS = "/clients/:id/registrations/:rid/agreements/:period";

export async function agreeRoutes(app: FastifyInstance): Promise<void> {
  app.get<{ Params: { id: number; rid: string; period: string } }>(
    AGREEMENTS,
    { schema: described("Every agreement of a period in brief", "Agree", { params: returnParams }) },
    async ({ work, params }) => {
      const setup = await loadSetup(work, params.id);
      return agreementLines(work, setup, registrationIn(setup, params.rid), params.period);
    },
  );

  app.post<{ Params: { id: number; rid: string; period: string }; Body: AgreeLineBody }>(
    AGREEMENTS,
    {
      schema: described("Keep that one of them is agreed as it stands", "Agree", {
        params: returnParams,
        body: agreeLineBody,
      }),
    },
    async ({ work, params, body }, reply) => {
      await work.write(async (work) => {
        const setup = await loadSetup(work, params.id);
        await agreeLine(work, setup, registrationIn(setup, params.rid), params.period, body);
      });
      return reply.status(204).send();
    },
  );

  app.get<{
    Params: { id: number; rid: string; period: string };
    Querystring: { format: TableFormat; sealed: boolean };
  }>(
    `${AGREEMENTS}/file`,
    {
      schema: described("The agreements of a period as a file", "Agree", {
        params: returnParams,
        querystring: formatQuery.append({ sealed: Joi.boolean().default(false) }),
      }),
    },
    async ({ work, params: { id, rid, period }, query: { format, sealed } }, reply) => {
      const setup = await loadSetup(work, id);
      const table = await agreementTable(work, setup, registrationIn(setup, rid), period, sealed);
      return sendTable(reply, `agreements-${period}${sealed ? "-as-sealed" : ""}`, format, table);
    },
  );

  app.get<{ Params: { id: number; rid: string; period: string } }>(
    "/clients/:id/registrations/:rid/agreements/:period/control",
    { schema: described("Control-account agreement of a period", "Agree", { params: returnParams }) },
    async (request) => {
      const setup = await loadSetup(request.work, request.params.id);
      return controlAgreement(
        request.work,
        setup,
        registrationIn(setup, request.params.rid),
        request.params.period,
      );
    },
  );

  app.get<{ Params: { id: number; rid: string }; Querystring: Span }>(
    YEAR,
    {
      schema: described("The returns of a stretch of whole periods against its ledger, by box", "Agree", {
        params: registrationParams,
        querystring: Joi.object(span),
      }),
    },
    async ({ work, params, query }) => {
      const setup = await loadSetup(work, params.id);
      return yearView(work, setup, registrationIn(setup, params.rid), query);
    },
  );

  app.get<{ Params: { id: number; rid: string }; Querystring: Span & { format: TableFormat } }>(
    `${YEAR}/file`,
    {
      schema: described("The same as a file", "Agree", {
        params: registrationParams,
        querystring: formatQuery.append(span),
      }),
    },
    async ({ work, params, query: { format, ...of } }, reply) => {
      const setup = await loadSetup(work, params.id);
      const view = await yearView(work, setup, registrationIn(setup, params.rid), of);
      return sendTable(reply, `year-${of.to}`, format, yearTable(setup, view));
    },
  );

  app.get<{ Params: { id: number }; Querystring: HeldFilter }>(
    "/clients/:id/held-credit",
    {
      schema: described("Tax on purchases that is not deducted yet, by pages", "Agree", {
        params: clientParams,
        querystring: Joi.object({
          ...paging,
          state: Joi.string().valid("waiting", "released", "").default("waiting"),
          ...orderFields(HELD_ORDER),
        }),
      }),
    },
    async (request) =>
      heldCredit(request.work, await loadSetup(request.work, request.params.id), request.query),
  );

  app.post<{ Params: { id: number }; Body: ReleaseBody }>(
    "/clients/:id/held-credit/release",
    {
      schema: described("Say that what held credit waited for is there", "Agree", {
        params: clientParams,
        body: releaseBody,
      }),
    },
    async (request, reply) => {
      await releaseCredit(request.work, request.params.id, request.body);
      return reply.status(204).send();
    },
  );

  app.delete<{ Params: { id: number; document: number } }>(
    "/clients/:id/held-credit/:document",
    {
      schema: described("Take a release of held credit back", "Agree", {
        params: Joi.object({ id: id.required(), document: id.required() }),
      }),
    },
    async (request, reply) => {
      await takeBackRelease(request.work, request.params.id, request.params.document);
      return reply.status(204).send();
    },
  );

  app.get<{ Params: { id: number; rid: string; period: string }; Querystring: UnpaidFilter }>(
    "/clients/:id/registrations/:rid/unpaid/:period",
    {
      schema: described("What the law asks for documents that stay unpaid, on a return", "Agree", {
        params: returnParams,
        querystring: Joi.object({
          ...paging,
          rule: Joi.string().max(40).allow("").default(""),
          sort: Joi.string().valid(...Object.keys(ORDERS)),
          descending: Joi.boolean().default(false),
        }),
      }),
    },
    async (request) => {
      const setup = await loadSetup(request.work, request.params.id);
      const r = registrationIn(setup, request.params.rid);
      return unpaidPage(request.work, setup, r, request.params.period, request.query);
    },
  );

  app.post<{ Params: { id: number; rid: string; period: string }; Body: UnpaidBody }>(
    "/clients/:id/registrations/:rid/unpaid/:period",
    {
      schema: described("Put what is asked for unpaid documents on a return", "Agree", {
        params: returnParams,
        body: unpaidBody,
      }),
    },
    async (request) => {
      const { id: client, rid, period } = request.params;
      return { posted: await takeUnpaid(request.work, client, rid, period, request.body) };
    },
  );

  app.put<{ Params: { id: number; entry: number }; Body: { reason: string } }>(
    "/clients/:id/entries/:entry/explanation",
    {
      schema: described("Explain an entry without a tax code", "Agree", {
        params: Joi.object({ id: id.required(), entry: id.required() }),
        body: reasonBody,
      }),
    },
    async (request, reply) => {
      await explainEntry(request.work, request.params.id, request.params.entry, request.body.reason);
      return reply.status(204).send();
    },
  );
}
