import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import sqlite3 from "sqlite3";
import { afterAll, expect, test } from "vitest";
import { newClient, startServer } from "./support/testServer.ts";

const dataDir = mkdtempSync(join(tmpdir(), "fiscalon-digests-"));
const folder = join(dataDir, "digests");
afterAll(() => rmSync(dataDir, { recursive: true, force: true }));

interface Audit {
  broken: unknown[];
  digests: { read: number; wrong: { file: string; client: number | null; why: string }[] };
}

/** Runs a statement in the file of the practice, as somebody who may write the disk could. */
async function tamper(sql: string): Promise<void> {
  const db = new sqlite3.Database(join(dataDir, "practice.sqlite"));
  const failed = await new Promise<Error | null>((done) => db.exec(sql, done));
  expect(failed).toBeNull();
  await new Promise((closed) => db.close(closed));
}

const END = "2026-03-31";

test("where the trails end is noted a day and with each filed return, signed; a tail that is cut off is missed", async () => {
  let server = await startServer(dataDir);
  const today = new Date().toISOString().slice(0, 10);
  await expect.poll(() => existsSync(join(folder, `${today}.json`))).toBe(true);
  const { registration, id } = await newClient(server, {
    name: "Digests",
    country: "GB",
    registration: {
      pack: "gb",
      number: "980780684",
      from: "2026-01-01",
      frequency: "quarterly",
      basis: "accrual",
    },
  });
  await server.ok("POST", `${registration}/returns/${END}/seal`);
  await server.ok("POST", `${registration}/returns/${END}/file`, { declared: true });
  const filed = () => readdirSync(folder).find((name) => name.startsWith(`filed-${id}-${END}`));
  await expect.poll(filed).toBeDefined();
  // The key is nobody else's to read.
  expect(statSync(join(dataDir, "digest-key.pem")).mode & 0o077).toBe(0);
  expect((await server.ok<Audit>("GET", "/audit")).digests).toEqual({ read: 2, wrong: [] });
  await server.close();

  // The trail is whole to look at: only what was noted elsewhere tells.
  await tamper("DROP TRIGGER changes_are_kept; DELETE FROM changes");
  server = await startServer(dataDir);
  const { broken, digests } = await server.ok<Audit>("GET", "/audit");
  expect(broken).toEqual([]);
  expect(digests.wrong).toEqual([
    { file: filed(), client: null, why: expect.stringMatching(/^entry \d+ is not there any more/) as string },
  ]);

  const file = join(folder, String(filed()));
  writeFileSync(file, readFileSync(file, "utf8").replace(/"entry": (\d+)/, '"entry": 1$1'));
  const changed = await server.ok<Audit>("GET", "/audit");
  expect(changed.digests.wrong).toEqual([
    { file: filed(), client: null, why: "it was changed after it was signed" },
  ]);
  await server.close();
});
