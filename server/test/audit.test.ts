import { join } from "node:path";
import sqlite3 from "sqlite3";
import { afterAll, beforeAll, expect, test } from "vitest";
import type { ChangeView } from "@fiscalon/contract/audit";
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
  broken: { client: number | null; entry: number }[];
  last: string;
}

/** Straight at the file, as somebody would who means to hide something. */
async function onFile(client: number, sql: string): Promise<string | null> {
  const file = new sqlite3.Database(join(server.dataDir, "clients", String(client), "books.sqlite"));
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
  expect(whole.broken).toEqual([]);
  expect(whole.entries).toBeGreaterThanOrEqual(all.length);
  expect(whole.last).toMatch(/^[0-9a-f]{64}$/);

  const { id = 0 } = contacts[1] ?? {};
  const client = Number(base.split("/").at(-1));
  expect(await onFile(client, `UPDATE changes SET after = '{}' WHERE id = ${id}`)).toContain("append-only");
  expect(await onFile(client, `DELETE FROM changes WHERE id = ${id}`)).toContain("append-only");
  expect(await server.ok<Chain>("GET", "/audit")).toEqual(whole);

  expect(
    await onFile(client, `DROP TRIGGER changes_stay; UPDATE changes SET after = '{}' WHERE id = ${id}`),
  ).toBeNull();
  expect((await server.ok<Chain>("GET", "/audit")).broken).toEqual([{ client, entry: id }]);
});

test("each step of a return is told with the return it is of, its money as it is written, whichever registration it is", async () => {
  const { base, registration } = await newClient(server);
  await newClient(server);
  await server.ok(
    "POST",
    `${base}/documents`,
    document("sales-invoice", "2026-02-11", [{ amount: "10.00", code: "S20" }]),
  );
  const path = `${registration}/returns/2026-03-31`;
  await server.ok("POST", `${path}/state`, { state: "in-review" });
  const { findings } = await server.ok<{ findings: { key: string }[] }>("GET", path);
  for (const { key } of findings)
    await server.ok("POST", `${path}/acceptances`, { key, reason: "looked at" });
  await server.ok("POST", `${path}/seal`);
  await server.ok("POST", `${path}/reopen`, { reason: "forgot one" });
  await server.ok("POST", `${path}/seal`);
  await server.ok("POST", `${path}/file`, { declared: true });
  await server.ok("POST", `${registration}/settlements/2026-03-31`);
  const steps = (await server.ok<ChangeView[]>("GET", `${base}/changes?entity=return`)).reverse();
  expect(steps.map(({ action, subject }) => [action, subject])).toEqual(
    ["in-review", "seal", "reopen", "seal", "file", "settle"].map((action) => [action, "VAT"]),
  );
  expect(steps[1]?.after).toMatchObject({ period: "2026-03-31", net: "2.00" });

  const client = Number(base.split("/").at(-1));
  const sealed = async () =>
    (await server.ok<{ returns: { client: number; period: string }[] }>("GET", "/audit")).returns;
  expect(await sealed()).toEqual([]);
  expect(await onFile(client, "UPDATE facts SET live = 0 WHERE period_end = '2026-03-31'")).toBeNull();
  expect(await sealed()).toEqual([{ client, period: "2026-03-31" }]);
});

test("the history of a return joins what was done to it, to its registration and to the documents it held", async () => {
  const { base, registration } = await newClient(server);
  const post = async (number: string, date: string) =>
    server.ok<{ id: number }>(
      "POST",
      `${base}/documents`,
      document("sales-invoice", date, [{ amount: "10.00", code: "S20" }], { number }),
    );
  await post("IN-1", "2026-02-11");
  await post("OTHER-1", "2026-05-11");
  const { id: gone } = await post("IN-2", "2026-02-12");
  await server.ok("POST", `${base}/documents/void`, { documents: [gone], reason: "typed twice" });
  const path = `${registration}/returns/2026-03-31`;
  const { adjustments } = await server.ok<{ adjustments: { id: number }[] }>("POST", `${path}/adjustments`, {
    box: "1",
    amount: "1.00",
    reason: "by agreement",
    evidence: "",
  });
  await server.ok("DELETE", `${base}/adjustments/${adjustments[0]?.id}`);
  for (const end of ["2026-03-31", "2026-06-30"]) {
    const one = `${registration}/returns/${end}`;
    const { findings } = await server.ok<{ findings: { key: string }[] }>("GET", one);
    for (const { key } of findings)
      await server.ok("POST", `${one}/acceptances`, { key, reason: "looked at" });
    await server.ok("POST", `${one}/seal`);
  }
  await server.ok("POST", `${path}/file`, { declared: true });
  await server.ok("POST", `${registration}/settlements/2026-03-31`);
  await server.ok("POST", `${registration}/settlements/2026-03-31/payments`, {
    date: "2026-05-01",
    kind: "payment",
    amount: "2.00",
    reference: "",
  });
  const rid = registration.split("/").at(-1);
  const asked = `${base}/changes?registration=${rid}&period=2026-03-31`;
  const history = (await server.ok<ChangeView[]>("GET", `${asked}&limit=200`)).reverse();
  const done = history
    .filter(({ entity }) => entity !== "finding")
    .map(({ action, entity, after }) => {
      const number = (after as { number?: string } | null)?.number;
      return [action, entity, ...(entity === "document" && number ? [number] : [])].join(" ");
    });
  expect(done).toEqual([
    "create registration",
    "post document IN-1",
    "post document IN-2",
    "void document",
    "adjust return",
    "remove adjustment",
    "seal return",
    "file return",
    "settle return",
    "record tax-payment",
  ]);
  expect(
    history.filter(({ entity }) => entity === "finding").every(({ action }) => action === "accept"),
  ).toBe(true);
  const newest = await server.ok<ChangeView[]>("GET", `${asked}&limit=2`);
  expect(newest.map(({ entity }) => entity)).toEqual(["tax-payment", "return"]);
  const half = await server.call<{ error: { code: string } }>("GET", `${base}/changes?registration=${rid}`);
  expect([half.status, half.body.error.code]).toEqual([400, "request/invalid"]);
});
