import { randomUUID } from "node:crypto";
import {
  closeSync,
  copyFileSync,
  fsyncSync,
  linkSync,
  mkdirSync,
  openSync,
  renameSync,
  rmSync,
  writeFileSync,
} from "node:fs";
import { dirname, join } from "node:path";
import sqlite3 from "sqlite3";
import { BulkInsert } from "../db/bulkInsert.ts";
import { syncFolder } from "./syncFolder.ts";

/** How the names of files end that are being written, or posted. */
export const UNFINISHED = ".part";

/** Tables as they are staged: by name their columns, each with its type. */
export type StagedTables = Readonly<Record<string, readonly { name: string; type: string }[]>>;

/**
 * Writes finished rows to a file beside the books, while nothing in these is locked. It gets its name once it is whole
 * and on the disk: one that is there can be trusted, what a killed process left cannot be taken for it.
 * @param write gives its value, and whether the rows are to be kept
 */
export async function writeStaging<T>(
  path: string,
  tables: StagedTables,
  write: (bulk: BulkInsert) => Promise<{ value: T; keep: boolean }>,
): Promise<T> {
  mkdirSync(dirname(path), { recursive: true });
  // A name of its own: two who stage the same at once write two files, and the last one that is whole stays.
  const unfinished = `${path}.${randomUUID()}${UNFINISHED}`;
  try {
    const { value, keep } = await filled(unfinished, tables, write);
    if (keep) keepFinished(unfinished, path);
    return value;
  } finally {
    rmSync(unfinished, { force: true });
  }
}

async function filled<T>(
  path: string,
  tables: StagedTables,
  write: (bulk: BulkInsert) => Promise<T>,
): Promise<T> {
  const file = await opened(path);
  try {
    await exec(
      file,
      "PRAGMA journal_mode = OFF; PRAGMA synchronous = OFF; PRAGMA locking_mode = EXCLUSIVE; BEGIN",
    );
    for (const [table, columns] of Object.entries(tables))
      await exec(file, `CREATE TABLE ${table} (${columns.map(columnOf).join(", ")})`);
    const bulk = new BulkInsert(file);
    const value = await write(bulk).finally(() => bulk.close());
    await exec(file, "COMMIT");
    return value;
  } finally {
    await close(file);
  }
}

/**
 * Writes a text to a file of its own beside the books, for who reads it next and takes it away; one that is left behind
 * goes with what was left of staging.
 * @returns its path
 */
export function passingFile(folder: string, text: string): string {
  const staging = stagingFolder(folder);
  mkdirSync(staging, { recursive: true });
  const path = join(staging, `${randomUUID()}${UNFINISHED}`);
  writeFileSync(path, text);
  return path;
}

/** Where files lie that are being made for one use: in the client's folder, beside the books. */
export function stagingFolder(folder: string): string {
  return join(folder, "staging");
}

/**
 * Gives a staging file a second name, for who posts it: whoever takes the first one away, or stages anew, does not take
 * it from under them.
 * @returns the second name; null where there is no such file
 */
export function claimStaging(path: string): string | null {
  const claimed = `${path}.${randomUUID()}${UNFINISHED}`;
  try {
    linkSync(path, claimed);
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === "ENOENT") return null;
    // Not every file system knows second names.
    copyFileSync(path, claimed);
  }
  return claimed;
}

function keepFinished(unfinished: string, path: string): void {
  const open = openSync(unfinished, "r+");
  try {
    fsyncSync(open);
  } finally {
    closeSync(open);
  }
  renameSync(unfinished, path);
  syncFolder(dirname(path));
}

function columnOf({ name, type }: { name: string; type: string }): string {
  return `"${name}" ${type}${name === "id" ? " PRIMARY KEY" : ""}`;
}

function opened(path: string): Promise<sqlite3.Database> {
  return new Promise((resolve, reject) => {
    const file: sqlite3.Database = new sqlite3.Database(path, (error) =>
      error ? reject(error) : resolve(file),
    );
  });
}

function exec(file: sqlite3.Database, sql: string): Promise<void> {
  return new Promise((resolve, reject) => file.exec(sql, (error) => (error ? reject(error) : resolve())));
}

function close(file: sqlite3.Database): Promise<void> {
  return new Promise((resolve, reject) => file.close((error) => (error ? reject(error) : resolve())));
}
