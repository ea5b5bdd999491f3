import type { FastifyInstance } from "fastify";
import Joi from "joi";
import { id } from "@fiscalon/contract/fields";
import { contactBody } from "@fiscalon/contract/setup";
import type { ContactBody } from "@fiscalon/contract/setup";
import { clientParams, described } from "../../base/validation.ts";
import { contactView, contactViews } from "../../books/views.ts";
import { addContact, changeContact } from "./service.ts";

type Id = { Params: { id: number } };
type ContactId = { Params: { id: number; contact: number } };
const contactParams = Joi.object({ id: id.required(), contact: id.required() });

export async function contactRoutes(app: FastifyInstance): Promise<void> {
  app.get<Id & { Querystring: { search?: string; limit?: number } }>(
    "/clients/:id/contacts",
    {
      schema: described("Contacts by name", "Set up", {
        params: clientParams,
        querystring: Joi.object({
          search: Joi.string().allow("").max(100),
          limit: Joi.number().integer().min(1).max(500),
        }),
      }),
    },
    (request) =>
      contactViews(request.work, request.params.id, request.query.search ?? "", request.query.limit ?? 200),
  );

  app.post<Id & { Body: ContactBody }>(
    "/clients/:id/contacts",
    { schema: described("Add a contact", "Set up", { params: clientParams, body: contactBody }) },
    async (request, reply) => {
      const contactId = await addContact(request.work, request.params.id, request.body);
      return reply.status(201).send(await contactView(request.work, contactId));
    },
  );

  app.put<ContactId & { Body: ContactBody }>(
    "/clients/:id/contacts/:contact",
    { schema: described("Change a contact", "Set up", { params: contactParams, body: contactBody }) },
    async (request) => {
      const { id: clientId, contact } = request.params;
      await changeContact(request.work, clientId, contact, request.body);
      return contactView(request.work, contact);
    },
  );
}
