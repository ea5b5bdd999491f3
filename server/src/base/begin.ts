import type { FastifyInstance } from "fastify";
import type { Database } from "../db/database.ts";
import { onceOf } from "./once.ts";
import { PackShelf } from "./packShelf.ts";
import { Work } from "./work.ts";
import type { Around } from "./work.ts";

declare module "fastify" {
  interface FastifyRequest {
    /** What this request does, for whom, and when. */
    work: Work;
  }
}

/** Who does something, and what goes with every change of it. */
export interface Begun {
  person?: number;
  around?: Around;
}

/** Begins a piece of work. Until sign-in exists there is one person. */
export function workOn(db: Database, dataDir: string): (begun?: Begun) => Promise<Work> {
  const shelf = new PackShelf(db);
  return async ({ person = 1, around } = {}) =>
    new Work({
      db,
      dataDir,
      packs: await shelf.packs(),
      person,
      at: new Date().toISOString(),
      ...(around ? { around } : {}),
    });
}

/** Gives each request of a scope its work; one that was done already gets the answer it had. */
export function beginWork(app: FastifyInstance, begin: (begun?: Begun) => Promise<Work>): void {
  app.decorateRequest("work");
  app.addHook("preHandler", async (request, reply) => {
    const { around, replay } = await onceOf(request, await begin());
    if (replay) {
      const { status, answer } = replay;
      void reply.header("idempotent-replayed", "true").status(status ?? 200);
      if (answer !== "") void reply.type("application/json");
      return reply.send(answer === "" ? undefined : answer);
    }
    request.work = await begin(around ? { around } : {});
  });
}
