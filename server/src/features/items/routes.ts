import type { FastifyInstance } from "fastify";
import Joi from "joi";
import { id } from "@fiscalon/contract/fields";
import { itemBody } from "@fiscalon/contract/setup";
import type { ItemBody } from "@fiscalon/contract/setup";
import { clientParams, described } from "../../base/validation.ts";
import { addItem, changeItem, itemViews } from "./service.ts";

type Id = { Params: { id: number } };
type ItemId = { Params: { id: number; item: number } };
const itemParams = Joi.object({ id: id.required(), item: id.required() });

export async function itemRoutes(app: FastifyInstance): Promise<void> {
  app.get<Id>(
    "/clients/:id/items",
    { schema: described("Items", "Set up", { params: clientParams }) },
    (request) => itemViews(request.work, request.params.id),
  );

  app.post<Id & { Body: ItemBody }>(
    "/clients/:id/items",
    { schema: described("Add an item", "Set up", { params: clientParams, body: itemBody }) },
    async (request, reply) =>
      reply.status(201).send(await addItem(request.work, request.params.id, request.body)),
  );

  app.put<ItemId & { Body: ItemBody }>(
    "/clients/:id/items/:item",
    { schema: described("Change an item", "Set up", { params: itemParams, body: itemBody }) },
    (request) => changeItem(request.work, request.params.id, request.params.item, request.body),
  );
}
