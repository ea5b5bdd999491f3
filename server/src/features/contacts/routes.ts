import type { FastifyInstance } from "fastify";
import Joi from "joi";
import { id } from "@fiscalon/contract/fields";
import { contactBody } from "@fiscalon/contract/setup";
import type { ContactBody } from "@fiscalon/contract/setup";
import { notFound } from "../../base/errors.ts";
import { clientParams, described } from "../../base/validation.ts";
import {
  CONTACT_ORDER,
  contactMeant,
  contactPage,
  contactRegions,
  contactView,
} from "../../books/contactViews.ts";
import type { ContactFilter } from "../../books/contactViews.ts";
import { orderFields, paging } from "../../db/listOrder.ts";
import { addContact, changeContact } from "./service.ts";

type Id = { Params: { id: number } };
type ContactId = { Params: { id: number; contact: number } };
const contactParams = Joi.object({ id: id.required(), contact: id.required() });

export async function contactRoutes(app: FastifyInstance): Promise<void> {
  app.get<Id & { Querystring: ContactFilter }>(
    "/clients/:id/contacts",
    {
      schema: described("A page of contacts", "Set up", {
        params: clientParams,
        querystring: Joi.object({ ...paging, ...orderFields(CONTACT_ORDER) }),
      }),
    },
    (request) => contactPage(request.work, request.params.id, request.query),
  );

  app.get<Id>(
    "/clients/:id/contacts/regions",
    { schema: described("Where contacts are", "Set up", { params: clientParams }) },
    (request) => contactRegions(request.work, request.params.id),
  );

  app.get<Id & { Querystring: { name: string; number: string } }>(
    "/clients/:id/contacts/meant",
    {
      schema: described("The contact somebody else's list means", "Set up", {
        params: clientParams,
        querystring: Joi.object({
          name: Joi.string().allow("").max(200).default(""),
          number: Joi.string().allow("").max(60).default(""),
        }),
      }),
    },
    async ({ work, params, query }) => ({ contact: await contactMeant(work, params.id, query) }),
  );

  app.post<Id & { Body: ContactBody }>(
    "/clients/:id/contacts",
    { schema: described("Add a contact", "Set up", { params: clientParams, body: contactBody }) },
    async (request, reply) => {
      const contactId = await addContact(request.work, request.params.id, request.body);
      return reply.status(201).send(await contactView(request.work, contactId));
    },
  );

  app.get<ContactId>(
    "/clients/:id/contacts/:contact",
    { schema: described("A contact", "Set up", { params: contactParams }) },
    async ({ work, params }) => {
      const contact = await contactView(work, params.contact);
      if (!contact) throw notFound("This contact");
      return contact;
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
