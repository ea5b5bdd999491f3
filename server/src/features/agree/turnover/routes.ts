import type { FastifyInstance } from "fastify";
import Joi from "joi";
import type { BridgeOf } from "@fiscalon/core/agree/turnoverBridge";
import { agreeBody, bridgeByField, bridgeOf, nameCauseBody } from "@fiscalon/contract/bridge";
import type { AgreeBody, BridgeBy, NameCauseBody } from "@fiscalon/contract/bridge";
import { date } from "@fiscalon/contract/fields";
import { clientParams, described } from "../../../base/validation.ts";
import { loadSetup, registrationIn } from "../../../books/loadSetup.ts";
import { paging } from "../../../db/listOrder.ts";
import { formatQuery, sendTable } from "../../../exports/sendTable.ts";
import type { TableFormat } from "../../../exports/sendTable.ts";
import type { Span } from "../../../books/agree/turnover/apartRows.ts";
import { agreeSpan, nameCause } from "./agreeSpan.ts";
import { bridgeBy, bridgeByLines } from "./bridgeBy.ts";
import { bridgeOver } from "../../../books/agree/turnover/bridge.ts";
import { bridgePage, bridgeView } from "./bridgeView.ts";
import { bridgeTable } from "./bridgeTable.ts";

const BASE = "/clients/:id/registrations/:rid/bridge";
const params = clientParams.append({ rid: Joi.string().max(60).required() });
const span = { of: bridgeOf, from: date.required(), to: date.required() };
type Ask = Span & { of: BridgeOf };
interface Params {
  id: number;
  rid: string;
}

/** The turnover bridge of a registration. */
export async function bridgeRoutes(app: FastifyInstance): Promise<void> {
  app.get<{ Params: Params; Querystring: Ask }>(
    BASE,
    {
      schema: described("From income to the turnover boxes of whole periods, by cause", "Agree", {
        params,
        querystring: Joi.object(span),
      }),
    },
    async ({ work, params, query }) => {
      const setup = await loadSetup(work, params.id);
      const r = registrationIn(setup, params.rid);
      return bridgeView(work, setup, r, await bridgeOver(work, r, query, query.of));
    },
  );

  app.get<{ Params: Params; Querystring: Ask & { cause: string; offset: number; limit: number } }>(
    `${BASE}/rows`,
    {
      schema: described("The rows of a cause of the bridge, by pages", "Agree", {
        params,
        querystring: Joi.object({ ...span, ...paging, cause: Joi.string().max(260).allow("").default("") }),
      }),
    },
    async ({ work, params, query }) => {
      const setup = await loadSetup(work, params.id);
      const { of, from, to, cause, offset, limit } = query;
      const r = registrationIn(setup, params.rid);
      return bridgePage(work, r, await bridgeOver(work, r, { from, to }, of), { cause, offset, limit });
    },
  );

  app.get<{ Params: Params; Querystring: Ask & { format: TableFormat } }>(
    `${BASE}/file`,
    {
      schema: described("The bridge with its rows as a file", "Agree", {
        params,
        querystring: formatQuery.append(span),
      }),
    },
    async ({ work, params, query: { format, of, from, to } }, reply) => {
      const setup = await loadSetup(work, params.id);
      const table = await bridgeTable(work, setup, registrationIn(setup, params.rid), { from, to }, of);
      return sendTable(reply, `${of}-bridge-${to}`, format, table);
    },
  );

  app.get<{ Params: Params; Querystring: Ask & { by: BridgeBy } }>(
    `${BASE}/by`,
    {
      schema: described("A side by month, account, party, treatment or rate: books and returns", "Agree", {
        params,
        querystring: Joi.object({ ...span, by: bridgeByField }),
      }),
    },
    async ({ work, params, query: { of, by, ...days } }) => {
      const r = registrationIn(await loadSetup(work, params.id), params.rid);
      return bridgeBy(work, r, days, of, by);
    },
  );

  app.get<{
    Params: Params;
    Querystring: Ask & { by: BridgeBy; key: string; offset: number; limit: number };
  }>(
    `${BASE}/by/lines`,
    {
      schema: described("The lines of one of them, by pages", "Agree", {
        params,
        querystring: Joi.object({
          ...span,
          ...paging,
          by: bridgeByField,
          key: Joi.string().max(300).allow("").required(),
        }),
      }),
    },
    async ({ work, params, query: { of, from, to, ...ask } }) => {
      const r = registrationIn(await loadSetup(work, params.id), params.rid);
      return bridgeByLines(work, r, { from, to }, of, ask);
    },
  );

  app.post<{ Params: Params; Body: NameCauseBody }>(
    `${BASE}/causes`,
    {
      schema: described("Name the cause of rows of the bridge, or take it back", "Agree", {
        params,
        body: nameCauseBody,
      }),
    },
    async ({ work, params, body }, reply) => {
      await work.write(async (work) => {
        const setup = await loadSetup(work, params.id);
        await nameCause(work, registrationIn(setup, params.rid), body);
      });
      return reply.status(204).send();
    },
  );

  app.post<{ Params: Params; Body: AgreeBody }>(
    `${BASE}/agreement`,
    {
      schema: described("Keep that the bridge of a span is agreed as it stands", "Agree", {
        params,
        body: agreeBody,
      }),
    },
    async ({ work, params, body }, reply) => {
      await work.write(async (work) => {
        const setup = await loadSetup(work, params.id);
        const r = registrationIn(setup, params.rid);
        const { of, from, to } = body;
        const { agreement } = await bridgeOver(work, r, { from, to }, of);
        await agreeSpan(work, r, body, agreement);
      });
      return reply.status(204).send();
    },
  );
}
