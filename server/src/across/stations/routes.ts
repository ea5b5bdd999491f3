import type { FastifyInstance } from "fastify";
import { described, returnParams } from "../../base/validation.ts";
import { loadSetup, registrationIn } from "../../books/loadSetup.ts";
import { stationCounts } from "./counts.ts";

export async function stationRoutes(app: FastifyInstance): Promise<void> {
  app.get<{ Params: { id: number; rid: string; period: string } }>(
    "/clients/:id/registrations/:rid/stations/:period",
    { schema: described("How far each station is: counts only", "Return", { params: returnParams }) },
    async ({ work, params }) => {
      const setup = await loadSetup(work, params.id);
      return stationCounts(work, setup, registrationIn(setup, params.rid), params.period);
    },
  );
}
