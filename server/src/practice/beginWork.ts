import type { FastifyInstance, FastifyRequest } from "fastify";
import { keptAnswer, onceOf } from "../base/once.ts";
import type { Work } from "../base/work.ts";
import type { Practice } from "./practice.ts";

declare module "fastify" {
  interface FastifyRequest {
    /** What this request does, for whom, and when: on the books of the client in its path, or on the practice. */
    work: Work;
  }
}

/** The beginning of paths that are about one client. */
const OF_CLIENT = "/api/clients/:id";

/** The header that says how far the audit trail goes that an answer was read from, and how far a sender had seen it. */
export const SEEN = "audit-entry";

/** Gives each request of a scope its work; one that was done already gets the answer it had. */
export function beginWork(app: FastifyInstance, practice: Practice): void {
  app.decorateRequest("work");
  app.addHook("preHandler", async (request, reply) => {
    const gone = new AbortController();
    const { work, letGo } = await hold(practice, request);
    reply.raw.once("close", () => {
      if (!reply.raw.writableFinished) gone.abort();
      void keptAnswer(request).finally(letGo);
    });
    const { around, replay } = await onceOf(request, work);
    if (replay) {
      const { status, answer } = replay;
      void reply.header("idempotent-replayed", "true").status(status ?? 200);
      if (answer !== "") void reply.type("application/json");
      return reply.send(answer === "" ? undefined : answer);
    }
    const asks = request.method === "GET";
    if (asks) {
      // Before anything is read: what comes later is not in the answer for sure.
      const { last } = await work.one<{ last: number }>("SELECT coalesce(max(id), 0) AS last FROM changes");
      void reply.header(SEEN, last);
    }
    const seenUpTo = asks ? Number.NaN : Number(request.headers[SEEN] ?? Number.NaN);
    request.work = work.begun({
      ...(around ? { around } : {}),
      ...(Number.isSafeInteger(seenUpTo) ? { seenUpTo } : {}),
      ...(asks ? { signal: gone.signal, limited: true } : {}),
    });
  });
}

async function hold(practice: Practice, request: FastifyRequest): Promise<{ work: Work; letGo: () => void }> {
  if (request.routeOptions.url?.startsWith(OF_CLIENT)) {
    return practice.hold((request.params as { id: number }).id);
  }
  return { work: await practice.begin(), letGo: () => undefined };
}
