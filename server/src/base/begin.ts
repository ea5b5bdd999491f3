import type { FastifyInstance } from "fastify";
import type { Database } from "../db/database.ts";
import { PackShelf } from "./packShelf.ts";
import { Work } from "./work.ts";

declare module "fastify" {
  interface FastifyRequest {
    /** What this request does, for whom, and when. */
    work: Work;
  }
}

/** Begins a piece of work. Until sign-in exists there is one person. */
export function workOn(db: Database, dataDir: string): (person?: number) => Promise<Work> {
  const shelf = new PackShelf(db);
  return async (person = 1) =>
    new Work({ db, dataDir, packs: await shelf.packs(), person, at: new Date().toISOString() });
}

/** Gives each request of a scope its work. */
export function beginWork(app: FastifyInstance, begin: () => Promise<Work>): void {
  app.decorateRequest("work");
  app.addHook("preHandler", async (request) => {
    request.work = await begin();
  });
}
