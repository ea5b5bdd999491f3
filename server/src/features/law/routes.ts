import type { FastifyInstance, FastifyReply, FastifyRequest } from "fastify";
import Joi from "joi";
import { id } from "@fiscalon/contract/fields";
import { lawChangeBody, lawFileBody } from "@fiscalon/contract/law";
import type { LawChangeBody, LawFile } from "@fiscalon/contract/law";
import { withinField } from "@fiscalon/core/errors";
import { checkLawChange } from "@fiscalon/core/jurisdictions/amendedPack";
import type { AppContext } from "../../appContext.ts";
import { described } from "../../base/validation.ts";
import { atOnceOrAsJob } from "../../jobs/atOnceOrAsJob.ts";
import type { LawStep } from "../../jobs/task.ts";
import { changedLaw, lawChangeRows, lawFile } from "./changes.ts";
import { touchedBy } from "./touched.ts";

export async function lawRoutes(app: FastifyInstance, { practice, jobs }: AppContext): Promise<void> {
  app.get("/law", { schema: described("What the practice found out about the law", "Set up") }, (request) =>
    lawChangeRows(request.work),
  );

  app.post<{ Body: LawChangeBody }>(
    "/law/touched",
    {
      schema: described("Which open documents and returns a change of the law moves", "Set up", {
        body: lawChangeBody,
      }),
    },
    (request) => {
      const { work, body } = request;
      withinField("change", () => checkLawChange(work.packs.byId(body.change.pack), body.change));
      return touchedBy(practice, work, body.change);
    },
  );

  app.post<{ Body: LawChangeBody }>(
    "/law",
    {
      schema: described("Confirm a figure; correct a rate, a due day or the title of a box", "Set up", {
        body: lawChangeBody,
      }),
    },
    (request, reply) => changed(request, reply, { what: "add", change: request.body.change }),
  );

  app.delete<{ Params: { id: number } }>(
    "/law/:id",
    {
      schema: described("Take such a change back", "Set up", {
        params: Joi.object({ id: id.required() }),
      }),
    },
    (request, reply) => changed(request, reply, { what: "remove", id: request.params.id }),
  );

  app.get(
    "/law/file",
    { schema: described("What the practice found out about the law, as a file", "Set up") },
    async (request, reply) =>
      reply
        .header("content-disposition", 'attachment; filename="fiscalon-law.json"')
        .send(lawFile(request.work)),
  );

  app.post<{ Body: LawFile }>(
    "/law/file",
    {
      schema: described("Take such a file in, all or nothing", "Set up", { body: lawFileBody }),
    },
    (request, reply) => changed(request, reply, { what: "file", file: request.body }),
  );

  function changed({ work }: Pick<FastifyRequest, "work">, reply: FastifyReply, step: LawStep) {
    return atOnceOrAsJob(jobs, { work, reply, task: { kind: "law", step } }, (progress) =>
      changedLaw(practice, work, step, progress),
    );
  }
}
