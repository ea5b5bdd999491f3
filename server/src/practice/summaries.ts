import { join } from "node:path";
import type { RegistrationRecord } from "../db/models.ts";
import type { Work } from "../base/work.ts";
import type { Database } from "../db/database.ts";
import { BOOKS_FILE } from "./clientFolder.ts";
import { lastEntry } from "./lastEntry.ts";

/** What summing up needs of a practice. */
interface Summed {
  readonly dataDir: string;
  readonly db: Database;
  inPassing: <T>(client: number, run: (work: Work) => Promise<T>) => Promise<T>;
  clients: () => Promise<{ id: number }[]>;
}

/** What of a client is still to be filed or paid, by registration and period. */
type PeriodsOf = (
  work: Work,
  client: number,
) => Promise<{ registration: number; from: string; to: string; due: string; state: string; net: number }[]>;

/** Changes close together are summed up once. */
const GATHER_MS = 300;

/**
 * What the practice shows of all clients, in its own file: written after a client's books were, and made again where the
 * books went on without it.
 */
export class Summaries {
  readonly #practice: Summed;
  readonly #touched = new Set<number>();
  #timer: NodeJS.Timeout | undefined;
  #periodsOf: PeriodsOf | undefined;
  #written: (client: number) => void = () => undefined;
  #running: Promise<void> = Promise.resolve();

  constructor(practice: Summed) {
    this.#practice = practice;
  }

  /** Who knows what periods are; without that, those of before stay. */
  tellPeriods(periodsOf: PeriodsOf): void {
    this.#periodsOf = periodsOf;
  }

  /** Who wants to know when the summary of a client was written. */
  tellWritten(written: (client: number) => void): void {
    this.#written = written;
  }

  /** The books of a client were changed. */
  touch(client: number): void {
    this.#touched.add(client);
    this.#timer ??= setTimeout(() => void this.settled().catch(() => undefined), GATHER_MS).unref();
  }

  /** Waits until every change that was told of is in the summaries. */
  async settled(): Promise<void> {
    clearTimeout(this.#timer);
    this.#timer = undefined;
    const clients = [...this.#touched];
    this.#touched.clear();
    if (clients.length > 0)
      this.#running = this.#running.then(async () => {
        for (const client of clients) await this.#write(client).catch(() => this.#touched.add(client));
      });
    return this.#running;
  }

  /** Looks for books that went on without their summary: after a kill, or where a folder was exchanged. */
  async repair(): Promise<void> {
    const rows = await this.#practice.db.rows<{
      id: number;
      folder: string;
      stamp: number | null;
      bare: number;
    }>(
      `SELECT c.id, c.folder, s.stamp, EXISTS (SELECT 1 FROM registration_summaries r WHERE r.client_id = c.id)
         AND NOT EXISTS (SELECT 1 FROM period_summaries p WHERE p.client_id = c.id) AS bare
       FROM clients c LEFT JOIN client_summaries s ON s.client_id = c.id WHERE c.state = 'ready'`,
    );
    for (const { id, folder, stamp, bare } of rows) {
      const last = await lastEntry(join(this.#practice.dataDir, folder, BOOKS_FILE));
      if (last && (stamp === null || last.id > stamp || bare === 1)) this.#touched.add(id);
    }
    await this.settled();
  }

  /** Makes all of them again. */
  async rebuild(): Promise<void> {
    for (const { id } of await this.#practice.clients()) this.#touched.add(id);
    await this.settled();
  }

  async end(): Promise<void> {
    await this.settled().catch(() => undefined);
  }

  async #write(client: number): Promise<void> {
    const read = await this.#practice
      .inPassing(client, async (work) => ({
        row: await summaryOf(work, client),
        // Whatever cannot be worked out of a period, the rest is shown.
        periods: await this.#periodsOf?.(work, client).catch(() => undefined),
      }))
      .catch(() => null);
    if (read === null) return;
    const { row, periods } = read;
    const { db } = this.#practice;
    const { stamp, name, country, currency, documents, places, recursOn, registrations } = row;
    await db.write(async (tx) => {
      await db.run(
        `INSERT INTO client_summaries (client_id, stamp, name, country, currency, documents, places, recurs_on)
         VALUES ($1, $2, $3, $4, $5, $6, $7, $8) ON CONFLICT (client_id) DO UPDATE SET stamp = excluded.stamp,
           name = excluded.name, country = excluded.country, currency = excluded.currency,
           documents = excluded.documents, places = excluded.places, recurs_on = excluded.recurs_on`,
        [client, stamp, name, country, currency, documents, places, recursOn],
        tx,
      );
      await db.run("UPDATE clients SET name = $2 WHERE id = $1 AND name <> $2", [client, name], tx);
      await db.run("DELETE FROM registration_summaries WHERE client_id = $1", [client], tx);
      for (const r of registrations)
        await db.run(
          `INSERT INTO registration_summaries (client_id, registration_id, pack, number, definition)
           VALUES ($1, $2, $3, $4, $5)`,
          [client, r.id, r.pack, r.number, JSON.stringify(r)],
          tx,
        );
      if (!periods) return;
      await db.run("DELETE FROM period_summaries WHERE client_id = $1", [client], tx);
      for (const { registration, from, to, due, state, net } of periods)
        await db.run(
          `INSERT INTO period_summaries (client_id, registration_id, period_from, period_end, due, state, net)
           VALUES ($1, $2, $3, $4, $5, $6, $7)`,
          [client, registration, from, to, due, state, net],
          tx,
        );
    });
    this.#written(client);
  }
}

interface Summary {
  stamp: number;
  name: string;
  country: string;
  currency: string;
  documents: number;
  /** Its places, by name and country, as JSON. */
  places: string;
  recursOn: string | null;
  registrations: RegistrationRecord[];
}

async function summaryOf(work: Work, client: number): Promise<Summary> {
  const row = await work.one<Omit<Summary, "registrations">>(
    `SELECT (SELECT coalesce(max(id), 0) FROM changes) AS stamp, name, country, currency,
       (SELECT count(*) FROM documents WHERE client_id = c.id AND state = 'posted') AS documents,
       (SELECT coalesce(json_group_array(json_object('name', name, 'country', country)), '[]') FROM places
        WHERE client_id = c.id) AS places,
       (SELECT min(next_on) FROM templates WHERE by_itself = 1 AND every IS NOT NULL
          AND (until IS NULL OR next_on <= until)) AS recursOn
     FROM clients c WHERE id = $1`,
    [client],
  );
  const registrations = await work.models.registrations.findAll({
    where: { clientId: client },
    ...work.options,
  });
  return { ...row, registrations: registrations.map((r) => r.get({ plain: true }) as RegistrationRecord) };
}
