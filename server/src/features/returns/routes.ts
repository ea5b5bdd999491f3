import type { FastifyInstance } from "fastify";
import Joi from "joi";
import { id } from "@fiscalon/contract/fields";
import { acceptBody, adjustmentBody, fileBody, returnsQuery, stateBody } from "@fiscalon/contract/returns";
import { actorNow } from "../../actor.ts";
import type { AppContext } from "../../context.ts";
import { described, returnParams } from "../../validation.ts";
import { loadSetup, registrationIn } from "../clients/loadSetup.ts";
import { acceptFinding, unacceptFinding } from "../findings/accept.ts";
import { addAdjustment, removeAdjustment } from "./adjust.ts";
import type { AdjustmentInput } from "./adjust.ts";
import { fileReturn } from "./fileReturn.ts";
import { periodTiles } from "./periods.ts";
import { returnPdf } from "./returnPdf.ts";
import { boxesBetween, returnView } from "./returnView.ts";
import { reopenReturn, sealReturn, setReviewState } from "./sealReturn.ts";

type Registration = { Params: { id: number; rid: string } };
type Return = { Params: { id: number; rid: string; period: string } };
const registrationParams = Joi.object({ id: id.required(), rid: Joi.string().max(60).required() });
const BASE = "/clients/:id/registrations/:rid";

export async function returnRoutes(app: FastifyInstance, { db, gateway }: AppContext): Promise<void> {
  app.get<Registration>(
    `${BASE}/periods`,
    { schema: described("Filing periods with their state", "Return", { params: registrationParams }) },
    async (request) =>
      periodTiles(db, registrationIn(await loadSetup(db, request.params.id), request.params.rid)),
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
      const setup = await loadSetup(db, request.params.id);
      const r = registrationIn(setup, request.params.rid);
      return boxesBetween(db, setup, r, request.query.from, request.query.to);
    },
  );

  app.get<Return>(
    `${BASE}/returns/:period`,
    { schema: described("A period's return", "Return", { params: returnParams }) },
    (request) => view(request.params),
  );

  app.get<Return>(
    `${BASE}/returns/:period/pdf`,
    { schema: described("A period's return as PDF", "Return", { params: returnParams }) },
    async (request, reply) => {
      const setup = await loadSetup(db, request.params.id);
      const r = registrationIn(setup, request.params.rid);
      const pdf = await returnPdf(await returnView(db, setup, r, request.params.period), setup, r);
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
      await setReviewState(db, actorNow(), clientId, rid, period, request.body.state);
      return view(request.params);
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
      await db.write(async (tx) => {
        const setup = await loadSetup(db, clientId, tx);
        await addAdjustment(db, tx, actorNow(), setup, registrationIn(setup, rid), period, request.body);
      });
      return reply.status(201).send(await view(request.params));
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
      await db.write((tx) => removeAdjustment(db, tx, actorNow(), clientId, adjustment));
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
      await acceptFinding(db, actorNow(), clientId, rid, period, request.body.key, request.body.reason);
      return view(request.params);
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
      await unacceptFinding(db, actorNow(), clientId, rid, period, request.query.key);
      return view(request.params);
    },
  );

  app.post<Return>(
    `${BASE}/returns/:period/seal`,
    { schema: described("Seal a period", "Return", { params: returnParams }) },
    async (request) => {
      const { id: clientId, rid, period } = request.params;
      await sealReturn(db, actorNow(), clientId, rid, period);
      return view(request.params);
    },
  );

  app.post<Return>(
    `${BASE}/returns/:period/reopen`,
    { schema: described("Open a sealed period that is not filed", "Return", { params: returnParams }) },
    async (request) => {
      const { id: clientId, rid, period } = request.params;
      await reopenReturn(db, actorNow(), clientId, rid, period);
      return view(request.params);
    },
  );

  app.post<Return & { Body: { declared: true; reference: string } }>(
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
      await fileReturn(db, gateway(), actorNow(), clientId, rid, period, request.body.reference);
      return view(request.params);
    },
  );

  async function view(params: Return["Params"]) {
    const setup = await loadSetup(db, params.id);
    return returnView(db, setup, registrationIn(setup, params.rid), params.period);
  }
}
