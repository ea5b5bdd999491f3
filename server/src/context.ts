import type { Database } from "./db/database.ts";
import type { Gateway } from "./features/returns/gateway.ts";
import type { JobRunner } from "./jobs/runner.ts";

/** What routes work with. */
export interface AppContext {
  db: Database;
  jobs: JobRunner;
  dataDir: string;
  /** Known once the server listens: the simulator answers on the same address. */
  gateway: () => Gateway;
  /** Address of the register of tax numbers. */
  numbers: () => string;
}
