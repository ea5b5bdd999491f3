import type { FastifyInstance } from "fastify";
import type { ClockView } from "@fiscalon/contract/clock";
import { clientParams, described } from "../../base/validation.ts";
import { clockTrouble } from "./clockTrouble.ts";

export async function clockRoutes(app: FastifyInstance): Promise<void> {
  app.get<{ Params: { id: number } }>(
    "/clients/:id/clock",
    {
      schema: described("The day at the client's place, and what is wrong with the clock", "Set up", {
        params: clientParams,
      }),
    },
    async ({ work }): Promise<ClockView> => ({
      now: work.at,
      today: work.today,
      zone: work.zone,
      trouble: await clockTrouble(work),
    }),
  );
}
