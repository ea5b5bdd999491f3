import { setTimeout } from "node:timers/promises";
import { requireUsual } from "../../books/requireUsual.ts";
import type { FastifyInstance } from "fastify";
import Joi from "joi";
import { country } from "@fiscalon/contract/fields";
import { clientBody, numberCheckQuery, placeBody, registrationBody } from "@fiscalon/contract/setup";
import type { ClientBody, PlaceBody, RegistrationBody } from "@fiscalon/contract/setup";
import type { AppContext } from "../../appContext.ts";
import { clientParams, described } from "../../base/validation.ts";
import { freeRef } from "../../books/freeRef.ts";
import { loadClient, loadSetup } from "../../books/loadSetup.ts";
import { askRegister } from "./numberCheck.ts";
import { addPlace, createClient } from "../../books/createClient.ts";
import { atOnceOrAsJob } from "../../jobs/atOnceOrAsJob.ts";
import type { JobTask } from "../../jobs/task.ts";
import { registerAndRecount } from "./registerAndRecount.ts";
import { changedClient, clientRows, clientView } from "../../books/views.ts";

/** The list waits so long for what was changed last; of a large client it may come a moment later. */
const SUMMED_MS = 1000;

type Id = { Params: { id: number } };

export async function clientRoutes(
  app: FastifyInstance,
  { numbers, practice, jobs }: AppContext,
): Promise<void> {
  app.get("/clients", { schema: described("All clients", "Set up") }, async (request) => {
    await Promise.race([practice.summaries.settled(), setTimeout(SUMMED_MS)]);
    return clientRows(request.work);
  });

  app.post<{ Body: ClientBody }>(
    "/clients",
    { schema: described("Create a client", "Set up", { body: clientBody }) },
    async (request, reply) => {
      const { saleCode, purchaseCode } = request.body;
      const usual = { ...(saleCode ? { saleCode } : {}), ...(purchaseCode ? { purchaseCode } : {}) };
      const { client } = await practice.make(request.work, {
        name: request.body.name,
        fill: (books, id) => createClient(books, id, request.body, usual),
      });
      return reply.status(201).send(await practice.onClient(client, (books) => clientView(books, client)));
    },
  );

  app.get<Id>(
    "/clients/:id",
    { schema: described("A client", "Set up", { params: clientParams }) },
    (request) => clientView(request.work, request.params.id),
  );

  app.get<Id>(
    "/clients/:id/setup",
    {
      schema: described("What pricing depends on: codes, rates, accounts, registrations", "Set up", {
        params: clientParams,
      }),
    },
    async (request) => (await loadSetup(request.work, request.params.id)).plain,
  );

  app.get<{ Querystring: { pack: string; number: string } }>(
    "/number-check",
    { schema: described("Check the digits of a tax number", "Set up", { querystring: numberCheckQuery }) },
    (request) => request.work.packs.byId(request.query.pack).checkNumber(request.query.number),
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
      const client = await changedClient(request.work, clientId, async (work) => {
        await loadClient(work, clientId);
        await requireUsual(work, clientId, request.body);
        await addPlace(work, clientId, await freeRef(work, "places", clientId, "p"), request.body);
      });
      return reply.status(201).send(client);
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
    ({ work, params: { id: clientId }, body }, reply) => {
      const task: JobTask = { kind: "change", clientId, change: { what: "new-registration", body } };
      void reply.status(201);
      return atOnceOrAsJob(jobs, { work, reply, task }, (progress) =>
        registerAndRecount(work, clientId, body, progress),
      );
    },
  );
}
