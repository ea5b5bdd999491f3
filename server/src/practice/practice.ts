import { timeZoneOf } from "@fiscalon/core/calendar/timeZone";
import { mkdirSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { notFound } from "../base/errors.ts";
import type { Law } from "../base/law.ts";
import { LawShelf } from "../base/lawShelf.ts";
import { syncFolder } from "../base/syncFolder.ts";
import { Work } from "../base/work.ts";
import type { Begun, Writing } from "../base/work.ts";
import { Database } from "../db/database.ts";
import { emptyBooks } from "../db/emptyBooks.ts";
import { PRACTICE_MIGRATIONS } from "../db/practice/firstPractice.ts";
import { ClientFiles } from "./clientFiles.ts";
import { BOOKS_FILE, CLIENTS, folderOfClient, PRACTICE_FILE } from "./clientFolder.ts";
import { Summaries } from "./summaries.ts";

/** Work on the books of a client, which are held until it is let go. */
export interface HeldWork {
  work: Work;
  letGo: () => void;
}

/** How a new client comes to be. */
export interface Making<T> {
  name: string;
  /** The job that makes it. */
  maker?: string;
  /** The law its books are made under, where it differs from that of the practice. */
  law?: Law;
  /** Fills the books, in one transaction. */
  fill: (work: Writing, client: number) => Promise<T>;
  /** What the practice notes of it, in the transaction from which on the client is there. */
  note?: (work: Writing, client: number) => Promise<void>;
}

/**
 * A practice: its own file, and one file a client. Whoever works on a client gets work that knows nothing else, so
 * nothing grows with the number of clients.
 */
export class Practice {
  readonly dataDir: string;
  readonly db: Database;
  readonly summaries: Summaries;
  readonly #law: LawShelf;
  readonly #files: ClientFiles;

  private constructor(dataDir: string, db: Database) {
    this.dataDir = dataDir;
    this.db = db;
    this.#law = new LawShelf(db);
    this.summaries = new Summaries(this);
    this.#files = new ClientFiles((client) => this.summaries.touch(client));
  }

  /**
   * Opens a practice, and makes it where there is none.
   * @param person the name of who works in a new one
   */
  static async open(dataDir: string, person: string): Promise<Practice> {
    const db = await Database.open(join(dataDir, PRACTICE_FILE), { migrations: PRACTICE_MIGRATIONS });
    await db.write((tx) =>
      db.run(
        "INSERT INTO people (name, role, created_at) SELECT $1, 'preparer', $2 WHERE NOT EXISTS (SELECT 1 FROM people)",
        [person, new Date().toISOString()],
        tx,
      ),
    );
    return new Practice(dataDir, db);
  }

  /** Begins work on the practice. Until sign-in exists there is one person. */
  async begin(begun: Begun = {}): Promise<Work> {
    return workOn(this.db, this.dataDir, await this.#law.law(), NOWHERE, begun);
  }

  /**
   * Begins work on the books of a client.
   * @throws FiscalError `request/not-found`, `client/folder-missing`, `client/damaged`
   */
  async hold(client: number, begun: Begun = {}): Promise<HeldWork> {
    return this.#hold(client, begun, false);
  }

  async #hold(client: number, begun: Begun, passing: boolean): Promise<HeldWork> {
    const { folder, stamp } = await this.#known(client);
    const { db, letGo } = await this.#files.hold(client, folder, stamp, passing);
    try {
      return { work: workOn(db, folder, await this.#law.law(), await zoneOf(db), begun), letGo };
    } catch (error) {
      letGo();
      throw error;
    }
  }

  /** Runs work on the books of a client. */
  async onClient<T>(client: number, run: (work: Work) => Promise<T>, begun: Begun = {}): Promise<T> {
    return runHeld(await this.#hold(client, begun, false), run);
  }

  /** The same for who goes through many clients: the books are closed behind, unless somebody works on them. */
  async inPassing<T>(client: number, run: (work: Work) => Promise<T>): Promise<T> {
    return runHeld(await this.#hold(client, {}, true), run);
  }

  /** Every client, by id. */
  async clients(): Promise<{ id: number; name: string }[]> {
    return this.db.rows("SELECT id, name FROM clients WHERE state = 'ready' ORDER BY id");
  }

  /**
   * Makes a client, all or nothing: its number is reserved, its books are filled in a folder of their own, and with the
   * last transaction, that of the practice, it is there. A kill before leaves a folder nobody knows, which the next start
   * clears away.
   */
  async make<T>(
    work: Work,
    { name, maker, law = work.law, fill, note }: Making<T>,
  ): Promise<{ client: number; made: T }> {
    const client = await this.#reserve(work, name, maker ?? null);
    const folder = join(this.dataDir, folderOfClient(client));
    try {
      mkdirSync(folder, { recursive: true });
      writeFileSync(join(folder, BOOKS_FILE), await emptyBooks(), { flush: true });
      const { person, at } = work;
      const { db, letGo } = await this.#files.hold(client, folder, 0);
      try {
        await this.#bringPeople(db);
        const made = await workOn(db, folder, law, NOWHERE, { person, at }).write((books) =>
          fill(books, client),
        );
        syncFolder(folder);
        syncFolder(join(this.dataDir, CLIENTS));
        await work.write(async (practice) => {
          await note?.(practice, client);
          const making = await practice.row("SELECT 1 FROM clients WHERE id = $1 AND state = 'making'", [
            client,
          ]);
          if (!making) throw new Error(`The making of client ${client} was given up meanwhile.`);
          await practice.run("UPDATE clients SET state = 'ready' WHERE id = $1", [client]);
          await practice.record({ action: "create", entity: "client", id: client, after: { name } });
          return client;
        });
        this.summaries.touch(client);
        return { client, made };
      } finally {
        letGo();
      }
    } catch (error) {
      await this.#unmake(client);
      throw error;
    }
  }

  /**
   * Clears away clients whose making was broken off.
   * @param maker the job that made them; all where none is said
   */
  async clear(maker?: string): Promise<void> {
    const rows = await this.db.rows<{ id: number }>(
      "SELECT id FROM clients WHERE state = 'making' AND ($1 IS NULL OR maker = $1)",
      [maker ?? null],
    );
    for (const { id } of rows) await this.#unmake(id);
  }

  /** Lets the files of a client go, so that its folder can be taken away or exchanged. */
  async closeClient(client: number): Promise<void> {
    await this.#files.close(client);
  }

  async close(): Promise<void> {
    await this.summaries.end();
    await this.#files.closeAll();
    await this.db.close();
  }

  async #known(client: number): Promise<{ folder: string; stamp: number }> {
    const row = await this.db.row<{ folder: string; stamp: number | null }>(
      `SELECT c.folder, s.stamp FROM clients c LEFT JOIN client_summaries s ON s.client_id = c.id
       WHERE c.id = $1 AND c.state = 'ready'`,
      [client],
    );
    if (!row) throw notFound("This client");
    return { folder: join(this.dataDir, row.folder), stamp: row.stamp ?? 0 };
  }

  /** Reserved ids are given out once: the row comes first, and its folder is named after it. */
  #reserve(work: Work, name: string, maker: string | null): Promise<number> {
    return this.db.write(async (tx) => {
      await this.db.run(
        `INSERT INTO clients (name, folder, state, maker, created_at, created_by)
         VALUES ($1, '', 'making', $2, $3, $4)`,
        [name, maker, work.at, work.person],
        tx,
      );
      const [{ id = 0 } = {}] = await this.db.rows<{ id: number }>(
        "SELECT last_insert_rowid() AS id",
        [],
        tx,
      );
      await this.db.run("UPDATE clients SET folder = $2 WHERE id = $1", [id, folderOfClient(id)], tx);
      return id;
    });
  }

  async #unmake(client: number): Promise<void> {
    await this.#files.close(client);
    rmSync(join(this.dataDir, folderOfClient(client)), { recursive: true, force: true });
    await this.db.write((tx) => this.db.run("DELETE FROM clients WHERE id = $1", [client], tx));
  }

  /** The people of the practice are in each client's books, which stay whole where they are moved to. */
  async #bringPeople(books: Database): Promise<void> {
    const people = await this.db.rows<{ id: number; name: string; role: string; at: string }>(
      "SELECT id, name, role, created_at AS at FROM people",
    );
    await books.write(async (tx) => {
      for (const { id, name, role, at } of people)
        await books.run(
          "INSERT OR REPLACE INTO people (id, name, role, created_at) VALUES ($1, $2, $3, $4)",
          [id, name, role, at],
          tx,
        );
    });
  }
}

async function runHeld<T>({ work, letGo }: HeldWork, run: (work: Work) => Promise<T>): Promise<T> {
  try {
    return await run(work);
  } finally {
    letGo();
  }
}

function workOn(db: Database, folder: string, law: Law, zone: string, begun: Begun): Work {
  return new Work({ db, folder, law, zone, person: 1, at: new Date().toISOString() }).begun(begun);
}

/** The time zone of a practice: it has clients anywhere. */
const NOWHERE = "UTC";

/** The time zone of the first place of a client, which is where it is. */
function zoneOf(db: Database): Promise<string> {
  return db.memory.remembered("time zone", async () => {
    const [place] = await db.rows<{ country: string; region: string | null }>(
      `SELECT coalesce(p.country, c.country) AS country, p.region FROM clients c LEFT JOIN places p ON p.client_id = c.id
       ORDER BY p.closed_on IS NOT NULL, p.id LIMIT 1`,
    );
    return place ? timeZoneOf(place.country, place.region) : NOWHERE;
  });
}
