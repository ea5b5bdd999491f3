import type { FastifyInstance } from "fastify";
import Joi from "joi";
import { date, id } from "@fiscalon/contract/fields";
import { clientParams, described } from "../../base/validation.ts";
import { accountEntries, trialBalance } from "../../books/ledger.ts";

const dates = { from: date.required(), to: date.required() };

export async function ledgerRoutes(app: FastifyInstance): Promise<void> {
  app.get<{ Params: { id: number }; Querystring: { from: string; to: string; levy: string } }>(
    "/clients/:id/trial-balance",
    {
      schema: described("Trial balance, also of one levy", "Books", {
        params: clientParams,
        querystring: Joi.object({ ...dates, levy: Joi.string().max(30).allow("").default("") }),
      }),
    },
    ({ params, query, work }) => trialBalance(work, params.id, query.from, query.to, query.levy),
  );

  app.get<{
    Params: { id: number; account: string };
    Querystring: { from: string; to: string; offset: number; limit: number };
  }>(
    "/clients/:id/ledger/:account",
    {
      schema: described("General ledger: one account, by pages", "Books", {
        params: Joi.object({ id: id.required(), account: Joi.string().max(20).required() }),
        querystring: Joi.object({
          ...dates,
          offset: Joi.number().integer().min(0).default(0),
          limit: Joi.number().integer().min(1).max(500).default(100),
        }),
      }),
    },
    (request) => {
      const { from, to, ...page } = request.query;
      return accountEntries(request.work, request.params.id, request.params.account, from, to, page);
    },
  );
}
