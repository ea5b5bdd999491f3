import type { FastifyInstance } from "fastify";
import Joi from "joi";
import { id } from "@fiscalon/contract/fields";
import { templateBody } from "@fiscalon/contract/templates";
import type { TemplateBody } from "@fiscalon/contract/templates";
import { clientParams, described } from "../../base/validation.ts";
import { dropTemplate, keepTemplate, postDue, templateViews } from "./service.ts";

type Id = { Params: { id: number } };

export async function templateRoutes(app: FastifyInstance): Promise<void> {
  app.get<Id>(
    "/clients/:id/templates",
    { schema: described("Documents kept to be used again", "Books", { params: clientParams }) },
    (request) => templateViews(request.work, request.params.id),
  );

  app.put<Id & { Body: TemplateBody }>(
    "/clients/:id/templates",
    {
      schema: described("Keep a document under a name, to be used again or posted in a rhythm", "Books", {
        params: clientParams,
        body: templateBody,
      }),
    },
    async (request) => {
      await keepTemplate(request.work, request.params.id, request.body);
      return templateViews(request.work, request.params.id);
    },
  );

  app.post<Id>(
    "/clients/:id/templates/post-due",
    { schema: described("Post everything that is due", "Books", { params: clientParams }) },
    (request) => postDue(request.work, request.params.id),
  );

  app.delete<{ Params: { id: number; template: number } }>(
    "/clients/:id/templates/:template",
    {
      schema: described("Forget a kept document", "Books", {
        params: Joi.object({ id: id.required(), template: id.required() }),
      }),
    },
    async (request, reply) => {
      await dropTemplate(request.work, request.params.id, request.params.template);
      return reply.status(204).send();
    },
  );
}
