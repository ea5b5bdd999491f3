import { at } from "@fiscalon/core/at";
import { mkdirSync } from "node:fs";
import { dirname } from "node:path";
import { QueryTypes, Sequelize, Transaction } from "sequelize";
import type { BindOrReplacements } from "sequelize";
import type sqlite3 from "sqlite3";
import { BulkInsert } from "./bulkInsert.ts";
import type { Row } from "./bulkInsert.ts";
import { Connections, KEPT_TO_WRITE_KB } from "./connections.ts";
import { defineModels } from "./models.ts";
import type { Models } from "./models.ts";
import { Memory } from "./memory.ts";
import { migrate } from "./migrate.ts";
import type { Migration } from "./migration.ts";
import { Readers } from "./readers.ts";
import type { Reading } from "./readers.ts";
import { sayOneWaits } from "./waiting.ts";

export type Bind = BindOrReplacements;
export type Tx = Transaction;

/** How a database is opened. */
interface Opening {
  /** Every shape it had, in order; none where it is taken as it is. */
  migrations: readonly Migration[];
  /** Told after each transaction that was committed here. */
  written?: () => void;
}

/**
 * One open database file: one writer, and a few readers, so that no read waits for a slow one. Reads go through rows
 * and row, every change through write.
 */
export class Database {
  readonly file: string;
  readonly sequelize: Sequelize;
  readonly models: Models;
  readonly memory: Memory;
  readonly #connections: Connections;
  readonly #readers: Readers;
  readonly #written: () => void;
  #lastWrite: Promise<unknown> = Promise.resolve();

  private constructor(file: string, sequelize: Sequelize, connections: Connections, written: () => void) {
    this.file = file;
    this.#connections = connections;
    this.sequelize = sequelize;
    this.models = defineModels(sequelize);
    this.memory = new Memory(() => this.#version());
    this.#readers = new Readers(sequelize);
    this.#written = written;
  }

  /** Opens (and where needed creates and migrates) a database file. */
  static async open(file: string, { migrations, written = () => undefined }: Opening): Promise<Database> {
    mkdirSync(dirname(file), { recursive: true });
    const connections = new Connections();
    const sequelize = new Sequelize({
      dialect: "sqlite",
      dialectModule: connections.driver,
      storage: file,
      logging: false,
      define: { timestamps: false, underscored: true },
    });
    try {
      await sequelize.query("PRAGMA journal_mode = WAL");
      if (migrations.length > 0) await migrate(sequelize, migrations, file);
    } catch (error) {
      await connections.close(sequelize);
      throw error;
    }
    return new Database(file, sequelize, connections, written);
  }

  /** Reads in a transaction, or beside all writing through a reader of its own. */
  async rows<T extends object>(sql: string, bind: Bind = [], tx?: Tx, reading?: Reading): Promise<T[]> {
    const options = { type: QueryTypes.SELECT as const, bind };
    if (tx) return this.sequelize.query<T>(sql, { ...options, transaction: tx });
    return this.#readers.read(reading, (reader) => this.sequelize.query<T>(sql, { ...options, ...reader }));
  }

  async row<T extends object>(
    sql: string,
    bind: Bind = [],
    tx?: Tx,
    reading?: Reading,
  ): Promise<T | undefined> {
    return (await this.rows<T>(sql, bind, tx, reading))[0];
  }

  async run(sql: string, bind: Bind, tx: Tx): Promise<void> {
    await this.sequelize.query(sql, { bind, transaction: tx });
  }

  /** Another number after each commit, of this process or another one: this connection itself never writes. */
  async #version(): Promise<number> {
    const rows = await this.sequelize.query<{ data_version: number }>("PRAGMA data_version", {
      type: QueryTypes.SELECT,
    });
    return at(rows, 0).data_version;
  }

  /** Runs `work` in one transaction, all or nothing. Writers of this process queue up instead of colliding. */
  async write<T>(work: (tx: Tx) => Promise<T>): Promise<T> {
    const next = this.#lastWrite.then(async () => {
      const ownTurn = sayOneWaits(this.file);
      const value = await this.sequelize
        .transaction({ type: Transaction.TYPES.IMMEDIATE }, async (tx) => {
          ownTurn();
          await this.run(`PRAGMA cache_size = -${KEPT_TO_WRITE_KB}`, [], tx);
          return work(tx);
        })
        .finally(ownTurn);
      this.#written();
      return value;
    });
    this.#lastWrite = next.catch(() => undefined);
    return next;
  }

  /** Reads what the file holds at one moment, whatever is written meanwhile. */
  snapshot<T>(read: (tx: Tx) => Promise<T>): Promise<T> {
    return this.sequelize.transaction({ type: Transaction.TYPES.DEFERRED }, read);
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

  /**
   * Waits for what is being written, and ends what is being read. Where nobody else has the file open everything is in
   * it then, and it can be moved without the log beside it.
   */
  async close(): Promise<void> {
    await this.#lastWrite;
    await this.#readers.end();
    await this.#connections.close(this.sequelize);
  }
}

export type BulkTable =
  | "documents"
  | "lines"
  | "entries"
  | "postings"
  | "facts"
  | "accounts"
  | "contacts"
  | "items"
  | "payments"
  | "allocations";
