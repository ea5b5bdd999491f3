import type { FastifyInstance, FastifyRequest } from "fastify";
import Joi from "joi";
import { id } from "@fiscalon/contract/fields";
import {
  acceptBody,
  adjustmentBody,
  fileBody,
  lateBody,
  returnsQuery,
  sealBody,
  stateBody,
} from "@fiscalon/contract/returns";
import type { LateBody, SeenBox } from "@fiscalon/contract/returns";
import type { AppContext } from "../../appContext.ts";
import { csvAnswer } from "../../base/csvAnswer.ts";
import { sendTable, TABLE_TYPES } from "../../exports/sendTable.ts";
import type { TableFormat } from "../../exports/sendTable.ts";
import { described, registrationParams, returnParams } from "../../base/validation.ts";
import { loadSetup, registrationIn } from "../../books/loadSetup.ts";
import { acceptFinding, unacceptFinding } from "../../books/findings/accept.ts";
import { addAdjustment, removeAdjustment } from "../../books/returns/adjust.ts";
import type { AdjustmentInput } from "../../books/returns/adjust.ts";
import { fileReturn } from "./fileReturn.ts";
import { periodTiles } from "../../books/returns/periods.ts";
import { answerLate } from "../../books/returns/late.ts";
import { schemesBody } from "@fiscalon/contract/schemeEffect";
import type { SchemesBody } from "@fiscalon/contract/schemeEffect";
import { schemeEffect } from "./schemeEffect.ts";
import { methodsBody } from "@fiscalon/contract/compareMethods";
import type { MethodsBody } from "@fiscalon/contract/compareMethods";
import { compareMethods } from "./compareMethods.ts";
import { schemeTable, schemeViews } from "./schemeView.ts";
import { registerFile, registersOf } from "./registers.ts";
import { returnPdf } from "./returnPdf.ts";
import { boxesBetween, returnView } from "./returnView.ts";
import { reopenReturn, sealReturn, setReviewState } from "../../books/returns/sealReturn.ts";

type Registration = { Params: { id: number; rid: string } };
type Return = { Params: { id: number; rid: string; period: string } };
const BASE = "/clients/:id/registrations/:rid";

