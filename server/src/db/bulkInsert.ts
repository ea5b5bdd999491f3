import type sqlite3 from "sqlite3";
import { groupBy } from "@fiscalon/core/groupBy";

/** Rows a statement inserts, largest first: few sizes, so that each statement is prepared once and used again. */
const SIZES = [256, 64, 16, 4, 1];
/** Values a statement of SQLite may bind. */
const MOST_VALUES = 32_000;

export type Row = readonly unknown[];

/**
 * Inserts many rows through the driver's own prepared statements: Sequelize would search the text of every statement
 * for parameters. A value that is the same in all rows of a call is bound once a statement. Calls may overlap, so that
 * values are bound while earlier rows are written; rows of a call may then be written in any order, and whoever needs
 * one gives them ids.
 */
export class BulkInsert {
  readonly #connection: sqlite3.Database;
  readonly #statements = new Map<string, Promise<sqlite3.Statement>>();

  constructor(connection: sqlite3.Database) {
    this.#connection = connection;
  }

  /**
   * Inserts rows of equal shape. Columns that are null in all of them are left to their default.
   * @param alike columns that often repeat: rows that agree in them go together, so that these are bound once
   */
  async insert(
    table: string,
    columns: readonly string[],
    rows: readonly Row[],
    alike: readonly string[] = [],
  ): Promise<void> {
    if (alike.length === 0) return this.#insert(table, columns, rows);
    const places = alike.map((name) => columns.indexOf(name));
    const groups = groupBy(rows, (row) => places.map((at) => row[at]).join("\n"));
    await allDone([...groups.values()].map((group) => this.#insert(table, columns, group)));
  }

  async #insert(table: string, columns: readonly string[], rows: readonly Row[]): Promise<void> {
    const [first] = rows;
    if (!first) return;
    const same = columns.map((_, at) => rows.every((row) => row[at] === first[at]));
    const constant = columns.flatMap((_, at) => (same[at] && first[at] !== null ? [at] : []));
    const varying = columns.flatMap((_, at) => (same[at] ? [] : [at]));
    const used = [...constant, ...varying];
    if (used.length === 0) return;
    const names = used.map((at) => columns[at]).join(", ");
    const shared = constant.map((at) => first[at]);
    const work: Promise<void>[] = [];
    for (let at = 0; at < rows.length;) {
      const left = rows.length - at;
      const size =
        SIZES.find((one) => one <= left && one * varying.length + constant.length <= MOST_VALUES) ?? 1;
      const values = [...shared];
      for (const row of rows.slice(at, at + size)) for (const of of varying) values.push(bindable(row[of]));
      work.push(this.#run(insertText(table, names, constant.length, varying.length, size), values));
      at += size;
    }
    await allDone(work);
  }

  /** Lets go of the statements; the connection cannot be closed before. */
  async close(): Promise<void> {
    for (const prepared of this.#statements.values()) {
      const statement = await prepared.catch(() => null);
      await new Promise<void>((done) => (statement ? statement.finalize(() => done()) : done()));
    }
    this.#statements.clear();
  }

  async #run(sql: string, values: readonly unknown[]): Promise<void> {
    const statement = await this.#prepared(sql);
    await new Promise<void>((resolve, reject) => {
      statement.run(values, (error) => (error ? reject(error) : resolve()));
    });
  }

  #prepared(sql: string): Promise<sqlite3.Statement> {
    const known = this.#statements.get(sql);
    if (known) return known;
    const fresh = new Promise<sqlite3.Statement>((resolve, reject) => {
      const statement = this.#connection.prepare(sql, (error) =>
        error ? reject(error) : resolve(statement),
      );
    });
    this.#statements.set(sql, fresh);
    return fresh;
  }
}

/**
 * Whole numbers go as text: the driver asks of every value that is no text whether it is a regular expression before it
 * asks for a number, which costs more than all the rest. The column makes a number of it again.
 */
function bindable(value: unknown): unknown {
  return typeof value === "number" ? String(value) : value;
}

/** Waits for all, also where one fails: nothing of them may be under way when the transaction is undone. */
export async function allDone(work: readonly Promise<void>[]): Promise<void> {
  for (const outcome of await Promise.allSettled(work)) {
    if (outcome.status === "rejected") throw outcome.reason;
  }
}

const texts = new Map<string, string>();

function insertText(table: string, names: string, constant: number, varying: number, size: number): string {
  const key = `${table}|${names}|${constant}|${size}`;
  const known = texts.get(key);
  if (known !== undefined) return known;
  const shared = Array.from({ length: constant }, (_, at) => `?${at + 1}`);
  const rows = Array.from({ length: size }, (_, row) => {
    const places = Array.from({ length: varying }, (_, at) => `?${constant + row * varying + at + 1}`);
    return `(${[...shared, ...places].join(",")})`;
  });
  const text = `INSERT INTO ${table} (${names}) VALUES ${rows.join(",")}`;
  texts.set(key, text);
  return text;
}
