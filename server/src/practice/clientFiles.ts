import { existsSync } from "node:fs";
import { join } from "node:path";
import { FiscalError } from "@fiscalon/core/errors";
import { BOOKS_MIGRATIONS } from "../db/books/firstBooks.ts";
import { Database } from "../db/database.ts";
import { BOOKS_FILE } from "./clientFolder.ts";
import { damagedBooks, refuseDamaged } from "./refuseDamaged.ts";

/** So many files are open at once, as long as not more are worked on. */
const MOST_OPEN = 100;
/** A file nobody works on is closed after so long. */
const IDLE_MS = 5 * 60_000;

interface OpenFile {
  db: Promise<Database>;
  /** How many work on it. */
  held: number;
  /** Whether somebody works on this client, and may come again soon; who only passes by leaves it closed behind. */
  kept: boolean;
  usedAt: number;
}

/** Held books of a client: they stay open until they are let go. */
export interface HeldBooks {
  db: Database;
  letGo: () => void;
}

/**
 * The books of clients, each a file of its own, opened when somebody works on it and closed when nobody has for a while.
 * Two that work on one client share one opened file, so its writers queue up; those of two clients know nothing of each
 * other.
 */
export class ClientFiles {
  readonly #written: (client: number) => void;
  readonly #open = new Map<number, OpenFile>();
  readonly #sound = new Set<number>();
  readonly #damaged = new Map<number, FiscalError>();
  readonly #closing = new Set<Promise<void>>();
  readonly #timer: NodeJS.Timeout;

  /** @param written told of each client whose books were changed here */
  constructor(written: (client: number) => void) {
    this.#written = written;
    this.#timer = setInterval(() => this.#closeIdle(), 30_000).unref();
  }

  /**
   * @param folder the client's folder
   * @param stamp the last entry of its audit trail that the practice knows of
   * @param passing whether this is one of many clients that are gone through
   * @throws FiscalError `client/folder-missing`, `client/damaged`
   */
  async hold(client: number, folder: string, stamp: number, passing = false): Promise<HeldBooks> {
    const damage = this.#damaged.get(client);
    if (damage) throw damage;
    const file = this.#open.get(client) ?? this.#begin(client, folder, stamp);
    file.held += 1;
    file.kept ||= !passing;
    let held = true;
    const letGo = () => {
      if (!held) return;
      held = false;
      file.held -= 1;
      file.usedAt = Date.now();
      if (file.held === 0 && !file.kept && this.#open.get(client) === file) this.#closeSoon(client);
      else this.#closeBeyond();
    };
    try {
      return { db: await file.db, letGo };
    } catch (error) {
      this.#open.delete(client);
      letGo();
      throw error;
    }
  }

  /** Closes the books of a client that nobody works on. */
  async close(client: number): Promise<void> {
    const file = this.#open.get(client);
    if (!file) return;
    this.#open.delete(client);
    await (await file.db).close();
  }

  async closeAll(): Promise<void> {
    clearInterval(this.#timer);
    await Promise.all([...this.#open.keys()].map((client) => this.close(client)));
    await Promise.all(this.#closing);
  }

  #begin(client: number, folder: string, stamp: number): OpenFile {
    const file: OpenFile = {
      db: this.#opened(client, folder, stamp),
      held: 0,
      kept: false,
      usedAt: Date.now(),
    };
    this.#open.set(client, file);
    return file;
  }

  async #opened(client: number, folder: string, stamp: number): Promise<Database> {
    const path = join(folder, BOOKS_FILE);
    if (!existsSync(path)) {
      throw new FiscalError(
        "client/folder-missing",
        `The books of this client are not in ${folder}. Bring the folder back, or restore a copy of it.`,
      );
    }
    const written = () => this.#written(client);
    const db = await Database.open(path, { migrations: BOOKS_MIGRATIONS, written }).catch((error: Error) => {
      throw /SQLITE_(NOTADB|CORRUPT)/.test(error.message) ? damagedBooks(folder, error.message) : error;
    });
    if (this.#sound.has(client)) return db;
    try {
      await refuseDamaged(db, folder, stamp, (error) => this.#damaged.set(client, error));
    } catch (error) {
      await db.close();
      throw error;
    }
    this.#sound.add(client);
    return db;
  }

  #closeIdle(): void {
    const long = Date.now() - IDLE_MS;
    for (const [client, { held, usedAt }] of this.#open)
      if (held === 0 && usedAt < long) this.#closeSoon(client);
  }

  #closeBeyond(): void {
    if (this.#open.size <= MOST_OPEN) return;
    const idle = [...this.#open]
      .filter(([, { held }]) => held === 0)
      .sort(([, a], [, b]) => a.usedAt - b.usedAt);
    for (const [client] of idle.slice(0, this.#open.size - MOST_OPEN)) this.#closeSoon(client);
  }

  #closeSoon(client: number): void {
    const closing = this.close(client).finally(() => this.#closing.delete(closing));
    this.#closing.add(closing);
  }
}