export async function returnRoutes(app: FastifyInstance, { gateway }: AppContext): Promise<void> {
  app.get<Registration>(
    `${BASE}/periods`,
    { schema: described("Filing periods with their state", "Return", { params: registrationParams }) },
    async (request) =>
      periodTiles(
        request.work,
        registrationIn(await loadSetup(request.work, request.params.id), request.params.rid),
      ),
  );

  app.get<Registration & { Querystring: { from: string; to: string } }>(
    `${BASE}/returns`,
    {
      schema: described("The boxes of any stretch of time", "Return", {
        params: registrationParams,
        querystring: returnsQuery,
      }),
    },
    async (request) => {
      const setup = await loadSetup(request.work, request.params.id);
      const r = registrationIn(setup, request.params.rid);
      return boxesBetween(request.work, setup, r, request.query.from, request.query.to);
    },
  );

  app.post<Registration & { Body: SchemesBody }>(
    `${BASE}/schemes/effect`,
    {
      schema: described("What other schemes would change in open periods; writes nothing", "Set up", {
        params: registrationParams,
        body: schemesBody,
      }),
    },
    async ({ work, params, body }) =>
      schemeEffect(work, registrationIn(await loadSetup(work, params.id), params.rid), body),
  );

  app.get<Return & { Querystring: { findings: boolean } }>(
    `${BASE}/returns/:period`,
    {
      schema: described(
        "A period's return; without its findings, which take longest, where asked so",
        "Return",
        {
          params: returnParams,
          querystring: Joi.object({ findings: Joi.boolean().default(true) }),
        },
      ),
    },
    (request) => view(request, request.query.findings),
  );

  app.post<Registration & { Body: MethodsBody }>(
    `${BASE}/methods`,
    {
      schema: described("What each method open to a registration would have come to", "Return", {
        params: registrationParams,
        body: methodsBody,
      }),
    },
    async (request) => {
      const setup = await loadSetup(request.work, request.params.id);
      const r = registrationIn(setup, request.params.rid);
      return compareMethods(request.work, setup, r, request.body.answers);
    },
  );

  app.get<Return>(
    `${BASE}/returns/:period/schemes`,
    { schema: described("The workpapers of the schemes on a return", "Return", { params: returnParams }) },
    async (request) => {
      const setup = await loadSetup(request.work, request.params.id);
      const r = registrationIn(setup, request.params.rid);
      return schemeViews(request.work, setup, r, request.params.period);
    },
  );

  app.get<{ Params: Return["Params"] & { scheme: string }; Querystring: { format: TableFormat } }>(
    `${BASE}/returns/:period/schemes/:scheme`,
    {
      schema: described("One of these workpapers as CSV, workbook or PDF", "Return", {
        params: returnParams.append({ scheme: Joi.string().max(40).required() }),
        querystring: Joi.object({
          format: Joi.string()
            .valid(...Object.keys(TABLE_TYPES))
            .default("csv"),
        }),
      }),
    },
    async (request, reply) => {
      const { id: clientId, rid, period, scheme } = request.params;
      const setup = await loadSetup(request.work, clientId);
      const table = await schemeTable(request.work, setup, registrationIn(setup, rid), period, scheme);
      return sendTable(reply, `${scheme}-${period}`, request.query.format, table);
    },
  );

  app.get<Return>(
    `${BASE}/returns/:period/registers`,
    { schema: described("The lists that go with a period's return", "Return", { params: returnParams }) },
    async (request) => {
      const setup = await loadSetup(request.work, request.params.id);
      const r = registrationIn(setup, request.params.rid);
      return registersOf(request.work, setup, r, request.params.period);
    },
  );

  app.get<{ Params: Return["Params"] & { register: string } }>(
    `${BASE}/returns/:period/registers/:register`,
    {
      schema: described("One of these lists as CSV, or as the file the portal takes", "Return", {
        params: returnParams.append({ register: Joi.string().max(20).required() }),
      }),
    },
    async (request, reply) => {
      const { id: clientId, rid, period, register } = request.params;
      const setup = await loadSetup(request.work, clientId);
      const r = registrationIn(setup, rid);
      const { format, text } = await registerFile(request.work, setup, r, period, register);
      if (format === "csv") return csvAnswer(reply, `table-${register}-${period}`, text);
      return reply
        .type("application/json")
        .header("content-disposition", `attachment; filename="${register}-${period}.json"`)
        .send(text);
    },
  );

  app.get<Return>(
    `${BASE}/returns/:period/pdf`,
    { schema: described("A period's return as PDF", "Return", { params: returnParams }) },
    async (request, reply) => {
      const setup = await loadSetup(request.work, request.params.id);
      const r = registrationIn(setup, request.params.rid);
      const pdf = await returnPdf(
        request.work,
        await returnView(request.work, setup, r, request.params.period, {
          findings: true,
          simulated: gateway().simulated,
        }),
        setup,
        r,
      );
      return reply
        .type("application/pdf")
        .header("content-disposition", `inline; filename="return-${request.params.period}.pdf"`)
        .send(pdf);
    },
  );

  app.post<Return & { Body: { state: "open" | "in-review" } }>(
    `${BASE}/returns/:period/state`,
    {
      schema: described("Hand over for review, or take back", "Return", {
        params: returnParams,
        body: stateBody,
      }),
    },
    async (request) => {
      const { id: clientId, rid, period } = request.params;
      await setReviewState(request.work, clientId, rid, period, request.body.state);
      return view(request);
    },
  );

  app.post<Return & { Body: AdjustmentInput }>(
    `${BASE}/returns/:period/adjustments`,
    {
      schema: described("Adjust a box, with a reason", "Return", {
        params: returnParams,
        body: adjustmentBody,
      }),
    },
    async (request, reply) => {
      const { id: clientId, rid, period } = request.params;
      await request.work.write(async (work) => {
        const setup = await loadSetup(work, clientId);
        await addAdjustment(work, setup, registrationIn(setup, rid), period, request.body);
      });
      return reply.status(201).send(await view(request));
    },
  );

  app.delete<{ Params: { id: number; adjustment: number } }>(
    "/clients/:id/adjustments/:adjustment",
    {
      schema: described("Take an adjustment back", "Return", {
        params: Joi.object({ id: id.required(), adjustment: id.required() }),
      }),
    },
    async (request, reply) => {
      const { id: clientId, adjustment } = request.params;
      await request.work.write((work) => removeAdjustment(work, clientId, adjustment));
      return reply.status(204).send();
    },
  );

  app.post<Return & { Body: { key: string; reason: string } }>(
    `${BASE}/returns/:period/acceptances`,
    {
      schema: described("Accept a finding, with a reason", "Return", {
        params: returnParams,
        body: acceptBody,
      }),
    },
    async (request) => {
      const { id: clientId, rid, period } = request.params;
      await acceptFinding(request.work, clientId, rid, period, request.body.key, request.body.reason);
      return view(request);
    },
  );

  app.delete<Return & { Querystring: { key: string } }>(
    `${BASE}/returns/:period/acceptances`,
    {
      schema: described("Take an acceptance back", "Return", {
        params: returnParams,
        querystring: Joi.object({ key: Joi.string().max(200).required() }),
      }),
    },
    async (request) => {
      const { id: clientId, rid, period } = request.params;
      await unacceptFinding(request.work, clientId, rid, period, request.query.key);
      return view(request);
    },
  );

  app.put<Return & { Params: { document: number }; Body: LateBody }>(
    `${BASE}/returns/:period/late/:document`,
    {
      schema: described(
        "Say what a late document is, and whether it is put right apart from the return",
        "Return",
        {
          params: returnParams.keys({ document: id.required() }),
          body: lateBody,
        },
      ),
    },
    async (request) => {
      const { id: clientId, rid, period, document } = request.params;
      await answerLate(request.work, clientId, rid, period, document, request.body);
      return view(request);
    },
  );

  app.post<Return & { Body: { boxes?: SeenBox[] } | null }>(
    `${BASE}/returns/:period/seal`,
    { schema: described("Seal a period", "Return", { params: returnParams, body: sealBody }) },
    async (request) => {
      const { id: clientId, rid, period } = request.params;
      await sealReturn(request.work, clientId, rid, period, request.body?.boxes);
      return view(request);
    },
  );

  app.post<Return>(
    `${BASE}/returns/:period/reopen`,
    { schema: described("Open a sealed period that is not filed", "Return", { params: returnParams }) },
    async (request) => {
      const { id: clientId, rid, period } = request.params;
      await reopenReturn(request.work, clientId, rid, period);
      return view(request);
    },
  );

  app.post<Return & { Body: { declared: true; reference: string; boxes?: SeenBox[] } }>(
    `${BASE}/returns/:period/file`,
    {
      schema: described(
        "File a sealed return: send it, or note the reference it was keyed in under",
        "Return",
        {
          params: returnParams,
          body: fileBody,
        },
      ),
    },
    async (request) => {
      const { id: clientId, rid, period } = request.params;
      await fileReturn(request.work, gateway(), clientId, rid, period, request.body);
      return view(request);
    },
  );

  async function view({ params, work }: Pick<FastifyRequest<Return>, "params" | "work">, findings = true) {
    const setup = await loadSetup(work, params.id);
    const how = { findings, simulated: gateway().simulated };
    return returnView(work, setup, registrationIn(setup, params.rid), params.period, how);
  }
}
