import { FiscalError } from "@fiscalon/core/errors";
import type { Sequelize } from "sequelize";
import type sqlite3 from "sqlite3";

/** So many reads of one file run beside each other; others wait their turn. */
const MOST = 3;

/** What goes with a read: when it is given up. */
export interface Reading {
  /** Whoever asked is gone. */
  signal?: AbortSignal;
  /** It is stopped after so many milliseconds; not at all where nothing is said. */
  limitMs?: number;
}

/** What chooses a connection in the options of a query: the driver's manager keeps one open under each name. */
interface Reader {
  uuid: string;
}

/**
 * Connections of one file that only read. A read whose request is gone, that takes too long, or that the end of the
 * server finds running is interrupted inside the database.
 */
export class Readers {
  readonly #sequelize: Sequelize;
  readonly #free: string[] = Array.from({ length: MOST }, (_, n) => `reader-${n}`);
  readonly #busy = new Set<string>();
  readonly #waiting: ((reader: string | null) => void)[] = [];
  #ended = false;

  constructor(sequelize: Sequelize) {
    this.#sequelize = sequelize;
  }

  /**
   * @throws FiscalError `request/took-too-long`, `request/given-up`
   */
  async read<T>(reading: Reading | undefined, run: (reader: Reader) => Promise<T>): Promise<T> {
    const { signal, limitMs } = reading ?? {};
    const uuid = await this.#take();
    let late = false;
    const stop = () => this.#interrupt(uuid);
    const timer = limitMs === undefined ? undefined : setTimeout(() => ((late = true), stop()), limitMs);
    signal?.addEventListener("abort", stop);
    try {
      if (signal?.aborted) throw givenUp();
      return await run({ uuid });
    } catch (error) {
      if (!isInterrupt(error)) throw error;
      throw late ? tookTooLong(limitMs ?? 0) : givenUp();
    } finally {
      clearTimeout(timer);
      signal?.removeEventListener("abort", stop);
      this.#give(uuid);
    }
  }

  /** Interrupts what runs, and refuses what waits. */
  async end(): Promise<void> {
    this.#ended = true;
    for (const next of this.#waiting.splice(0)) next(null);
    for (const uuid of this.#busy) this.#interrupt(uuid);
    while (this.#busy.size > 0) await new Promise((later) => setTimeout(later, 5));
  }

  async #take(): Promise<string> {
    if (this.#ended) throw givenUp();
    const reader = this.#free.pop() ?? (await new Promise<string | null>((next) => this.#waiting.push(next)));
    if (reader === null) throw givenUp();
    this.#busy.add(reader);
    return reader;
  }

  #give(reader: string): void {
    this.#busy.delete(reader);
    const next = this.#waiting.shift();
    if (next) next(reader);
    else this.#free.push(reader);
  }

  #interrupt(reader: string): void {
    const { connections } = this.#sequelize.connectionManager as unknown as {
      connections: Record<string, sqlite3.Database | undefined>;
    };
    connections[reader]?.interrupt();
  }
}

function isInterrupt(error: unknown): boolean {
  return error instanceof Error && error.message.includes("SQLITE_INTERRUPT");
}

function givenUp(): FiscalError {
  return new FiscalError("request/given-up", "Whoever asked is gone, so this was stopped.");
}

function tookTooLong(ms: number): FiscalError {
  return new FiscalError(
    "request/took-too-long",
    `This took longer than ${ms / 1000} seconds and was stopped. Ask for a shorter span, or export it.`,
  );
}
