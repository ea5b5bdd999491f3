import type { FastifyInstance } from "fastify";
import Joi from "joi";
import { date, id } from "@fiscalon/contract/fields";
import { AUDIT_ENTITIES } from "@fiscalon/contract/audit";
import { clientParams, described } from "../../base/validation.ts";
import type { AppContext } from "../../appContext.ts";
import { checkChain } from "../../base/checkChain.ts";
import { changesOf } from "./changesOf.ts";
import type { ChangesAsked } from "./changesOf.ts";
import { checkPractice } from "./checkPractice.ts";

export async function auditRoutes(app: FastifyInstance, { practice, digests }: AppContext): Promise<void> {
  app.get<{ Params: { id: number }; Querystring: ChangesAsked }>(
    "/clients/:id/changes",
    {
      schema: described(
        "What was changed, by whom and when, newest first; of everything, or of all that made one return",
        "Audit",
        {
          params: clientParams,
          querystring: Joi.object({
            before: id,
            entity: Joi.string().valid(...AUDIT_ENTITIES),
            registration: id,
            period: date,
            limit: Joi.number().integer().min(1).max(200).default(50),
          })
            .and("registration", "period")
            .messages({
              "object.and": "A return is named by its registration and the end of its period: give both.",
            }),
        },
      ),
    },
    (request) => changesOf(request.work, request.params.id, request.query),
  );

  app.get<{ Params: { id: number } }>(
    "/clients/:id/audit",
    { schema: described("Whether the audit trail of a client is whole", "Audit", { params: clientParams }) },
    (request) => checkChain(request.work),
  );

  app.get("/audit", { schema: described("Whether all audit trails are whole", "Audit") }, () =>
    checkPractice(practice, digests),
  );
}
