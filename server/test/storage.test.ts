import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { expect, test } from "vitest";
import { storageTrouble } from "../dist/base/storageTrouble.js";
import { BOOKS_MIGRATIONS } from "../dist/db/books/firstBooks.js";
import { Database } from "../dist/db/database.js";

test("a full disk is told as one, nothing of what was begun stays, and with room it goes on", async () => {
  const folder = mkdtempSync(join(tmpdir(), "fiscalon-full-"));
  const db = await Database.open(join(folder, "books.sqlite"), { migrations: BOOKS_MIGRATIONS });
  const insert = (name: string, pages: number) =>
    db.write(async (tx) => {
      // The database says the same of a file that may not grow and of a disk that is full.
      await db.run(`PRAGMA max_page_count = ${pages}`, [], tx);
      for (let n = 0; n < 200; n += 1)
        await db.run(
          "INSERT INTO people (name, role, created_at) VALUES ($1, 'preparer', '2026-11-30')",
          [name.padEnd(4000, ".")],
          tx,
        );
    });
  const people = async () => (await db.rows<{ n: number }>("SELECT count(*) AS n FROM people")).at(0)?.n;
  try {
    const before = await people();
    const error: unknown = await insert("full", 1).catch((reason: unknown) => reason);
    expect(storageTrouble(error)).toBe("server/disk-full");
    expect(await people()).toBe(before);
    await insert("room", 1_000_000);
    expect(await people()).toBe((before ?? 0) + 200);
  } finally {
    await db.close();
    rmSync(folder, { recursive: true, force: true });
  }
});

test.each([
  ["ENOSPC", "server/disk-full"],
  ["EROFS", "server/no-rights"],
  ["EACCES", "server/no-rights"],
  ["EIO", "server/disk-failed"],
  ["ECONNRESET", null],
])("what the system calls %s is told as %s", (code, told) => {
  expect(storageTrouble(Object.assign(new Error("write"), { code }))).toBe(told);
});
