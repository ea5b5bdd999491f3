import type { FastifyInstance } from "fastify";
import Joi from "joi";
import { id } from "@fiscalon/contract/fields";
import { accountBody } from "@fiscalon/contract/setup";
import type { Account } from "@fiscalon/core/model/account";
import { clientParams, described } from "../../base/validation.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import { addAccount, changeAccount } from "./service.ts";

type Id = { Params: { id: number } };

export async function accountRoutes(app: FastifyInstance): Promise<void> {
  app.post<Id & { Body: Account }>(
    "/clients/:id/accounts",
    { schema: described("Add an account", "Set up", { params: clientParams, body: accountBody }) },
    async (request, reply) => {
      await request.work.write((work) => addAccount(work, request.params.id, request.body));
      return reply.status(201).send((await loadSetup(request.work, request.params.id)).plain.accounts);
    },
  );

  app.put<{ Params: { id: number; code: string }; Body: Account }>(
    "/clients/:id/accounts/:code",
    {
      schema: described("Change an account: its name, role and usual code", "Set up", {
        params: Joi.object({ id: id.required(), code: Joi.string().max(20).required() }),
        body: accountBody,
      }),
    },
    async (request) => {
      const { id: clientId, code } = request.params;
      await request.work.write((work) => changeAccount(work, clientId, code, request.body));
      return (await loadSetup(request.work, clientId)).plain.accounts;
    },
  );
}
