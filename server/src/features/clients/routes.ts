import type { FastifyInstance } from "fastify";
import Joi from "joi";
import { FiscalError } from "@fiscalon/core/errors";
import { packById } from "@fiscalon/core/jurisdictions/packs";
import {
  accountBody,
  clientBody,
  contactBody,
  itemBody,
  numberCheckQuery,
  placeBody,
  registrationBody,
} from "@fiscalon/contract/setup";
import type {
  ClientBody,
  ContactBody,
  ItemBody,
  PlaceBody,
  RegistrationBody,
} from "@fiscalon/contract/setup";
import type { Account } from "@fiscalon/core/ledger/account";
import { country, id } from "@fiscalon/contract/fields";
import { actorNow, made, recordChange } from "../../actor.ts";
import type { Actor } from "../../actor.ts";
import type { AppContext } from "../../context.ts";
import type { Database, Tx } from "../../db/database.ts";
import type { ItemRecord } from "../../db/models.ts";
import { notFound } from "../../errors.ts";
import { clientParams, described } from "../../validation.ts";
import { loadDocuments } from "../documents/loadDocuments.ts";
import { recomputeDocuments } from "../documents/postDocuments.ts";
import { askRegister } from "../setup/numberCheck.ts";
import { addPlace, addRegistration, createClient } from "./createClient.ts";
import { loadClient, loadSetup } from "./loadSetup.ts";
import { registeredFrom } from "./registeredFrom.ts";
import { clientRows, clientView, contactView, contactViews } from "./views.ts";

type Id = { Params: { id: number } };
type OwnedId = { Params: { id: number; own: number } };
const ownedParams = Joi.object({ id: id.required(), own: id.required() });

