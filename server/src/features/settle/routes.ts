import type { FastifyInstance, FastifyRequest } from "fastify";
import Joi from "joi";
import { id } from "@fiscalon/contract/fields";
import { taxPaymentBody } from "@fiscalon/contract/returns";
import { instalmentBody } from "@fiscalon/contract/settlement";
import type { InstalmentBody } from "@fiscalon/contract/settlement";
import { described, returnParams } from "../../base/validation.ts";
import { loadSetup, registrationIn } from "../../books/loadSetup.ts";
import { settlementView } from "./queries.ts";
import { keepInstalment } from "../../books/settlement/instalments.ts";
import { settleReturn } from "../../books/settlement/settleReturn.ts";
import { recordTaxPayment, removeTaxPayment } from "../../books/settlement/taxPayments.ts";
import type { TaxPaymentInput } from "../../books/settlement/taxPayments.ts";

type Period = { Params: { id: number; rid: string; period: string } };
const BASE = "/clients/:id/registrations/:rid/settlements/:period";

export async function settleRoutes(app: FastifyInstance): Promise<void> {
  app.get<Period>(
    BASE,
    { schema: described("Closing entry, payments and continuity", "Settle", { params: returnParams }) },
    (request) => view(request),
  );

  app.post<Period>(
    BASE,
    { schema: described("Post the closing entry", "Settle", { params: returnParams }) },
    async (request) => {
      const { id: clientId, rid, period } = request.params;
      await settleReturn(request.work, clientId, rid, period);
      return view(request);
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
      await request.work.write(async (work) => {
        const setup = await loadSetup(work, clientId);
        await recordTaxPayment(work, setup, registrationIn(setup, rid), period, request.body);
      });
      return reply.status(201).send(await view(request));
    },
  );

  app.put<{ Params: Period["Params"] & { no: number }; Body: InstalmentBody }>(
    `${BASE}/instalments/:no`,
    {
      schema: described("Say what the authority asks for, or an estimate", "Settle", {
        params: returnParams.append({ no: Joi.number().integer().min(1).max(12).required() }),
        body: instalmentBody,
      }),
    },
    async (request) => {
      const { id: clientId, rid, period, no } = request.params;
      await request.work.write(async (work) => {
        const setup = await loadSetup(work, clientId);
        await keepInstalment(work, clientId, registrationIn(setup, rid), period, no, request.body);
      });
      return view(request);
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
      await removeTaxPayment(request.work, request.params.id, request.params.payment);
      return reply.status(204).send();
    },
  );

  async function view({ params, work }: Pick<FastifyRequest<Period>, "params" | "work">) {
    const setup = await loadSetup(work, params.id);
    return settlementView(work, setup, registrationIn(setup, params.rid), params.period);
  }
}
