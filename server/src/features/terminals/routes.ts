import type { FastifyInstance } from "fastify";
import Joi from "joi";
import { id } from "@fiscalon/contract/fields";
import { mappingBody, terminalBody, terminalKeyBody } from "@fiscalon/contract/terminals";
import type { TerminalBody } from "@fiscalon/contract/terminals";
import type { TerminalMapping } from "@fiscalon/core/incoming/terminalDay";
import type { AppContext } from "../../appContext.ts";
import { clientParams, described } from "../../base/validation.ts";
import { terminalDays, terminalViews } from "./queries.ts";
import { authoriseAgain, changeMapping, connectTerminal, fetchTerminal, terminalOf } from "./service.ts";

type Id = { Params: { id: number } };
type One = { Params: { id: number; terminal: number } };
const params = Joi.object({ id: id.required(), terminal: id.required() });

export async function terminalRoutes(app: FastifyInstance, { operator }: AppContext): Promise<void> {
  app.get<Id>(
    "/clients/:id/terminals",
    { schema: described("Card terminals", "Bank", { params: clientParams }) },
    (request) => terminalViews(request.work, request.params.id),
  );

  app.post<Id & { Body: TerminalBody }>(
    "/clients/:id/terminals",
    { schema: described("Connect a card terminal", "Bank", { params: clientParams, body: terminalBody }) },
    async (request, reply) => {
      const clientId = request.params.id;
      const terminal = await connectTerminal(request.work, clientId, operator(), request.body);
      const views = await terminalViews(request.work, clientId);
      return reply.status(201).send(views.find((view) => view.id === terminal));
    },
  );

  app.put<One & { Body: { mapping: TerminalMapping } }>(
    "/clients/:id/terminals/:terminal/mapping",
    { schema: described("Change the mapping of a terminal", "Bank", { params, body: mappingBody }) },
    async (request) => {
      const { id: clientId, terminal } = request.params;
      await changeMapping(request.work, clientId, terminal, request.body.mapping);
      return (await terminalViews(request.work, clientId)).find((view) => view.id === terminal);
    },
  );

  app.put<One & { Body: { key: string } }>(
    "/clients/:id/terminals/:terminal/key",
    { schema: described("Give the operator's key again", "Bank", { params, body: terminalKeyBody }) },
    async (request) => {
      const { id: clientId, terminal } = request.params;
      await authoriseAgain(request.work, clientId, operator(), terminal, request.body.key);
      return (await terminalViews(request.work, clientId)).find((view) => view.id === terminal);
    },
  );

  app.post<One>(
    "/clients/:id/terminals/:terminal/fetch",
    { schema: described("Fetch what is new and post the days that are over", "Bank", { params }) },
    (request) => fetchTerminal(request.work, request.params.id, operator(), request.params.terminal),
  );

  app.get<One & { Querystring: { offset: number; limit: number } }>(
    "/clients/:id/terminals/:terminal/days",
    {
      schema: described("Trading days of a terminal", "Bank", {
        params,
        querystring: Joi.object({
          offset: Joi.number().integer().min(0).default(0),
          limit: Joi.number().integer().min(1).max(500).default(100),
        }),
      }),
    },
    async (request) => {
      await terminalOf(request.work, request.params.id, request.params.terminal);
      return terminalDays(request.work, request.params.terminal, request.query);
    },
  );
}
