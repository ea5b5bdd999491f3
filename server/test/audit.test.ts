import { join } from "node:path";
import sqlite3 from "sqlite3";
import { afterAll, beforeAll, expect, test } from "vitest";
import { document, newClient, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

interface Change {
  id: number;
  by: string;
  action: string;
  entity: string;
  before: Record<string, unknown> | null;
  after: Record<string, unknown> | null;
}
interface Chain {
  entries: number;
  broken: number | null;
  last: string;
}

/** Straight at the file, as somebody would who means to hide something. */
async function onFile(sql: string): Promise<string | null> {
  const file = new sqlite3.Database(join(server.dataDir, "fiscalon.sqlite"));
  const failed = await new Promise<string | null>((done) =>
    file.exec(sql, (error) => done(error?.message ?? null)),
  );
  await new Promise((closed) => file.close(closed));
  return failed;
}

test("who changed what, from what to what, newest first and by page; nothing can be altered unnoticed", async () => {
  const { base } = await newClient(server);
  const contact = await server.ok<{ id: number }>("POST", `${base}/contacts`, { name: "Oxbow Timber" });
  await server.ok("PUT", `${base}/contacts/${contact.id}`, { name: "Oxbow Timber Ltd" });
  await server.ok(
    "POST",
    `${base}/documents`,
    document("sales-invoice", "2026-05-11", [{ amount: "10.00", code: "S20" }]),
  );

  const contacts = await server.ok<Change[]>("GET", `${base}/changes?entity=contact`);
  expect(contacts.map(({ action }) => action)).toEqual(["change", "create"]);
  expect(contacts[0]).toMatchObject({
    by: "Test person",
    before: { name: "Oxbow Timber" },
    after: { name: "Oxbow Timber Ltd" },
  });
  const all = await server.ok<Change[]>("GET", `${base}/changes`);
  expect(all[0]?.entity).toBe("document");
  const first = await server.ok<Change[]>("GET", `${base}/changes?limit=1`);
  const second = await server.ok<Change[]>("GET", `${base}/changes?limit=1&before=${first[0]?.id}`);
  expect([first[0]?.id, second[0]?.id]).toEqual(all.slice(0, 2).map(({ id }) => id));

  const whole = await server.ok<Chain>("GET", "/audit");
  expect(whole.broken).toBeNull();
  expect(whole.entries).toBeGreaterThanOrEqual(all.length);
  expect(whole.last).toMatch(/^[0-9a-f]{64}$/);

  const { id = 0 } = contacts[1] ?? {};
  expect(await onFile(`UPDATE changes SET after = '{}' WHERE id = ${id}`)).toContain("append-only");
  expect(await onFile(`DELETE FROM changes WHERE id = ${id}`)).toContain("append-only");
  expect(await server.ok<Chain>("GET", "/audit")).toEqual(whole);

  expect(
    await onFile(`DROP TRIGGER changes_stay; UPDATE changes SET after = '{}' WHERE id = ${id}`),
  ).toBeNull();
  expect((await server.ok<Chain>("GET", "/audit")).broken).toBe(id);
});
