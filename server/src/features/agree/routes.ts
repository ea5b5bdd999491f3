import type { FastifyInstance } from "fastify";
import Joi from "joi";
import { id } from "@fiscalon/contract/fields";
import { reasonBody } from "@fiscalon/contract/returns";
import { releaseBody } from "@fiscalon/contract/credit";
import type { ReleaseBody } from "@fiscalon/contract/credit";
import { clientParams, described, returnParams } from "../../base/validation.ts";
import { orderFields, paging } from "../../db/listOrder.ts";
import { releaseCredit, takeBackRelease } from "../../books/credit/releaseCredit.ts";
import { HELD_ORDER, heldCredit } from "./heldCredit.ts";
import type { HeldFilter } from "./heldCredit.ts";
import { loadSetup, registrationIn } from "../../books/loadSetup.ts";
import { controlAgreement, explainEntry } from "./controlAgreement.ts";

export async function agreeRoutes(app: FastifyInstance): Promise<void> {
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
