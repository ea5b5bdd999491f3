import type { Work } from "../base/work.ts";
import type { Database } from "../db/database.ts";

/** What counting needs of a practice. */
interface Counted {
  readonly db: Database;
  inPassing: <T>(client: number, run: (work: Work) => Promise<T>) => Promise<T>;
}

/** A return that is to be filed, by registration and the end of its period. */
export interface ReturnToFile {
  registration: number;
  to: string;
}

/** What waits in a return; null where it could not be counted. */
type Count = ReturnToFile & { open: number | null; stops: number | null };

/** Counts what waits in returns of a client: all findings that nobody accepted, and how many of them stop it. */
type CountsOf = (work: Work, client: number, returns: readonly ReturnToFile[]) => Promise<Count[]>;

/** Somebody is still at it until nothing was changed for so long. */
const QUIET_MS = 1500;
/** Between two clients, so that whoever works finds the server free. */
const PAUSE_MS = 20;

/** The oldest return of each registration that is not filed yet, of one client or of all. */
const TO_FILE = `SELECT client_id AS client, registration_id AS registration, min(period_end) AS "to"
  FROM period_summaries WHERE state NOT IN ('filed', 'settled') GROUP BY client_id, registration_id`;

/**
 * Counts the findings of the returns that are to be filed next, one client after the other, once its books are left in
 * peace: nobody waits for it, and what is shown meanwhile says that it is being counted.
 */
export class FindingCounts {
  readonly #practice: Counted;
  readonly #countsOf: CountsOf;
  /** Clients to be counted, by when their books were changed last. */
  readonly #waiting = new Map<number, number>();
  #timer: NodeJS.Timeout | undefined;
  #running: Promise<void> = Promise.resolve();
  #ended = false;

  constructor(practice: Counted, countsOf: CountsOf) {
    this.#practice = practice;
    this.#countsOf = countsOf;
  }

  /** The summary of a client was written anew. */
  touch(client: number): void {
    this.#waiting.set(client, Date.now());
    this.#wake(QUIET_MS);
  }

  /** Looks for clients that were never counted as they are now. */
  async repair(): Promise<void> {
    const rows = await this.#practice.db.rows<{ client: number }>(
      `SELECT DISTINCT n.client FROM (${TO_FILE}) n JOIN client_summaries s ON s.client_id = n.client
         LEFT JOIN finding_counts f ON f.client_id = n.client AND f.registration_id = n.registration
           AND f.period_end = n."to" AND f.stamp = s.stamp
       WHERE f.client_id IS NULL`,
    );
    for (const { client } of rows) this.#waiting.set(client, 0);
    this.#wake(PAUSE_MS);
  }

  /** Counts no more, and waits for what is being counted. */
  async end(): Promise<void> {
    this.#ended = true;
    clearTimeout(this.#timer);
    await this.#running;
  }

  #wake(afterMs: number): void {
    if (this.#ended || this.#timer) return;
    this.#timer = setTimeout(() => {
      this.#running = this.#next().finally(() => {
        this.#timer = undefined;
        if (this.#waiting.size > 0) this.#wake(PAUSE_MS);
      });
    }, afterMs).unref();
  }

  async #next(): Promise<void> {
    const now = Date.now();
    const [ready] = [...this.#waiting].filter(([, at]) => now - at >= QUIET_MS);
    if (ready === undefined) return new Promise((later) => setTimeout(later, QUIET_MS / 5).unref());
    const [client] = ready;
    this.#waiting.delete(client);
    // The practice's own file fails for everybody else, too: counted after the next change, or at the next start.
    await this.#count(client).catch(() => undefined);
  }

  async #count(client: number): Promise<void> {
    const { db } = this.#practice;
    const returns = await db.rows<ReturnToFile>(
      `SELECT registration, "to" FROM (${TO_FILE}) WHERE client = $1`,
      [client],
    );
    const { stamp, counts } = await this.#counted(client, returns).catch(() =>
      this.#unknown(client, returns),
    );
    await db.write(async (tx) => {
      await db.run("DELETE FROM finding_counts WHERE client_id = $1", [client], tx);
      for (const { registration, to, open, stops } of counts)
        await db.run(
          `INSERT INTO finding_counts (client_id, registration_id, period_end, stamp, open, stops)
           VALUES ($1, $2, $3, $4, $5, $6)`,
          [client, registration, to, stamp, open, stops],
          tx,
        );
    });
  }
  async #counted(
    client: number,
    returns: readonly ReturnToFile[],
  ): Promise<{ stamp: number; counts: Count[] }> {
    return this.#practice.inPassing(client, async (work) => {
      const { stamp } = await work.one<{ stamp: number }>(
        "SELECT coalesce(max(id), 0) AS stamp FROM changes",
      );
      return { stamp, counts: await this.#countsOf(work, client, returns) };
    });
  }

  /** Of books that do not open, or say something no check understands, nothing is counted until they change. */
  async #unknown(
    client: number,
    returns: readonly ReturnToFile[],
  ): Promise<{ stamp: number; counts: Count[] }> {
    const row = await this.#practice.db.row<{ stamp: number }>(
      "SELECT stamp FROM client_summaries WHERE client_id = $1",
      [client],
    );
    return { stamp: row?.stamp ?? 0, counts: returns.map((one) => ({ ...one, open: null, stops: null })) };
  }
}
