import type { FastifyInstance } from "fastify";
import Joi from "joi";
import { id } from "@fiscalon/contract/fields";
import { NUMBERED_KINDS, seriesBody } from "@fiscalon/contract/series";
import type { NumberedKind } from "@fiscalon/contract/series";
import { clientParams, described } from "../../base/validation.ts";
import { changeSeries, seriesViews } from "../../books/series.ts";

type One = { Params: { id: number; kind: NumberedKind }; Body: { prefix: string; digits: number } };

export async function seriesRoutes(app: FastifyInstance): Promise<void> {
  app.get<{ Params: { id: number } }>(
    "/clients/:id/series",
    {
      schema: described("Series of numbers, with what is missing in them", "Set up", {
        params: clientParams,
      }),
    },
    (request) => seriesViews(request.work, request.params.id),
  );

  app.put<One>(
    "/clients/:id/series/:kind",
    {
      schema: described("Change a series of numbers", "Set up", {
        params: Joi.object({
          id: id.required(),
          kind: Joi.string()
            .valid(...Object.keys(NUMBERED_KINDS))
            .required(),
        }),
        body: seriesBody,
      }),
    },
    async (request) => {
      await changeSeries(request.work, request.params.id, request.params.kind, request.body);
      return seriesViews(request.work, request.params.id);
    },
  );
}
