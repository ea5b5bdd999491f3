import type { Sequelize } from "sequelize";
import sqlite3 from "sqlite3";

/** How long a writer waits for another one, also in another thread, before giving up. */
const BUSY_MS = 120_000;

/** How long a connection that is being let go of is waited for: one that cannot be closed holds nobody up. */
const CLOSING_MS = 5_000;

/** Pages a connection keeps, in KB: who reads finds the others with the system; who writes much keeps what it changes. */
const KEPT_KB = 16_384;
export const KEPT_TO_WRITE_KB = 65_536;

/** The connections of one file that are open: those the driver's manager knows, and those it already lets go of. */
export class Connections {
  readonly #open = new Set<sqlite3.Database>();
  /** The driver, with connections of this file only. */
  readonly driver: object;

  constructor() {
    const open = this.#open;
    class PatientDatabase extends sqlite3.Database {
      constructor(file: string, mode?: number, done?: (error: Error | null) => void) {
        super(file, mode, done);
        // What fails without anybody waiting for it fails again where somebody does; alone it would end the process.
        this.on("error", () => undefined);
        open.add(this);
        this.once("close", () => open.delete(this));
        this.configure("busyTimeout", BUSY_MS);
        this.exec(`PRAGMA cache_size = -${KEPT_KB}; PRAGMA synchronous = FULL; PRAGMA temp_store = MEMORY`);
      }
    }
    this.driver = { ...sqlite3, Database: PatientDatabase };
  }

  /**
   * Closes one connection after the other: of two that close at once each believes the other still needs the log
   * beside the file, and it stays behind.
   */
  async close(sequelize: Sequelize): Promise<void> {
    const { connections } = sequelize.connectionManager as unknown as {
      connections: Record<string, sqlite3.Database>;
    };
    const known = Object.entries(connections);
    for (const [name, connection] of known) {
      delete connections[name];
      await new Promise<void>((closed) => connection.close(() => closed()));
    }
    const end = Date.now() + CLOSING_MS;
    while (this.#open.size > 0 && Date.now() < end) await new Promise((later) => setTimeout(later, 5));
    await sequelize.close();
  }
}
