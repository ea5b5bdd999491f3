import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { BOOKS_MIGRATIONS } from "./books/firstBooks.ts";
import { Database } from "./database.ts";

let made: Promise<Buffer> | undefined;

/** The bytes of books with nothing in them, in the newest shape: worked out once, for every client that is made. */
export function emptyBooks(): Promise<Buffer> {
  made ??= make();
  return made;
}

async function make(): Promise<Buffer> {
  const folder = mkdtempSync(join(tmpdir(), "fiscalon-empty-"));
  try {
    const file = join(folder, "books.sqlite");
    const db = await Database.open(file, { migrations: BOOKS_MIGRATIONS });
    await db.close();
    return readFileSync(file);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
