import type { FastifyInstance } from "fastify";
import Joi from "joi";
import { clientParams, described } from "../../base/validation.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import { trailStep } from "./service.ts";

export async function trailRoutes(app: FastifyInstance): Promise<void> {
  app.get<{ Params: { id: number }; Querystring: { ref: string } }>(
    "/clients/:id/trail",
    {
      schema: described("One step of how a figure came about", "Trail", {
        params: clientParams,
        querystring: Joi.object({ ref: Joi.string().max(300).required() }),
      }),
    },
    async (request) =>
      trailStep(
        { work: request.work, setup: await loadSetup(request.work, request.params.id) },
        request.query.ref,
      ),
  );
}
