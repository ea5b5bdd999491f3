import { spawn } from "node:child_process";
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { gunzipSync } from "node:zlib";
import { afterEach, beforeEach, expect, test } from "vitest";
import { Database } from "../dist/db/database.js";
import { OLDER_MIGRATIONS } from "../dist/db/older/index.js";
import { expectBanksApart } from "./support/banksApart.ts";
import { expectKeptSums, expectPartiesApart } from "./support/keptSums.ts";
import { kill, startProcess } from "./support/process.ts";
import { document, startServer } from "./support/testServer.ts";

/** A practice as the last version with one database for all clients left it. */
const ONE_DATABASE = new URL("./shapes/2026-11-30-one-database.sqlite.gz", import.meta.url);
/** What that version itself answered: boxes of returns and trial balances of its clients. */
const ANSWERS = new URL("./shapes/2026-11-30-one-database.json", import.meta.url);

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), "fiscalon-older-"));
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const older = (file: string) => Database.open(join(folder, file), { migrations: OLDER_MIGRATIONS });

/** Runs a program that ends by itself, and kills it after a while. */
async function killedAfter(script: string, ms: number): Promise<void> {
  const child = spawn(process.execPath, ["--input-type=module", "-e", script], {
    stdio: ["ignore", "pipe", "ignore"],
  });
  const gone = new Promise((ended) => child.once("exit", ended));
  await Promise.race([new Promise((begun) => child.stdout.once("data", begun)), gone]);
  await new Promise((later) => setTimeout(later, ms));
  child.kill("SIGKILL");
  await gone;
}

function moduleAt(path: string): string {
  return JSON.stringify(new URL(`../dist/${path}`, import.meta.url).href);
}

test("killed twenty times while a database is made and brought up to date, it opens and is whole", async () => {
  const script = `import { Database } from ${moduleAt("db/database.js")};
    import { OLDER_MIGRATIONS } from ${moduleAt("db/older/index.js")};
    process.stdout.write("go");
    await (await Database.open(${JSON.stringify(join(folder, "x.sqlite"))}, { migrations: OLDER_MIGRATIONS })).close();`;
  for (let round = 0; round < 20; round += 1) await killedAfter(script, round * 12);
  const db = await older("x.sqlite");
  const [check] = await db.rows<{ quick_check: string }>("PRAGMA quick_check");
  const steps = await db.rows<{ name: string }>("SELECT name FROM sequelize_meta");
  await db.close();
  expect(check?.quick_check).toBe("ok");
  expect(steps).toHaveLength(OLDER_MIGRATIONS.length);
  // What was half done was copied aside before it was gone on with.
  expect(readdirSync(folder).filter((name) => name.includes("unfinished"))).toEqual([]);
});

test("a database of an older version is brought up to date, and copied as it was before", async () => {
  const made = await older("fiscalon.sqlite");
  // As the version before statements left it.
  const steps = ["2026-11-29-statements", "2026-11-29-register-sheets", "2026-11-29-once-keys"];
  await made.write(async (tx) => {
    for (const table of [
      "match_lines",
      "match_decisions",
      "statement_rows",
      "statements",
      "register_rows",
      "register_sheets",
      "once_keys",
    ])
      await made.run(`DROP TABLE ${table}`, [], tx);
    await made.run(
      "DELETE FROM sequelize_meta WHERE name IN (SELECT value FROM json_each($1))",
      [JSON.stringify(steps)],
      tx,
    );
  });
  await made.close();
  const again = await older("fiscalon.sqlite");
  expect(await again.rows("SELECT count(*) AS rows FROM statements")).toEqual([{ rows: 0 }]);
  const noted = await again.rows(
    "SELECT name FROM sequelize_meta WHERE name IN (SELECT value FROM json_each($1))",
    [JSON.stringify(steps)],
  );
  await again.close();
  expect(noted).toHaveLength(3);
  expect(readdirSync(folder).filter((name) => name.includes("before-migration-"))).toHaveLength(1);
});

type Figure = Record<string, unknown>;
interface Answers {
  books: { base: string; answers: Record<string, Figure[]> }[];
}

/**
 * The folder as that version left it, but that nothing recurs by itself: what falls due since would be posted at the
 * start, and stand in the balances.
 */
async function layOut(): Promise<void> {
  const file = join(folder, "fiscalon.sqlite");
  writeFileSync(file, gunzipSync(readFileSync(ONE_DATABASE)));
  const db = await Database.open(file, { migrations: [] });
  await db.write((tx) => db.run("UPDATE templates SET by_itself = 0", [], tx));
  await db.close();
}

/** Of what is answered now, what the older version was asked for. */
function picked(row: Figure, asked: Figure | undefined): Figure {
  return Object.fromEntries(Object.keys(asked ?? {}).map((key) => [key, row[key]]));
}

async function expectSameFigures(): Promise<void> {
  const server = await startServer(folder);
  const { books } = JSON.parse(readFileSync(ANSWERS, "utf8")) as Answers;
  for (const { answers } of books)
    for (const [path, figures] of Object.entries(answers)) {
      const now = await server.ok<Figure[] | { boxes: Figure[] }>("GET", path);
      const rows = Array.isArray(now) ? now : now.boxes;
      expect(rows.map((row, at) => [path, picked(row, figures[at])])).toEqual(
        figures.map((row) => [path, row]),
      );
    }
  expect(await server.ok("GET", "/audit")).toMatchObject({ broken: [], returns: [] });
  // What is kept as a sum since is the sum of what was brought along.
  await expectKeptSums(server);
  for (const { base } of books) {
    await expectPartiesApart(server, base, ["2026-03-31", "2026-06-30"]);
    await expectBanksApart(server, base, ["2026-03-31", "2026-06-30"]);
  }
  // And the books go on: the next document stands under the next number, in its client's own file.
  for (const { base } of books) {
    const posted = document("sales-invoice", "2026-05-11", [{ amount: "10.00" }], { number: "GOES-ON" });
    await server.ok("POST", `${base}/documents`, posted);
    expect(await server.ok("GET", `${base}/audit`)).toMatchObject({ broken: null });
  }
  await server.close();
}

test("a practice with one database becomes one with a file a client: the same boxes, balances and book files", async () => {
  await layOut();
  await expectSameFigures();
  const made = readdirSync(folder).filter((name) => !name.startsWith("digest"));
  expect(made.sort()).toEqual(["before-one-file-a-client", "clients", "practice.sqlite", "server.lock"]);
  expect(readdirSync(join(folder, "before-one-file-a-client"))).toContain("fiscalon.sqlite");
});

test("killed at any moment of that, it begins again or is done", async () => {
  await layOut();
  for (const ms of [40, 120, 200, 280, 360, 440, 520, 650, 800]) {
    const script = `import { convertFolder } from ${moduleAt("across/convert/convertFolder.js")};
      process.stdout.write("go"); await convertFolder(${JSON.stringify(folder)}, () => undefined);`;
    if (existsSync(join(folder, "fiscalon.sqlite"))) await killedAfter(script, ms);
  }
  await expectSameFigures();
});

test("the same by starting the server, which is killed meanwhile", async () => {
  await layOut();
  const first = await startProcess(folder);
  await kill(first.child);
  await expectSameFigures();
});
