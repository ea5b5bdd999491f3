import type { FastifyInstance } from "fastify";
import Joi from "joi";
import { authorityBalanceBody } from "@fiscalon/contract/authorityBalance";
import type { AuthorityBalanceBody } from "@fiscalon/contract/authorityBalance";
import { date } from "@fiscalon/contract/fields";
import { clientParams, described } from "../../../base/validation.ts";
import { loadSetup } from "../../../books/loadSetup.ts";
import { paging } from "../../../db/listOrder.ts";
import { typeBalance } from "./typeBalance.ts";
import { balanceRows, balanceViews } from "../../../books/agree/balances/balances.ts";

const BASE = "/clients/:id/balances";

/** Balances of a client against what they stand for. */
export async function balanceRoutes(app: FastifyInstance): Promise<void> {
  app.get<{ Params: { id: number }; Querystring: { on: string } }>(
    BASE,
    {
      schema: described(
        "Debtors, creditors, banks, credit and stock on a day, against what they stand for",
        "Agree",
        {
          params: clientParams,
          querystring: Joi.object({ on: date.required() }),
        },
      ),
    },
    async ({ work, params, query }) => {
      return balanceViews(work, await loadSetup(work, params.id), query.on);
    },
  );

  app.get<{
    Params: { id: number };
    Querystring: { on: string; of: string; cause: string; offset: number; limit: number };
  }>(
    `${BASE}/rows`,
    {
      schema: described("The rows of a cause of such a balance, by pages", "Agree", {
        params: clientParams,
        querystring: Joi.object({
          ...paging,
          on: date.required(),
          of: Joi.string().max(40).required(),
          cause: Joi.string().max(20).required(),
        }),
      }),
    },
    async ({ work, params, query: { on, ...query } }) => {
      return balanceRows(work, await loadSetup(work, params.id), on, query);
    },
  );

  app.put<{ Params: { id: number; rid: string }; Body: AuthorityBalanceBody }>(
    "/clients/:id/registrations/:rid/authority-balance",
    {
      schema: described("Keep what the authority says is owed on a day, or take it back", "Agree", {
        params: clientParams.append({ rid: Joi.string().max(60).required() }),
        body: authorityBalanceBody,
      }),
    },
    async ({ work, params, body }, reply) => {
      await work.write((work) => typeBalance(work, params.id, params.rid, body));
      return reply.status(204).send();
    },
  );
}
