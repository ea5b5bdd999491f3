import type { FastifyInstance } from "fastify";
import Joi from "joi";
import type { AppContext } from "../../context.ts";
import { clientParams, described } from "../../validation.ts";
import { loadSetup } from "../clients/loadSetup.ts";
import { trailStep } from "./service.ts";

export async function trailRoutes(app: FastifyInstance, { db }: AppContext): Promise<void> {
  app.get<{ Params: { id: number }; Querystring: { ref: string } }>(
    "/clients/:id/trail",
    {
      schema: described("One step of how a figure came about", "Trail", {
        params: clientParams,
        querystring: Joi.object({ ref: Joi.string().max(300).required() }),
      }),
    },
    async (request) => trailStep({ db, setup: await loadSetup(db, request.params.id) }, request.query.ref),
  );
}
