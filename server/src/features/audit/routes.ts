import type { FastifyInstance } from "fastify";
import Joi from "joi";
import { at } from "@fiscalon/core/at";
import { id } from "@fiscalon/contract/fields";
import { AUDIT_ENTITIES } from "@fiscalon/contract/audit";
import type { AuditEntity, ChangeView } from "@fiscalon/contract/audit";
import { clientParams, described } from "../../base/validation.ts";
import { namesOf, referencesIn, subjectOf } from "./subjects.ts";
import type { AppContext } from "../../appContext.ts";
import { checkChain } from "../../base/checkChain.ts";
import { checkPractice } from "./checkPractice.ts";

interface Query {
  before?: number;
  entity?: AuditEntity;
  limit: number;
}

export async function auditRoutes(app: FastifyInstance, { practice, digests }: AppContext): Promise<void> {
  app.get<{ Params: { id: number }; Querystring: Query }>(
    "/clients/:id/changes",
    {
      schema: described("What was changed, by whom and when, newest first", "Audit", {
        params: clientParams,
        querystring: Joi.object({
          before: id,
          entity: Joi.string().valid(...AUDIT_ENTITIES),
          limit: Joi.number().integer().min(1).max(200).default(50),
        }),
      }),
    },
    async (request): Promise<ChangeView[]> => {
      const { before, entity, limit } = request.query;
      const rows = await request.work.rows<
        Omit<ChangeView, "before" | "after" | "subject" | "names"> & { before: string; after: string }
      >(
        `SELECT c.id, c.at, p.name AS "by", c.action, c.entity, c.entity_id AS entityId, c.before, c.after
         FROM changes c JOIN people p ON p.id = c.person_id
         WHERE c.id < $1 AND ($2 = '' OR c.entity = $2) ORDER BY c.id DESC LIMIT $3`,
        [before ?? Number.MAX_SAFE_INTEGER, entity ?? "", limit],
      );
      const changes = rows.map((row) => ({ ...row, before: parsed(row.before), after: parsed(row.after) }));
      const references = changes.map((row) => ({
        subject: subjectOf(row.entity, row.entityId),
        inside: referencesIn([row.before, row.after]),
      }));
      const known = await namesOf(
        request.work,
        request.params.id,
        references.flatMap(({ subject, inside }) => (subject ? [subject, ...inside] : inside)),
      );
      return changes.map((row, index) => {
        const { subject, inside } = at(references, index);
        const keysInside = inside
          .map(({ entity, id: number }) => `${entity}/${number}`)
          .filter((key) => key in known);
        return {
          ...row,
          subject: subject ? (known[`${subject.entity}/${subject.id}`] ?? null) : null,
          names: Object.fromEntries(keysInside.map((key) => [key, known[key] ?? key])),
        };
      });
    },
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

function parsed(json: string | null): unknown {
  return json === null ? null : JSON.parse(json);
}
