import { at } from "@fiscalon/core/at";
import { mkdirSync } from "node:fs";
import { join } from "node:path";
import { QueryTypes, Sequelize, Transaction } from "sequelize";
import type { BindOrReplacements } from "sequelize";
import sqlite3 from "sqlite3";
import { BulkInsert } from "./bulkInsert.ts";
import type { Row } from "./bulkInsert.ts";
import { defineModels } from "./models.ts";
import type { Models } from "./models.ts";
import { migrate } from "./migrate.ts";

/** How long a writer waits for another one, also in another thread, before giving up. */
const BUSY_MS = 120_000;

class PatientDatabase extends sqlite3.Database {
  constructor(file: string, mode?: number, done?: (error: Error | null) => void) {
    super(file, mode, done);
    this.configure("busyTimeout", BUSY_MS);
    this.exec("PRAGMA cache_size = -131072; PRAGMA synchronous = FULL; PRAGMA temp_store = MEMORY");
  }
}

export type Bind = BindOrReplacements;
export type Tx = Transaction;

/** One open database file. Reads go through rows and row, every change through write. */
export class Database {
  readonly sequelize: Sequelize;
  readonly models: Models;
  #lastWrite: Promise<unknown> = Promise.resolve();

  private constructor(sequelize: Sequelize) {
    this.sequelize = sequelize;
    this.models = defineModels(sequelize);
  }

  /** Opens (and where needed creates and migrates) the database in a folder. */
  static async open(dataDir: string, person: string): Promise<Database> {
    mkdirSync(dataDir, { recursive: true });
    const sequelize = new Sequelize({
      dialect: "sqlite",
      dialectModule: { ...sqlite3, Database: PatientDatabase },
      storage: join(dataDir, "fiscalon.sqlite"),
      logging: false,
      define: { timestamps: false, underscored: true },
    });
    await sequelize.query("PRAGMA journal_mode = WAL");
    await migrate(sequelize, person, dataDir);
    return new Database(sequelize);
  }

  async rows<T extends object>(sql: string, bind: Bind = [], tx?: Tx): Promise<T[]> {
    return this.sequelize.query<T>(sql, {
      type: QueryTypes.SELECT,
      bind,
      ...(tx ? { transaction: tx } : {}),
    });
  }

  async row<T extends object>(sql: string, bind: Bind = [], tx?: Tx): Promise<T | undefined> {
    return (await this.rows<T>(sql, bind, tx))[0];
  }

  async run(sql: string, bind: Bind, tx: Tx): Promise<void> {
    await this.sequelize.query(sql, { bind, transaction: tx });
  }

  /** Runs `work` in one transaction, all or nothing. Writers of this process queue up instead of colliding. */
  async write<T>(work: (tx: Tx) => Promise<T>): Promise<T> {
    const next = this.#lastWrite.then(() =>
      this.sequelize.transaction({ type: Transaction.TYPES.IMMEDIATE }, work),
    );
    this.#lastWrite = next.catch(() => undefined);
    return next;
  }

  /** The highest id in a table; ids of rows inserted in bulk are given out from here, inside a transaction. */
  async lastId(table: BulkTable, tx: Tx): Promise<number> {
    const rows = await this.rows<{ id: number }>(`SELECT coalesce(max(id), 0) AS id FROM ${table}`, [], tx);
    return at(rows, 0).id;
  }

  /** Inserts rows of equal shape; see BulkInsert. */
  async insertRows(
    table: BulkTable,
    columns: readonly string[],
    rows: readonly Row[],
    tx: Tx,
  ): Promise<void> {
    await this.bulk(tx, (bulk) => bulk.insert(table, columns, rows));
  }

  /** Many rows in several tables, with statements that are prepared once. */
  async bulk<T>(tx: Tx, work: (bulk: BulkInsert) => Promise<T>): Promise<T> {
    const bulk = new BulkInsert((tx as Tx & { connection: sqlite3.Database }).connection);
    try {
      return await work(bulk);
    } finally {
      await bulk.close();
    }
  }

  async close(): Promise<void> {
    await this.#lastWrite;
    await this.sequelize.close();
  }
}

export type BulkTable =
  "documents" | "lines" | "entries" | "postings" | "facts" | "contacts" | "payments" | "allocations";
