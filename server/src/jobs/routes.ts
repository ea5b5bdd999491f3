import type { FastifyInstance } from "fastify";
import type { JobView } from "@fiscalon/contract/views";
import type { AppContext } from "../appContext.ts";
import { clientParams, described } from "../base/validation.ts";

type Id = { Params: { id: number } };

export async function jobRoutes(app: FastifyInstance, { jobs }: AppContext): Promise<void> {
  app.get("/jobs", { schema: described("Jobs that are under way", "Jobs", {}) }, () => jobs.underWay());

  app.get<Id>("/jobs/:id", { schema: described("A job", "Jobs", { params: clientParams }) }, (request) =>
    jobs.view(request.params.id),
  );

  app.post<Id>(
    "/jobs/:id/cancel",
    { schema: described("Cancel a job", "Jobs", { params: clientParams }) },
    async (request) => {
      jobs.cancel(request.params.id);
      return jobs.view(request.params.id);
    },
  );

  app.get<Id>(
    "/jobs/:id/events",
    { schema: described("Progress of a job as server-sent events", "Jobs", { params: clientParams }) },
    async (request, reply) => {
      const view = await jobs.view(request.params.id);
      reply.hijack();
      reply.raw.writeHead(200, { "content-type": "text/event-stream", "cache-control": "no-store" });
      const send = (now: JobView) => {
        reply.raw.write(`data: ${JSON.stringify(now)}\n\n`);
        if (now.state !== "running" && now.state !== "waiting") finish();
      };
      const stop = jobs.listen(view.id, send);
      const finish = () => {
        stop();
        reply.raw.end();
      };
      request.raw.on("close", finish);
      send(view);
    },
  );
}
