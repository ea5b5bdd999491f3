import { mkdirSync, mkdtempSync, readdirSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, expect, test } from "vitest";
import { Database } from "../dist/db/database.js";

const folder = mkdtempSync(join(tmpdir(), "fiscalon-readers-"));
let db: Database;
beforeAll(async () => {
  db = await Database.open(join(folder, "sample.sqlite"), { migrations: [] });
  await db.write((tx) => db.run("CREATE TABLE sample (id INTEGER PRIMARY KEY, value INTEGER)", [], tx));
});
afterAll(async () => {
  await db.close();
  rmSync(folder, { recursive: true, force: true });
});

/** Counts for far longer than a test lasts. */
const ENDLESS = "WITH RECURSIVE c(x) AS (SELECT 1 UNION ALL SELECT x + 1 FROM c) SELECT max(x) AS x FROM c";

test("a read whose request is gone is interrupted, one that takes too long is stopped and told", async () => {
  const gone = new AbortController();
  const endless = db.rows(ENDLESS, [], undefined, { signal: gone.signal });
  setTimeout(() => gone.abort(), 50);
  await expect(endless).rejects.toMatchObject({ code: "request/given-up" });
  await expect(db.rows(ENDLESS, [], undefined, { limitMs: 80 })).rejects.toMatchObject({
    code: "request/took-too-long",
  });
});

test("slow reads hold up neither other reads nor writing; those that wait for a reader get one", async () => {
  const gone = new AbortController();
  const slow = [1, 2].map(() => db.rows(ENDLESS, [], undefined, { signal: gone.signal }));
  await db.write((tx) => db.run("INSERT INTO sample (value) VALUES ($1)", [7], tx));
  const quick = Array.from({ length: 20 }, () => db.rows<{ value: number }>("SELECT value FROM sample"));
  expect((await Promise.all(quick)).flat()).toEqual(Array.from({ length: 20 }, () => ({ value: 7 })));
  gone.abort();
  expect((await Promise.allSettled(slow)).map(({ status }) => status)).toEqual(["rejected", "rejected"]);
});

test("what is read at one moment stays as it was, whatever is written meanwhile", async () => {
  const count = "SELECT count(*) AS count FROM sample";
  const counts = await db.snapshot(async (tx) => {
    const before = await db.rows<{ count: number }>(count, [], tx);
    await db.write((own) => db.run("INSERT INTO sample (value) VALUES (8)", [], own));
    return [before, await db.rows<{ count: number }>(count, [], tx)];
  });
  expect(counts[1]).toEqual(counts[0]);
  expect(await db.rows(count)).toEqual([{ count: 2 }]);
});

test("what was worked out is given again until something is written, here or elsewhere, and shared by who asks at once", async () => {
  let times = 0;
  const ask = () => db.memory.remembered("sum", async () => ({ times: (times += 1) }));
  expect(await Promise.all([ask(), ask(), ask()])).toEqual([{ times: 1 }, { times: 1 }, { times: 1 }]);
  await db.write((tx) => db.run("INSERT INTO sample (value) VALUES (9)", [], tx));
  expect(await ask()).toEqual({ times: 2 });
  const elsewhere = await Database.open(db.file, { migrations: [] });
  await elsewhere.write((tx) => elsewhere.run("INSERT INTO sample (value) VALUES (10)", [], tx));
  await elsewhere.close();
  expect(await ask()).toEqual({ times: 3 });
  await expect(db.memory.remembered("failing", () => Promise.reject(new Error("not today")))).rejects.toThrow(
    "not today",
  );
  expect(await db.memory.remembered("failing", async () => "better")).toBe("better");
});

test("what was closed is one file, with everything in it, however many read and wrote a moment before", async () => {
  for (let round = 0; round < 20; round += 1) {
    const own = join(folder, `closed-${round}`);
    mkdirSync(own);
    const closed = await Database.open(join(own, "sample.sqlite"), { migrations: [] });
    await closed.write((tx) => closed.run("CREATE TABLE sample (value INTEGER)", [], tx));
    const reads = [1, 2, 3].map(() => closed.rows("SELECT value FROM sample"));
    const moment = closed.snapshot((tx) => closed.rows("SELECT value FROM sample", [], tx));
    await Promise.all([...reads, moment]);
    await closed.write((tx) => closed.run("INSERT INTO sample VALUES ($1)", [round], tx));
    await closed.close();
    expect(readdirSync(own)).toEqual(["sample.sqlite"]);
  }
});
