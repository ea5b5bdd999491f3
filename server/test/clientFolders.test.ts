import {
  existsSync,
  mkdtempSync,
  readdirSync,
  readlinkSync,
  renameSync,
  rmSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import sqlite3 from "sqlite3";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { backUp } from "../dist/across/backup/backup.js";
import { document, newClient, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let folder: string;
let server: TestServer;
let ours: Awaited<ReturnType<typeof newClient>>;
let theirs: Awaited<ReturnType<typeof newClient>>;
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "fiscalon-folders-"));
  server = await startServer(folder);
  [ours, theirs] = [await newClient(server), await newClient(server)];
  for (const { base } of [ours, theirs]) await post(base);
  await server.ok("GET", "/clients");
  await server.close();
});
afterEach(async () => {
  await server.close();
  rmSync(folder, { recursive: true, force: true });
});

const post = (base: string) =>
  server.call(
    "POST",
    `${base}/documents`,
    document("sales-invoice", "2026-05-11", [{ amount: "10.00", code: "S20" }]),
  );
const booksOf = ({ id }: { id: number }) => join(folder, "clients", String(id), "books.sqlite");
interface Refused {
  error: { code: string; message: string };
}
interface Audit {
  unreadable: { client: number; why: string }[];
}

/** Whatever is wrong with one client, it says so in words, stands in the list, and the other one goes on. */
async function expectOnlyOursRefused(code: string): Promise<void> {
  server = await startServer(folder);
  const { status, body } = await server.call<Refused>("GET", `${ours.base}/documents`);
  expect([status, body.error.code]).toEqual([500, code]);
  expect((await post(ours.base)).status).toBe(500);
  expect((await post(theirs.base)).status).toBe(201);
  const list = await server.ok<{ id: number }[]>("GET", "/clients");
  expect(list.map(({ id }) => id).sort()).toEqual([ours.id, theirs.id]);
  const { unreadable } = await server.ok<Audit>("GET", "/audit");
  expect(unreadable).toEqual([{ client: ours.id, why: body.error.message }]);
}

test("a client whose folder is missing refuses in words, and is there again when the folder is", async () => {
  const place = join(folder, "clients", String(ours.id));
  renameSync(place, `${place}.elsewhere`);
  await expectOnlyOursRefused("client/folder-missing");
  // No copy makes up what is missing, and none is made without it.
  await expect(backUp(folder, join(folder, "copies"), 3)).rejects.toThrow(/is missing/);
  expect(existsSync(place)).toBe(false);
  await server.close();
  renameSync(`${place}.elsewhere`, place);
  server = await startServer(folder);
  expect((await post(ours.base)).status).toBe(201);
});

test("books that are no database any more are told, not made anew", async () => {
  for (const end of ["-wal", "-shm"]) rmSync(booksOf(ours) + end, { force: true });
  writeFileSync(booksOf(ours), Buffer.alloc(8192, 7));
  await expectOnlyOursRefused("client/damaged");
});

test("acknowledged entries that a damaged log lost are missed, though the file is whole", async () => {
  const file = new sqlite3.Database(booksOf(ours));
  const failed = await new Promise<Error | null>((done) =>
    file.exec(
      "DROP TRIGGER changes_are_kept; DELETE FROM changes WHERE id = (SELECT max(id) FROM changes)",
      done,
    ),
  );
  expect(failed).toBeNull();
  await new Promise((closed) => file.close(closed));
  await expectOnlyOursRefused("client/damaged");
  const { body } = await server.call<Refused>("GET", ours.base);
  expect(body.error.message).toMatch(/were acknowledged and are gone/);
});

test("the list of clients says what is to be filed next, and follows the books", async () => {
  server = await startServer(folder);
  interface Row {
    id: number;
    next: { from: string; to: string; due: string; state: string; net: number; findings: object | null }[];
  }
  const next = async () =>
    (await server.ok<Row[]>("GET", "/clients")).find(({ id }) => id === ours.id)?.next.at(0);
  const periods = () => server.ok<Record<string, unknown>[]>("GET", `${ours.registration}/periods`);
  const unfiled = async () =>
    (await periods()).find(({ state }) => !["filed", "settled", "ahead"].includes(String(state)));
  await expect.poll(next).toMatchObject(await pick(unfiled()));
  await post(ours.base);
  await server.call(
    "POST",
    `${ours.base}/documents`,
    document("sales-invoice", String((await unfiled())?.["from"]), [{ amount: "40.00", code: "S20" }], {
      number: "NEXT-1",
    }),
  );
  expect((await unfiled())?.["net"]).not.toBe(0);
  await expect.poll(next).toMatchObject(await pick(unfiled()));

  // Findings are counted a little later, and are those of the return itself: a claim without the supplier's number.
  const { id: contact } = await server.ok<{ id: number }>("POST", `${ours.base}/contacts`, { name: "Bare" });
  const day = String((await unfiled())?.["from"]);
  await server.ok(
    "POST",
    `${ours.base}/documents`,
    document("purchase-bill", day, [{ amount: "1000.00", code: "S20" }], { contact, number: "CLAIM-1" }),
  );
  const end = String((await unfiled())?.["to"]);
  interface Found {
    findings: { severity: string; accepted: unknown }[];
  }
  const { findings } = await server.ok<Found>("GET", `${ours.registration}/returns/${end}`);
  const open = findings.filter(({ accepted }) => accepted === null);
  const stops = open.filter(({ severity }) => severity === "stop").length;
  expect(open.length).toBeGreaterThan(0);
  await expect.poll(next, { timeout: 15_000 }).toMatchObject({ findings: { open: open.length, stops } });
});

/** What the list shows of a period. */
async function pick(period: Promise<Record<string, unknown> | undefined>) {
  const { from, to, due, state, net } = (await period) ?? {};
  return { from, to, due, state, net };
}

/** Clients whose books this process has open (Linux tells it in `/proc`). */
function open(): Set<string> {
  const files = readdirSync("/proc/self/fd").flatMap((fd) => {
    try {
      return [readlinkSync(join("/proc/self/fd", fd))];
    } catch {
      return []; // closed meanwhile
    }
  });
  return new Set(files.filter((file) => file.startsWith(folder) && file.endsWith("books.sqlite")));
}

test("who goes through all clients leaves their books closed behind, but those somebody works on", async () => {
  server = await startServer(folder);
  await server.ok("GET", `${ours.base}/documents`);
  await server.ok("GET", "/audit");
  await vi.waitFor(() => expect(open()).toEqual(new Set([booksOf(ours)])), { timeout: 10_000 });
  expect(await server.ok("GET", `${theirs.base}/documents`)).toMatchObject({ total: 1 });
  expect(open()).toEqual(new Set([booksOf(ours), booksOf(theirs)]));
});