export async function clientRoutes(app: FastifyInstance, { db, numbers }: AppContext): Promise<void> {
  app.get("/clients", { schema: described("All clients", "Set up") }, () => clientRows(db));

  app.post<{ Body: ClientBody }>(
    "/clients",
    { schema: described("Create a client", "Set up", { body: clientBody }) },
    async (request, reply) => {
      const { saleCode, purchaseCode } = request.body;
      const usual = { ...(saleCode ? { saleCode } : {}), ...(purchaseCode ? { purchaseCode } : {}) };
      const clientId = await db.write((tx) => createClient(db, tx, actorNow(), request.body, usual));
      return reply.status(201).send(await clientView(db, clientId));
    },
  );

  app.get<Id>(
    "/clients/:id",
    { schema: described("A client", "Set up", { params: clientParams }) },
    (request) => clientView(db, request.params.id),
  );

  app.get<Id>(
    "/clients/:id/setup",
    {
      schema: described("What pricing depends on: codes, rates, accounts, registrations", "Set up", {
        params: clientParams,
      }),
    },
    async (request) => (await loadSetup(db, request.params.id)).plain,
  );

  app.get<{ Querystring: { pack: string; number: string } }>(
    "/number-check",
    { schema: described("Check the digits of a tax number", "Set up", { querystring: numberCheckQuery }) },
    (request) => packById(request.query.pack).checkNumber(request.query.number),
  );

  app.get<{ Querystring: { country: string; number: string } }>(
    "/number-register",
    {
      schema: described("Ask the register of a country about a tax number", "Set up", {
        querystring: Joi.object({ country: country.required(), number: Joi.string().max(60).required() }),
      }),
    },
    (request) => askRegister(numbers(), request.query.country, request.query.number),
  );

  app.post<Id & { Body: PlaceBody }>(
    "/clients/:id/places",
    { schema: described("Add a place", "Set up", { params: clientParams, body: placeBody }) },
    async (request, reply) => {
      const clientId = request.params.id;
      await db.write(async (tx) => {
        await loadClient(db, clientId, tx);
        await addPlace(
          db,
          tx,
          actorNow(),
          clientId,
          await freeRef(db, tx, "places", clientId, "p"),
          request.body,
        );
      });
      return reply.status(201).send(await clientView(db, clientId));
    },
  );

  app.post<Id & { Body: RegistrationBody }>(
    "/clients/:id/registrations",
    {
      schema: described("Add a registration; documents waiting for one are counted from then on", "Set up", {
        params: clientParams,
        body: registrationBody,
      }),
    },
    async (request, reply) => {
      const clientId = request.params.id;
      await db.write((tx) => registerAndRecount(db, tx, actorNow(), clientId, request.body));
      return reply.status(201).send(await clientView(db, clientId));
    },
  );

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
    (request) => contactViews(db, request.params.id, request.query.search ?? "", request.query.limit ?? 200),
  );

  app.post<Id & { Body: ContactBody }>(
    "/clients/:id/contacts",
    { schema: described("Add a contact", "Set up", { params: clientParams, body: contactBody }) },
    async (request, reply) => {
      const contactId = await db.write(async (tx) => {
        await loadClient(db, request.params.id, tx);
        return saveContact(db, tx, actorNow(), request.params.id, null, request.body);
      });
      return reply.status(201).send(await contactView(db, contactId));
    },
  );

  app.put<OwnedId & { Body: ContactBody }>(
    "/clients/:id/contacts/:own",
    { schema: described("Change a contact", "Set up", { params: ownedParams, body: contactBody }) },
    async (request) => {
      const { id: clientId, own } = request.params;
      await db.write((tx) => saveContact(db, tx, actorNow(), clientId, own, request.body));
      return contactView(db, own);
    },
  );

  app.post<Id & { Body: Account }>(
    "/clients/:id/accounts",
    { schema: described("Add an account", "Set up", { params: clientParams, body: accountBody }) },
    async (request, reply) => {
      await db.write((tx) => addAccount(db, tx, actorNow(), request.params.id, request.body));
      return reply.status(201).send((await loadSetup(db, request.params.id)).plain.accounts);
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
      await db.write((tx) => changeAccount(db, tx, actorNow(), clientId, code, request.body));
      return (await loadSetup(db, clientId)).plain.accounts;
    },
  );

  app.get<Id>(
    "/clients/:id/items",
    { schema: described("Items", "Set up", { params: clientParams }) },
    async (request) => {
      const rows = await db.models.items.findAll({ where: { clientId: request.params.id }, order: ["name"] });
      return rows.map((row) => itemView(row.get({ plain: true }) as ItemRecord));
    },
  );

  app.post<Id & { Body: ItemBody }>(
    "/clients/:id/items",
    { schema: described("Add an item", "Set up", { params: clientParams, body: itemBody }) },
    async (request, reply) => {
      const row = await db.write(async (tx) => {
        const clientId = request.params.id;
        await loadClient(db, clientId, tx);
        const actor = actorNow();
        const ref = await freeRef(db, tx, "items", clientId, "i");
        const item = await db.models.items.create(
          { clientId, ref, ...request.body, ...made(actor) },
          { transaction: tx },
        );
        await recordChange(db, tx, actor, {
          client: clientId,
          action: "create",
          entity: "item",
          id: item.id,
          after: request.body,
        });
        return item;
      });
      return reply.status(201).send(itemView(row.get({ plain: true }) as ItemRecord));
    },
  );

  app.put<OwnedId & { Body: ItemBody }>(
    "/clients/:id/items/:own",
    { schema: described("Change an item", "Set up", { params: ownedParams, body: itemBody }) },
    async (request) => {
      const { id: clientId, own } = request.params;
      const row = await db.write(async (tx) => {
        const item = await db.models.items.findOne({ where: { id: own, clientId }, transaction: tx });
        if (!item) throw notFound("This item");
        const before = { ...item.get({ plain: true }) };
        await item.update(request.body, { transaction: tx });
        await recordChange(db, tx, actorNow(), {
          client: clientId,
          action: "change",
          entity: "item",
          id: own,
          before,
          after: request.body,
        });
        return item;
      });
      return itemView(row.get({ plain: true }) as ItemRecord);
    },
  );
}

function itemView({ clientId: _client, createdAt: _at, createdBy: _by, ...item }: ItemRecord) {
  return item;
}

