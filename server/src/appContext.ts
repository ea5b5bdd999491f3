import type { Copies } from "./across/backup/copies.ts";
import type { Practice } from "./practice/practice.ts";
import type { JobRunner } from "./jobs/runner.ts";
import type { BankFeed } from "./outside/bankFeed.ts";
import type { Gateway } from "./outside/gateway.ts";
import type { TerminalOperator } from "./outside/terminalOperator.ts";

/** What routes work with beside the work of a request. */
export interface AppContext {
  practice: Practice;
  jobs: JobRunner;
  /** Known once the server listens: the simulator answers on the same address. */
  gateway: () => Gateway;
  /** The bank's interface, simulated on the same address. */
  bank: () => BankFeed;
  /** The operator of card terminals, simulated on the same address. */
  operator: () => TerminalOperator;
  copies: Copies;
  /** The folder of the digests of audit trails. */
  digests: string;
  /** Address of the register of tax numbers. */
  numbers: () => string;
}
