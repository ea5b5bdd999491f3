import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { basename, join } from "node:path";
import { afterAll, beforeAll, expect, test } from "vitest";
import { backUp, restore } from "../dist/across/backup/backup.js";
import { Copies } from "../dist/across/backup/copies.js";
import { restoreClient } from "../dist/across/backup/restoreClient.js";
import { passphraseIn } from "../dist/across/backup/sealing.js";
import { british, periodBooks } from "./support/periods.ts";
import { startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
let folder: string;
beforeAll(async () => {
  server = await startServer();
  folder = mkdtempSync(join(tmpdir(), "fiscalon-backup-"));
});
afterAll(async () => {
  await server.close();
  rmSync(folder, { recursive: true, force: true });
});

test("a copy made while the server works is opened and proved; restored elsewhere it gives the same books", async () => {
  const books = await periodBooks(server, british());
  const bill = await books.post(["purchase-bill", "S20", "100.00"], "2026-02-10");
  await books.post(["sales-invoice", "S20", "300.00"], "2026-02-11");
  await server.upload(
    `${books.base}/documents/${bill.id}/attachments`,
    "paper.xml",
    `<?xml version="1.0"?><paper/>`,
  );
  // Others go on while the copy is made.
  const [{ folder: copy, proof }] = await Promise.all([
    backUp(server.dataDir, folder, 3),
    ...[1, 2, 3].map(() => books.post(["sales-invoice", "S20", "1.00"], "2026-02-12")),
  ]);
  expect(proof).toMatchObject({
    integrity: "ok",
    clients: [{ name: "A period in GB", integrity: "ok", files: 1 }],
  });

  const place = join(folder, "restored");
  expect(await restore(copy, place)).toEqual(proof);
  const again = await startServer(place);
  const documents = await again.ok<{ total: number }>("GET", `${books.base}/documents`);
  expect(documents.total).toBe(proof.clients[0]?.documents);
  const papers = await again.ok<object[]>("GET", `${books.base}/documents/${bill.id}/attachments`);
  expect(papers).toHaveLength(1);
  await again.close();

  await expect(restore(copy, place)).rejects.toThrow(/is not empty/);
  await expect(restore(folder, join(folder, "elsewhere"))).rejects.toThrow(/is no copy made by backup/);
});

test("a server that is told where makes a copy by itself, and no second one before its time", async () => {
  const [place, copies] = [join(folder, "by-itself"), join(folder, "copies")];
  const first = await startServer(place, { folder: copies, hours: 24, keep: 3 });
  const finished = () => (existsSync(copies) ? readdirSync(copies).filter((name) => name.endsWith("Z")) : []);
  await expect.poll(finished, { timeout: 60_000 }).toHaveLength(1);
  await first.close();
  const again = await startServer(place, { folder: copies, hours: 24, keep: 3 });
  await again.ok("GET", "/clients");
  await again.close();
  expect(finished()).toHaveLength(1);
});

test("one client of a copy is put back where the others are: proved, what was there kept, the others untouched", async () => {
  const place = join(folder, "practice");
  const first = await startServer(place);
  const [ours, theirs] = [await periodBooks(first, british()), await periodBooks(first, british())];
  await ours.post(["sales-invoice", "S20", "300.00"], "2026-02-11");
  const { folder: copy } = await backUp(place, folder, 9);
  await ours.post(["sales-invoice", "S20", "1.00"], "2026-02-12");
  await theirs.post(["sales-invoice", "S20", "2.00"], "2026-02-12");
  const client = Number(ours.base.split("/").at(-1));
  await expect(restoreClient(copy, place, client)).rejects.toThrow(/Another Fiscalon server/);
  await first.close();
  const { proof, kept } = await restoreClient(copy, place, client);
  expect(proof).toMatchObject({ id: client, documents: 1, integrity: "ok" });
  expect(readdirSync(kept ?? "")).toContain("books.sqlite");
  const again = await startServer(place);
  const count = async (base: string) => (await again.ok<{ total: number }>("GET", `${base}/documents`)).total;
  expect([await count(ours.base), await count(theirs.base)]).toEqual([1, 1]);
  const list = await again.ok<{ id: number; documents: number }[]>("GET", "/clients");
  expect(list.find(({ id }) => id === client)?.documents).toBe(1);
  await again.close();
  await expect(restoreClient(copy, place, 99)).rejects.toThrow(/holds no client 99/);
});

test("a copy that was changed since is not restored, and older copies go by the rule", async () => {
  const { folder: copy } = await backUp(server.dataDir, folder, 3);
  writeFileSync(join(copy, "clients", "1", "files", "something-else"), "x");
  const place = join(folder, "spoilt");
  await expect(restore(copy, place)).rejects.toThrow(/is not what it held/);
  expect(readdirSync(folder)).not.toContain("spoilt");
  for (let n = 0; n < 3; n += 1) await backUp(server.dataDir, folder, 2);
  expect(readdirSync(folder).filter((name) => name.startsWith("fiscalon-"))).toHaveLength(2);
});

test("a sealed copy tells nothing and opens with its passphrase only; a file that was changed or swapped does not", async () => {
  const books = await periodBooks(server, british());
  await books.post(["sales-invoice", "S20", "300.00"], "2026-02-11");
  const copies = mkdtempSync(join(tmpdir(), "fiscalon-sealed-"));
  const key = join(copies, "passphrase");
  writeFileSync(key, "a long enough passphrase\n");
  const { folder: copy, proof } = await backUp(server.dataDir, copies, 3, passphraseIn(key));
  const names = readdirSync(copy, { recursive: true, encoding: "utf8" });
  expect(names.filter((name) => /\.(sqlite|json)$/.test(name))).toEqual(["sealed.json"]);
  expect(readdirSync(server.dataDir)).not.toContain("copy-before-sealing");
  for (const name of names.filter((one) => one.endsWith(".sealed"))) {
    const content = readFileSync(join(copy, name)).toString("latin1");
    expect([content.includes("SQLite format 3"), content.includes("A period in GB")]).toEqual([false, false]);
  }

  const place = join(copies, "place");
  await expect(restore(copy, place)).rejects.toThrow(/is sealed/);
  await expect(restore(copy, place, "another long passphrase")).rejects.toThrow(/does not open/);
  const [practice, client] = ["practice.sqlite.sealed", "clients/1/books.sqlite.sealed"].map((name) =>
    join(copy, name),
  ) as [string, string];
  const whole = readFileSync(client);
  const spoilt = Buffer.from(whole);
  spoilt[whole.length >> 1] = (spoilt[whole.length >> 1] ?? 0) ^ 1;
  for (const content of [spoilt, whole.subarray(0, -1), readFileSync(practice)]) {
    writeFileSync(client, content);
    await expect(restore(copy, place, passphraseIn(key))).rejects.toThrow(/does not open/);
  }
  expect(readdirSync(copies).sort()).toEqual([basename(copy), "passphrase"]);
  writeFileSync(client, whole);
  expect(await restore(copy, place, passphraseIn(key))).toEqual(proof);

  const backup = { folder: copies, hours: 24, keep: 3 };
  for (const [backupKey, shown] of [
    [key, { sealed: true, holds: { clients: proof.clients.length }, closed: null }],
    [null, { sealed: true, holds: null, closed: expect.stringContaining("FISCALON_BACKUP_KEY") as string }],
    [join(copies, "none"), { holds: null, closed: expect.stringContaining("no passphrase") as string }],
  ] as const) {
    const view = await new Copies({ dataDir: server.dataDir, backup, backupKey }, () => undefined).view();
    expect(view).toMatchObject({ sealed: backupKey !== null, copies: [shown] });
  }
  rmSync(copies, { recursive: true, force: true });
});
