import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, expect, test } from "vitest";
import { holdFolder } from "../dist/db/folderLock.js";
import { british, periodBooks } from "./support/periods.ts";
import { kill, startProcess } from "./support/process.ts";
import { document, newClient, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

async function send(path: string, body: object, headers: Record<string, string> = {}) {
  const response = await fetch(`${server.address}/api${path}`, {
    method: "POST",
    headers: { "content-type": "application/json", ...headers },
    body: JSON.stringify(body),
  });
  return {
    status: response.status,
    replayed: response.headers.get("idempotent-replayed"),
    body: (await response.json()) as { id?: number; error?: { code: string } },
  };
}

test("a payment sent five times with one key is one payment, and every answer is the first one", async () => {
  const books = await periodBooks(server, british());
  const invoice = await books.post(["sales-invoice", "S20", "100.00"], "2026-02-10");
  const { contact } = await server.ok<{ contact: { id: number } }>(
    "GET",
    `${books.base}/documents/${invoice.id}`,
  );
  const payment = {
    kind: "receipt",
    date: "2026-02-20",
    amount: "20.00",
    contact: contact.id,
    allocations: [],
  };
  const key = { "idempotency-key": "the-same-receipt" };
  const together = await Promise.all([1, 2, 3].map(() => send(`${books.base}/payments`, payment, key)));
  const later = [
    await send(`${books.base}/payments`, payment, key),
    await send(`${books.base}/payments`, payment, key),
  ];
  const made = [...together, ...later].filter(({ status }) => status === 201);
  expect(new Set(made.map(({ body }) => body.id)).size).toBe(1);
  expect(later.map(({ status, replayed }) => [status, replayed])).toEqual([
    [201, "true"],
    [201, "true"],
  ]);
  for (const { status, body } of together.filter((one) => one.status !== 201))
    expect([status, body.error?.code]).toEqual([409, "request/repeated"]);
  const { total } = await server.ok<{ total: number }>("GET", `${books.base}/payments`);
  expect(total).toBe(1);
  const other = await send(`${books.base}/payments`, { ...payment, amount: "21.00" }, key);
  expect([other.status, other.body.error?.code]).toEqual([422, "request/key-reused"]);
});

test("what is refused leaves its key free", async () => {
  const { base } = await newClient(server);
  const key = { "idempotency-key": "first-wrong-then-right" };
  const body = document("sales-invoice", "2026-02-01", [{ amount: "1.00", code: "NONE" }]);
  expect((await send(`${base}/documents`, body, key)).status).toBe(422);
  const mended = document("sales-invoice", "2026-02-01", [{ amount: "1.00", code: "S20" }]);
  expect((await send(`${base}/documents`, mended, key)).status).toBe(201);
});

test("a change from another site, and a name that is not this server's, are refused; control signs as well", async () => {
  const foreign = await send("/clients", { name: "x" }, { "sec-fetch-site": "cross-site" });
  expect([foreign.status, foreign.body.error?.code]).toEqual([403, "request/foreign"]);
  const own = await fetch(`${server.address}/api/clients`, { headers: { "sec-fetch-site": "cross-site" } });
  expect([own.status, own.headers.get("cache-control")]).toEqual([200, "no-store"]);
  const { base } = await newClient(server);
  const strange = await send(`${base}/contacts`, { name: "Nul\u0000l" });
  expect([strange.status, strange.body.error?.code]).toEqual([400, "request/invalid"]);
});

test("a folder takes one server; a second one says so", async () => {
  const folder = mkdtempSync(join(tmpdir(), "fiscalon-lock-"));
  const free = await holdFolder(folder);
  await expect(holdFolder(folder)).rejects.toThrow(/Another Fiscalon server works on/);
  await free();
  await (
    await holdFolder(folder)
  )();
  rmSync(folder, { recursive: true, force: true });
});

test("killed around the end of a job, its book is there once if the job says so, and not at all if it says it failed", async () => {
  const { base } = await newClient(server, {
    name: "Kept twice?",
    country: "GB",
    place: { name: "Shop", country: "GB" },
  });
  const invoice = document("sales-invoice", "2026-02-01", [{ amount: "5.00", code: "S20" }], {
    number: "N-0",
  });
  await server.ok("POST", `${base}/documents`, invoice);
  const book = await server.ok<{ client: object; documents: object[] }>("GET", `${base}/book`);
  // So long that it is brought in by a job.
  const documents = Array.from({ length: 1200 }, (_, n) => ({ ...book.documents[0], number: `N-${n}` }));
  const padded = JSON.stringify({ ...book, documents, client: { ...book.client, name: "Brought" } });
  const dataDir = mkdtempSync(join(tmpdir(), "fiscalon-job-"));
  let brought = 0;
  for (const wait of [400, 1200, 1600, 2400, 4000]) {
    const { child, client } = await startProcess(dataDir);
    const started = client
      .call<{ job?: { id: number }; id?: number }>("POST", "/books", padded)
      .catch(() => null);
    await new Promise((later) => setTimeout(later, wait));
    await kill(child);
    const answer = await started;
    const again = await startProcess(dataDir);
    const jobId = answer?.body.job?.id;
    if (jobId !== undefined) {
      const job = await again.client.ok<{ state: string }>("GET", `/jobs/${jobId}`);
      if (job.state === "done") brought += 1;
      else expect(job.state).toBe("failed");
      const list = await again.client.ok<{ name: string }[]>("GET", "/clients");
      expect(list.filter(({ name }) => name === "Brought")).toHaveLength(brought);
    } else {
      const list = await again.client.ok<{ name: string }[]>("GET", "/clients");
      brought = list.filter(({ name }) => name === "Brought").length;
    }
    await kill(again.child);
  }
  rmSync(dataDir, { recursive: true, force: true });
});
