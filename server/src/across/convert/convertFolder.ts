import { existsSync, mkdirSync, renameSync, rmSync } from "node:fs";
import { join } from "node:path";
import { isDeepStrictEqual } from "node:util";
import { syncFolder } from "../../base/syncFolder.ts";
import { Database } from "../../db/database.ts";
import { BOOKS_MIGRATIONS } from "../../db/books/firstBooks.ts";
import { OLDER_MIGRATIONS } from "../../db/older/index.ts";
import { PRACTICE_MIGRATIONS } from "../../db/practice/firstPractice.ts";
import { BOOKS_FILE, CLIENTS, folderOfClient, PRACTICE_FILE } from "../../practice/clientFolder.ts";
import { chainOfClient, chainOfPractice } from "./chains.ts";
import { copyRows } from "./copyRows.ts";
import { linkPapers } from "./linkPapers.ts";
import { figuresOf } from "./figures.ts";

/** The one database of a practice in the shape before. */
export const OLDER_FILE = "fiscalon.sqlite";
/** Where it stays, with its papers. */
const KEPT = "before-one-file-a-client";
const UNFINISHED = "converting.unfinished";

/**
 * Makes a file a client out of the one database of a practice. Everything is made beside it and compared, client by
 * client, before it takes its place; then the older database and its papers move into a folder of their own. It can be
 * killed at any moment and begins again, or ends what was left of moving.
 * @param told what is done, in words
 * @throws Error in words where the figures differ; nothing was changed then
 */
export async function convertFolder(dataDir: string, told: (words: string) => void): Promise<void> {
  if (existsSync(join(dataDir, PRACTICE_FILE))) return setAside(dataDir);
  told(
    `${dataDir} has one database for all clients. Each client gets a file of its own; the database is kept.`,
  );
  const unfinished = join(dataDir, UNFINISHED);
  for (const left of [UNFINISHED, CLIENTS]) rmSync(join(dataDir, left), { recursive: true, force: true });
  mkdirSync(join(unfinished, CLIENTS), { recursive: true });
  const older = await Database.open(join(dataDir, OLDER_FILE), { migrations: OLDER_MIGRATIONS });
  try {
    const clients = await older.rows<{ id: number; name: string }>(
      "SELECT id, name FROM clients ORDER BY id",
    );
    const chain = await convertPractice(older, join(unfinished, PRACTICE_FILE));
    for (const [index, { id, name }] of clients.entries()) {
      await convertClient(older, dataDir, unfinished, id, chain);
      told(`${index + 1} of ${clients.length}: ${name}, the same figures`);
    }
  } finally {
    await older.close();
  }
  syncFolder(unfinished);
  renameSync(join(unfinished, CLIENTS), join(dataDir, CLIENTS));
  renameSync(join(unfinished, PRACTICE_FILE), join(dataDir, PRACTICE_FILE));
  syncFolder(dataDir);
  setAside(dataDir);
}

/** Moves the older database and its papers aside: the practice is there already. */
function setAside(dataDir: string): void {
  mkdirSync(join(dataDir, KEPT), { recursive: true });
  for (const name of ["files", `${OLDER_FILE}-wal`, `${OLDER_FILE}-shm`, OLDER_FILE])
    if (existsSync(join(dataDir, name))) renameSync(join(dataDir, name), join(dataDir, KEPT, name));
  rmSync(join(dataDir, UNFINISHED), { recursive: true, force: true });
  syncFolder(dataDir);
}

/** @returns the end of the older audit trail, which the new ones begin with */
async function convertPractice(older: Database, file: string): Promise<string> {
  const practice = await Database.open(file, { migrations: PRACTICE_MIGRATIONS });
  try {
    await copyRows(practice, older.file, {
      people: "TRUE",
      jurisdictions: "TRUE",
      law_changes: "TRUE",
      authority_submissions: "TRUE",
      simulated_bank_lines: "TRUE",
      simulated_merchants: "TRUE",
      once_keys: "request NOT LIKE '% /api/clients/%'",
    });
    const list = await older.rows<{ id: number; name: string; at: string; by: number }>(
      "SELECT id, name, created_at AS at, created_by AS by FROM clients ORDER BY id",
    );
    await practice.write(async (tx) => {
      for (const { id, name, at, by } of list)
        await practice.run(
          `INSERT INTO clients (id, name, folder, state, created_at, created_by) VALUES ($1, $2, $3, 'ready', $4, $5)`,
          [id, name, folderOfClient(id), at, by],
          tx,
        );
    });
    const chain = await chainOfPractice(older, practice);
    return chain;
  } finally {
    await practice.close();
  }
}

async function convertClient(
  older: Database,
  dataDir: string,
  unfinished: string,
  client: number,
  chain: string,
): Promise<void> {
  const folder = join(unfinished, folderOfClient(client));
  const books = await Database.open(join(folder, BOOKS_FILE), { migrations: BOOKS_MIGRATIONS });
  try {
    await copyRows(books, older.file, {
      people: "TRUE",
      clients: `id = ${client}`,
      once_keys: `request LIKE '% /api/clients/${client}/%'`,
      "*": client,
    });
    await chainOfClient(older, books, client, chain);
    await linkPapers(books, dataDir, folder);
    const [was, is] = [await figuresOf(older, client), await figuresOf(books, client)];
    if (!isDeepStrictEqual(was, is)) {
      const table = Object.keys(was).find((key) => !isDeepStrictEqual(was[key], is[key]));
      throw new Error(
        `Client ${client} would not have the same figures (${table}) in a file of its own. Nothing was changed.`,
      );
    }
  } finally {
    await books.close();
  }
}
