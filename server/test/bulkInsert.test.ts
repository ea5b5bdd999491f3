import fc from "fast-check";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, expect, test } from "vitest";
import { Database } from "../dist/db/database.js";

const dataDir = mkdtempSync(join(tmpdir(), "fiscalon-bulk-"));
let db: Database;
beforeAll(async () => {
  db = await Database.open(join(dataDir, "sample.sqlite"), { migrations: [] });
  await db.write((tx) =>
    db.run(
      "CREATE TABLE sample (id INTEGER PRIMARY KEY, whole INTEGER, text TEXT, kind TEXT NOT NULL DEFAULT 'usual', twice INTEGER AS (whole * 2) STORED)",
      [],
      tx,
    ),
  );
});
afterAll(async () => {
  await db.close();
  rmSync(dataDir, { recursive: true, force: true });
});

const COLUMNS = ["id", "whole", "text", "kind"];
const row = fc.record({
  whole: fc.option(fc.maxSafeInteger()),
  text: fc.option(fc.oneof(fc.string(), fc.constantFrom("007", "1e3", "-0", "1.50", "' OR 1=1 --"))),
  kind: fc.constantFrom("a", "b", "c"),
});

test("any rows come out as they went in: numbers as numbers, text as text, whatever repeats", async () => {
  let first = 1;
  await fc.assert(
    fc.asyncProperty(fc.array(row, { minLength: 1, maxLength: 700 }), fc.boolean(), async (rows, grouped) => {
      const from = first;
      first += rows.length;
      const values = rows.map(({ whole, text, kind }, at) => [from + at, whole, text, kind]);
      await db.write((tx) =>
        db.bulk(tx, (bulk) => bulk.insert("sample", COLUMNS, values, grouped ? ["kind"] : [])),
      );
      const read = await db.rows("SELECT * FROM sample WHERE id >= $1 ORDER BY id", [from]);
      expect(read).toEqual(
        rows.map(({ whole, text, kind }, at) => ({
          id: from + at,
          whole,
          text,
          kind,
          twice: whole === null ? null : expect.any(Number),
        })),
      );
    }),
    { numRuns: 40 },
  );
});

test("a column that is null throughout is left to its default; one bad row undoes all and leaves the writer usable", async () => {
  const before = await db.row<{ count: number }>("SELECT count(*) AS count FROM sample");
  await db.write((tx) => db.bulk(tx, (bulk) => bulk.insert("sample", COLUMNS, [[5_000_001, 1, null, null]])));
  expect(await db.row("SELECT kind FROM sample WHERE id = 5000001")).toEqual({ kind: "usual" });
  const doubled = [
    [5_000_002, 1, "x", "a"],
    [5_000_001, 2, "y", "b"],
    ...Array.from({ length: 600 }, (_, n) => [6_000_000 + n, n, "z", "c"]),
  ];
  await expect(
    db.write((tx) => db.bulk(tx, (bulk) => bulk.insert("sample", COLUMNS, doubled))),
  ).rejects.toThrow(/UNIQUE/);
  const after = await db.row<{ count: number }>("SELECT count(*) AS count FROM sample");
  expect(after?.count).toBe((before?.count ?? 0) + 1);
  await db.write((tx) =>
    db.bulk(tx, (bulk) => bulk.insert("sample", COLUMNS, [[7_000_000, 1, "again", "a"]])),
  );
  expect(await db.row("SELECT text FROM sample WHERE id = 7000000")).toEqual({ text: "again" });
});