/** Documents that waited for this registration get their entries and facts anew. */
async function registerAndRecount(
  db: Database,
  tx: Tx,
  actor: Actor,
  clientId: number,
  body: RegistrationBody,
): Promise<void> {
  await loadClient(db, clientId, tx);
  const ref = await freeRef(db, tx, "registrations", clientId, "r");
  await addRegistration(db, tx, actor, clientId, ref, body, "");
  const waiting = await loadDocuments(
    db,
    `d.client_id = $1 AND d.state = 'posted' AND EXISTS (SELECT 1 FROM facts f WHERE f.document_id = d.id
       AND f.live = 1 AND f.registration_id IS NULL AND f.tax_point >= $2)`,
    [clientId, body.from],
    tx,
  );
  await recomputeDocuments(db, tx, actor, await loadSetup(db, clientId, tx), waiting);
}

async function saveContact(
  db: Database,
  tx: Tx,
  actor: Actor,
  clientId: number,
  contactId: number | null,
  body: ContactBody,
): Promise<number> {
  const registered = registeredFrom((await loadClient(db, clientId, tx)).country, body);
  if (contactId === null) {
    const ref = await freeRef(db, tx, "contacts", clientId, "c");
    const row = await db.models.contacts.create(
      { clientId, ref, ...body, registered, ...made(actor) },
      { transaction: tx },
    );
    await recordChange(db, tx, actor, {
      client: clientId,
      action: "create",
      entity: "contact",
      id: row.id,
      after: body,
    });
    return row.id;
  }
  const row = await db.models.contacts.findOne({ where: { id: contactId, clientId }, transaction: tx });
  if (!row) throw notFound("This contact");
  const before = { ...row.get({ plain: true }) };
  await row.update({ ...body, registered }, { transaction: tx });
  await recordChange(db, tx, actor, {
    client: clientId,
    action: "change",
    entity: "contact",
    id: contactId,
    before,
    after: body,
  });
  return contactId;
}

async function addAccount(
  db: Database,
  tx: Tx,
  actor: Actor,
  clientId: number,
  body: Account,
): Promise<void> {
  await loadClient(db, clientId, tx);
  const twin = await db.models.accounts.findOne({ where: { clientId, code: body.code }, transaction: tx });
  if (twin)
    throw new FiscalError(
      "account/duplicate-number",
      `Account ${body.code} is there already: ${twin.name}. Choose another number.`,
      "code",
    );
  const row = await db.models.accounts.create(
    {
      clientId,
      ...body,
      role: body.role ?? null,
      levy: body.levy ?? null,
      topic: body.topic ?? null,
      usualCode: body.usualCode || null,
      ...made(actor),
    },
    { transaction: tx },
  );
  await recordChange(db, tx, actor, {
    client: clientId,
    action: "create",
    entity: "account",
    id: row.id,
    after: body,
  });
}

/** The number of an account stays: entries and documents name it. */
async function changeAccount(
  db: Database,
  tx: Tx,
  actor: Actor,
  clientId: number,
  code: string,
  body: Account,
): Promise<void> {
  const row = await db.models.accounts.findOne({ where: { clientId, code }, transaction: tx });
  if (!row) throw notFound("This account");
  const before = { ...row.get({ plain: true }) };
  const { name, type, role, levy, topic, usualCode } = body;
  await row.update(
    {
      name,
      type,
      role: role ?? null,
      levy: levy ?? null,
      topic: topic ?? null,
      usualCode: usualCode || null,
    },
    { transaction: tx },
  );
  await recordChange(db, tx, actor, {
    client: clientId,
    action: "change",
    entity: "account",
    id: row.id,
    before,
    after: body,
  });
}

/** The next free id of the book file for a new row. */
async function freeRef(
  db: Database,
  tx: Tx,
  table: "places" | "registrations" | "contacts" | "items",
  clientId: number,
  prefix: string,
): Promise<string> {
  const rows = await db.rows<{ ref: string }>(
    `SELECT ref FROM ${table} WHERE client_id = $1 AND ref LIKE $2`,
    [clientId, `${prefix}%`],
    tx,
  );
  const last = Math.max(
    0,
    ...rows.map((row) => Number(row.ref.slice(prefix.length))).filter(Number.isInteger),
  );
  return `${prefix}${last + 1}`;
}
