import type { FastifyInstance } from "fastify";
import type { Database } from "../db/database.ts";
import type { BankFeed } from "../features/bank/feed.ts";
import type { TerminalOperator } from "../features/terminals/operator.ts";
import type { Gateway } from "../features/returns/gateway.ts";
import type { JobRunner } from "../jobs/runner.ts";
import { PackShelf } from "./packShelf.ts";
import { Work } from "./work.ts";

/** What routes work with beside the work of a request. */
export interface AppContext {
  /** Begins another piece of work: what the one of the request changed is seen by it. */
  begin: () => Promise<Work>;
  jobs: JobRunner;
  /** Known once the server listens: the simulator answers on the same address. */
  gateway: () => Gateway;
  /** The bank's interface, simulated on the same address. */
  bank: () => BankFeed;
  /** The operator of card terminals, simulated on the same address. */
  operator: () => TerminalOperator;
  /** Address of the register of tax numbers. */
  numbers: () => string;
}

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
