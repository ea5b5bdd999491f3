import type { FastifyInstance } from "fastify";
import Joi from "joi";
import { id, ref } from "@fiscalon/contract/fields";
import { itemBody } from "@fiscalon/contract/setup";
import type { ItemBody } from "@fiscalon/contract/setup";
import { clientParams, described } from "../../base/validation.ts";
import { orderFields, paging } from "../../db/listOrder.ts";
import { addItem, changeItem, ITEM_ORDER, itemPage, itemsNamed } from "./service.ts";
import type { ItemFilter } from "./service.ts";

type Id = { Params: { id: number } };
type ItemId = { Params: { id: number; item: number } };
const itemParams = Joi.object({ id: id.required(), item: id.required() });

export async function itemRoutes(app: FastifyInstance): Promise<void> {
  app.get<Id & { Querystring: ItemFilter }>(
    "/clients/:id/items",
    {
      schema: described("A page of items", "Set up", {
        params: clientParams,
        querystring: Joi.object({ ...paging, ...orderFields(ITEM_ORDER) }),
      }),
    },
    (request) => itemPage(request.work, request.params.id, request.query),
  );

  app.post<Id & { Body: { refs: string[] } }>(
    "/clients/:id/items/named",
    {
      schema: described("The items that the lines of a document name", "Set up", {
        params: clientParams,
        body: Joi.object({ refs: Joi.array().items(ref).max(2000).required() }),
      }),
    },
    ({ work, params, body }) => itemsNamed(work, params.id, body.refs),
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
