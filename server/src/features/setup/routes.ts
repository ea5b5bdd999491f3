import type { FastifyInstance } from "fastify";
import Joi from "joi";
import type { SupplyRule } from "@fiscalon/core/model/supplyRule";
import type { RateRow, TaxCode } from "@fiscalon/core/model/taxCode";
import { codeBody, defaultBody, ruleBody, scheduleBody } from "@fiscalon/contract/code";
import { id } from "@fiscalon/contract/fields";
import { placeChangeBody, registrationChangeBody } from "@fiscalon/contract/setup";
import type { PlaceBody, RegistrationChangeBody } from "@fiscalon/contract/setup";
import type { AppContext } from "../../appContext.ts";
import type { Work } from "../../base/work.ts";
import { csvAnswer } from "../../base/csvAnswer.ts";
import { clientParams, described, registrationParams } from "../../base/validation.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import { atOnceOrAsJob } from "../../jobs/atOnceOrAsJob.ts";
import type { JobTask } from "../../jobs/task.ts";
import { archiveCode, codeUses, deleteCode, makeDefault, saveCode } from "./codes.ts";
import type { DefaultScope } from "./codes.ts";
import { codesCsv, importCodes } from "./codesCsv.ts";
import { changePlace } from "./places.ts";
import { agencyPositions } from "./positions.ts";
import { changeRegistration } from "./registrations.ts";
import { saveRules } from "./rules.ts";
import { saveSchedule, touchedBy } from "./schedules.ts";

type Client = { Params: { id: number } };
type OfCode = { Params: { id: number; code: string } };
type OfSchedule = { Params: { id: number; ref: string }; Body: { rows: RateRow[] } };
const codeParams = Joi.object({ id: id.required(), code: Joi.string().max(30).required() });
const scheduleParams = Joi.object({ id: id.required(), ref: Joi.string().max(60).required() });

export async function setupRoutes(app: FastifyInstance, { jobs }: AppContext): Promise<void> {
  app.get<Client>(
    "/clients/:id/codes",
    { schema: described("How the codes are used", "Set up", { params: clientParams }) },
    (request) => codeUses(request.work, request.params.id),
  );

  app.post<Client & { Body: TaxCode }>(
    "/clients/:id/codes",
    { schema: described("Make a tax code", "Set up", { params: clientParams, body: codeBody }) },
    async (request, reply) => {
      await saveCode(request.work, request.params.id, request.body, null);
      return reply.status(201).send(await plainOf(request.work, request.params.id));
    },
  );

  app.put<OfCode & { Body: TaxCode }>(
    "/clients/:id/codes/:code",
    { schema: described("Change a tax code", "Set up", { params: codeParams, body: codeBody }) },
    async (request) => {
      await saveCode(request.work, request.params.id, request.body, request.params.code);
      return plainOf(request.work, request.params.id);
    },
  );

  app.delete<OfCode>(
    "/clients/:id/codes/:code",
    { schema: described("Delete a code that was never used", "Set up", { params: codeParams }) },
    async (request, reply) => {
      await deleteCode(request.work, request.params.id, request.params.code);
      return reply.status(204).send();
    },
  );

  app.post<OfCode & { Body: { archived: boolean } }>(
    "/clients/:id/codes/:code/archive",
    {
      schema: described("Archive a code, or take it back", "Set up", {
        params: codeParams,
        body: Joi.object({ archived: Joi.boolean().required() }),
      }),
    },
    async (request) => {
      const { id: clientId, code } = request.params;
      await archiveCode(request.work, clientId, code, request.body.archived);
      return codeUses(request.work, clientId);
    },
  );

  app.post<OfCode & { Body: { side: "sale" | "purchase"; scope: DefaultScope; place: number | null } }>(
    "/clients/:id/codes/:code/default",
    { schema: described("Make a code the default", "Set up", { params: codeParams, body: defaultBody }) },
    (request) => makeDefault(request.work, request.params.id, request.params.code, request.body),
  );

  app.get<Client>(
    "/clients/:id/codes.csv",
    { schema: described("The codes as CSV", "Set up", { params: clientParams }) },
    async (request, reply) => {
      const { codes } = await plainOf(request.work, request.params.id);
      return csvAnswer(reply, "tax-codes", codesCsv(codes));
    },
  );

  app.post<Client & { Body: { csv: string } }>(
    "/clients/:id/codes/import",
    {
      schema: described("Make and change codes from CSV, all or nothing", "Set up", {
        params: clientParams,
        body: Joi.object({ csv: Joi.string().max(5_000_000).required() }),
      }),
    },
    (request) => importCodes(request.work, request.params.id, request.body.csv),
  );

  app.put<Client & { Body: { rules: SupplyRule[]; seen?: SupplyRule[] } }>(
    "/clients/:id/rules",
    {
      schema: described("Replace the supply rules", "Set up", {
        params: clientParams,
        body: Joi.object({
          rules: Joi.array().items(ruleBody).max(500).required(),
          seen: Joi.array().items(ruleBody).max(500),
        }),
      }),
    },
    async (request) => {
      const { rules, seen } = request.body;
      await saveRules(request.work, request.params.id, rules, seen);
      return plainOf(request.work, request.params.id);
    },
  );

  app.post<OfSchedule>(
    "/clients/:id/schedules/:ref/touched",
    {
      schema: described("Which open documents a change of rates touches", "Set up", {
        params: scheduleParams,
        body: scheduleBody,
      }),
    },
    (request) => touchedBy(request.work, request.params.id, request.params.ref, request.body.rows),
  );

  app.put<OfSchedule>(
    "/clients/:id/schedules/:ref",
    { schema: described("Change rates by date", "Set up", { params: scheduleParams, body: scheduleBody }) },
    ({ work, params: { id: clientId, ref }, body: { rows } }, reply) => {
      const task: JobTask = { kind: "change", clientId, change: { what: "schedule", ref, rows } };
      return atOnceOrAsJob(jobs, { work, reply, task }, (progress) =>
        saveSchedule(work, clientId, ref, rows, progress),
      );
    },
  );

  app.put<{ Params: { id: number; rid: string }; Body: RegistrationChangeBody }>(
    "/clients/:id/registrations/:rid",
    {
      schema: described("Change a registration: number, end, rhythm from a day, options", "Set up", {
        params: registrationParams,
        body: registrationChangeBody,
      }),
    },
    ({ work, params: { id: clientId, rid }, body }, reply) => {
      const task: JobTask = { kind: "change", clientId, change: { what: "registration", rid, body } };
      return atOnceOrAsJob(jobs, { work, reply, task }, (progress) =>
        changeRegistration(work, clientId, rid, body, progress),
      );
    },
  );

  app.put<{ Params: { id: number; own: number }; Body: Partial<PlaceBody> }>(
    "/clients/:id/places/:own",
    {
      schema: described("Change a place, or close it", "Set up", {
        params: Joi.object({ id: id.required(), own: id.required() }),
        body: placeChangeBody,
      }),
    },
    ({ work, params: { id: clientId, own }, body }, reply) => {
      const task: JobTask = { kind: "change", clientId, change: { what: "place", place: own, body } };
      return atOnceOrAsJob(jobs, { work, reply, task }, (progress) =>
        changePlace(work, clientId, own, body, progress),
      );
    },
  );

  app.get<Client>(
    "/clients/:id/positions",
    {
      schema: described("What is due now and what builds up, by agency", "Set up", { params: clientParams }),
    },
    (request) => agencyPositions(request.work, request.params.id),
  );

  async function plainOf(work: Work, clientId: number) {
    return (await loadSetup(work, clientId)).plain;
  }
}
