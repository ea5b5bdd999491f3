import type { Database } from "./db/database.ts";
import type { BankFeed } from "./features/bank/feed.ts";
import type { TerminalOperator } from "./features/terminals/operator.ts";
import type { Gateway } from "./features/returns/gateway.ts";
import type { JobRunner } from "./jobs/runner.ts";

/** What routes work with. */
export interface AppContext {
  db: Database;
  jobs: JobRunner;
  dataDir: string;
  /** Known once the server listens: the simulator answers on the same address. */
  gateway: () => Gateway;
  /** The bank's interface, simulated on the same address. */
  bank: () => BankFeed;
  /** The operator of card terminals, simulated on the same address. */
  operator: () => TerminalOperator;
  /** Address of the register of tax numbers. */
  numbers: () => string;
}
