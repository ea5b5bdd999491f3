import type { FastifyInstance } from "fastify";
import Joi from "joi";
import type { CopiesView } from "@fiscalon/contract/copies";
import type { AppContext } from "../../appContext.ts";
import { described } from "../../base/validation.ts";

export async function copyRoutes(app: FastifyInstance, { copies }: AppContext): Promise<void> {
  app.get("/copies", { schema: described("Copies of the practice", "Copies") }, (): Promise<CopiesView> =>
    copies.view(),
  );

  app.post(
    "/copies",
    { schema: described("Make a copy of the practice, while it is worked on", "Copies") },
    async (_request, reply): Promise<CopiesView> => {
      copies.make();
      void reply.status(202);
      return copies.view();
    },
  );

  app.post<{ Params: { copy: string } }>(
    "/copies/:copy/restore",
    {
      schema: described("Restore a copy into a new place, with proof of the same figures", "Copies", {
        params: Joi.object({ copy: Joi.string().max(80).required() }),
      }),
    },
    async ({ params }, reply): Promise<CopiesView> => {
      copies.restore(params.copy);
      void reply.status(202);
      return copies.view();
    },
  );

  app.delete(
    "/copies/running",
    { schema: described("Break off what is done with a copy", "Copies") },
    async (): Promise<CopiesView> => {
      copies.cancel();
      return copies.view();
    },
  );
}
