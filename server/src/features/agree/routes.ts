import type { FastifyInstance } from "fastify";
import Joi from "joi";
import { id } from "@fiscalon/contract/fields";
import { reasonBody } from "@fiscalon/contract/returns";
import { described, returnParams } from "../../base/validation.ts";
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
