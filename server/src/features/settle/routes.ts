import type { FastifyInstance } from "fastify";
import Joi from "joi";
import { id } from "@fiscalon/contract/fields";
import { taxPaymentBody } from "@fiscalon/contract/returns";
import { actorNow } from "../../actor.ts";
import type { AppContext } from "../../context.ts";
import { described, returnParams } from "../../validation.ts";
import { loadSetup, registrationIn } from "../clients/loadSetup.ts";
import { settlementView } from "./queries.ts";
import { recordTaxPayment, removeTaxPayment, settleReturn } from "./service.ts";
import type { TaxPaymentInput } from "./service.ts";

type Period = { Params: { id: number; rid: string; period: string } };
const BASE = "/clients/:id/registrations/:rid/settlements/:period";

export async function settleRoutes(app: FastifyInstance, { db }: AppContext): Promise<void> {
  app.get<Period>(
    BASE,
    { schema: described("Closing entry, payments and continuity", "Settle", { params: returnParams }) },
    (request) => view(request.params),
  );

  app.post<Period>(
    BASE,
    { schema: described("Post the closing entry", "Settle", { params: returnParams }) },
    async (request) => {
      const { id: clientId, rid, period } = request.params;
      await settleReturn(db, actorNow(), clientId, rid, period);
      return view(request.params);
    },
  );

  app.post<Period & { Body: TaxPaymentInput }>(
    `${BASE}/payments`,
    {
      schema: described("Record a payment, refund or charge", "Settle", {
        params: returnParams,
        body: taxPaymentBody,
      }),
    },
    async (request, reply) => {
      const { id: clientId, rid, period } = request.params;
      await db.write(async (tx) => {
        const setup = await loadSetup(db, clientId, tx);
        await recordTaxPayment(db, tx, actorNow(), setup, registrationIn(setup, rid), period, request.body);
      });
      return reply.status(201).send(await view(request.params));
    },
  );

  app.delete<{ Params: { id: number; payment: number } }>(
    "/clients/:id/tax-payments/:payment",
    {
      schema: described("Take a recorded payment back", "Settle", {
        params: Joi.object({ id: id.required(), payment: id.required() }),
      }),
    },
    async (request, reply) => {
      await removeTaxPayment(db, actorNow(), request.params.id, request.params.payment);
      return reply.status(204).send();
    },
  );

  async function view(params: Period["Params"]) {
    const setup = await loadSetup(db, params.id);
    return settlementView(db, setup, registrationIn(setup, params.rid), params.period);
  }
}
