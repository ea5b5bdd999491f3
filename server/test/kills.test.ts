import fc from "fast-check";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, expect, test } from "vitest";
import { at } from "@fiscalon/core/at";
import { LANDS } from "./support/lands.ts";
import { act, Books } from "./support/life.ts";
import { kill, startProcess } from "./support/process.ts";
import { expectSound, expectWholeDatabase } from "./support/sound.ts";
import { document } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

const [, LAND] = at(Object.entries(LANDS), 0);
let dataDir: string;
let running: Awaited<ReturnType<typeof startProcess>>;
beforeAll(async () => {
  dataDir = mkdtempSync(join(tmpdir(), "fiscalon-kills-"));
  running = await startProcess(dataDir);
});
afterAll(async () => {
  await kill(running.child);
  rmSync(dataDir, { recursive: true, force: true });
});

/** What fetch says when the server dies under it. */
function diedUnderIt(error: unknown): boolean {
  return error instanceof TypeError && /fetch failed|terminated/.test(error.message);
}

/**
 * Three people work at once, and one posts bills and notes which were answered, until so many were: then the power
 * goes, and whoever is cut off stops.
 */
async function workUntilKilled(books: Books, seed: number, after: number): Promise<number[]> {
  const acts = fc.sample(act, { seed, numRuns: 150 });
  const answered: number[] = [];
  const person = async (which: number) => {
    for (const [index, one] of acts.entries()) {
      if (index % 3 !== which) continue;
      await books.perform(one);
    }
  };
  const server = running.client;
  const clerk = async () => {
    for (let n = 0; ; n += 1) {
      const bill = document("purchase-bill", "2026-02-09", [{ amount: "1.00", code: "S20" }], {
        contact: at(books.contacts, 0).id,
        number: `B-${seed}-${n}`,
      });
      const { status, body } = await server.call<{ id: number }>("POST", `${books.base}/documents`, bill);
      if (status === 201) answered.push(body.id);
    }
  };
  const people = Promise.allSettled([...[0, 1, 2].map(person), clerk()]);
  await expect.poll(() => answered.length, { timeout: 60_000, interval: 3 }).toBeGreaterThanOrEqual(after);
  await kill(running.child);
  for (const result of await people)
    if (result.status === "rejected" && !diedUnderIt(result.reason)) throw result.reason;
  return answered;
}

test("three people at work, the server killed four times: what was answered is there, nothing is half there", async () => {
  let books = await Books.begin(running.client, LAND);
  const answered: number[] = [];
  for (const [round, after] of [2, 6, 1, 9].entries()) {
    answered.push(...(await workUntilKilled(books, 100 + round, after)));
    running = await startProcess(dataDir);
    books = books.on(running.client);
    await expectSound(running.client, LAND, books);
    await expectWholeDatabase(running.client);
  }
  // Each by its id and not from the list: another of the three may have corrected it or taken it out since.
  for (const id of answered) {
    const { input } = await running.client.ok<{ input: { number: string } }>(
      "GET",
      `${books.base}/documents/${id}`,
    );
    expect(input.number).toMatch(/^B-10\d-\d+$/);
  }
  const { total } = await running.client.ok<{ total: number }>("GET", `${books.base}/documents?search=B-10`);
  // Of each round one more may have been written before its answer was on the way.
  expect(total - answered.length).toBeLessThanOrEqual(4);
  expect(answered.length).toBeGreaterThanOrEqual(18);
}, 120_000);

type Made = { status: number; body: { id: number; input: { number: string } } };

async function together<T>(times: number, work: (n: number) => Promise<T>): Promise<T[]> {
  return Promise.all(Array.from({ length: times }, (_, n) => work(n)));
}

const statuses = (answers: { status: number }[]) => answers.map(({ status }) => status).sort();

test("many at once: numbers of a series are given once and without a gap", async () => {
  const server: TestServer = running.client;
  const books = await Books.begin(server, LAND);
  const invoice = document("sales-invoice", "2026-02-03", [{ amount: "10.00", code: "S20" }], {
    contact: at(books.contacts, 0).id,
  });
  const made = (await together(25, () =>
    server.call("POST", `${books.base}/documents`, invoice),
  )) as unknown as Made[];
  expect(new Set(statuses(made))).toEqual(new Set([201]));
  const numbers = made.map(({ body }) => Number(/(\d+)$/.exec(body.input.number)?.[1])).sort((a, b) => a - b);
  expect(numbers).toEqual(Array.from({ length: 25 }, (_, n) => at(numbers, 0) + n));
});

test("two at once: of corrections, payments, seals, filings and closing entries of one thing the second is told", async () => {
  const server = running.client;
  const books = await Books.begin(server, LAND);
  const contact = at(books.contacts, 0).id;
  const invoice = (amount: string) =>
    document("sales-invoice", "2026-02-03", [{ amount, code: "S20" }], { contact, number: "SI-1" });
  const first = await server.ok<{ id: number }>("POST", `${books.base}/documents`, invoice("100.00"));

  const corrected = await together(4, (n) =>
    server.call("PUT", `${books.base}/documents/${first.id}`, invoice(`${200 + n}.00`)),
  );
  expect(statuses(corrected).filter((status) => status === 200)).toHaveLength(1);
  expect(Math.max(...statuses(corrected))).toBeLessThan(500);
  const { rows } = await server.ok<{ rows: { id: number; gross: number }[] }>(
    "GET",
    `${books.base}/documents?limit=10`,
  );
  expect(rows).toHaveLength(1);

  const { id, gross } = at(rows, 0);
  const paid = await together(3, () =>
    server.call("POST", `${books.base}/payments`, {
      kind: "receipt",
      date: "2026-02-20",
      amount: (gross / 100).toFixed(2),
      contact,
      allocations: [{ document: id, amount: (gross / 100).toFixed(2) }],
    }),
  );
  expect(statuses(paid).filter((status) => status === 201)).toHaveLength(1);

  const path = `${books.registration}/returns/2026-03-31`;
  const { findings } = await server.ok<{ findings: { key: string }[] }>("GET", path);
  for (const { key } of findings)
    await server.call("POST", `${path}/acceptances`, { key, reason: "looked at" });
  const once = async (method: string, address: string, body?: object) => {
    const answers = await together(3, () => server.call(method, address, body));
    expect(Math.max(...statuses(answers))).toBeLessThan(500);
    return statuses(answers).filter((status) => status < 300).length;
  };
  expect(await once("POST", `${path}/seal`)).toBe(1);
  expect(await once("POST", `${path}/file`, { declared: true })).toBe(1);
  expect(await once("POST", `${books.registration}/settlements/2026-03-31`)).toBe(1);
  await expectSound(server, LAND, books);
  await expectWholeDatabase(server);
});

test("sealing while others post: what is posted lands before the seal or after it, never in between", async () => {
  const server = running.client;
  const books = await Books.begin(server, LAND);
  const contact = at(books.contacts, 0).id;
  const path = `${books.registration}/returns/2026-03-31`;
  const post = (n: number) =>
    server.call("POST", `${books.base}/documents`, {
      ...document("sales-invoice", "2026-02-03", [{ amount: "10.00", code: "S20" }], { contact }),
      number: `Z-${n}`,
    });
  const [seal] = await Promise.all([
    (async () => {
      await post(0);
      const { findings } = await server.ok<{ findings: { key: string }[] }>("GET", path);
      for (const { key } of findings)
        await server.call("POST", `${path}/acceptances`, { key, reason: "looked at" });
      return server.call("POST", `${path}/seal`);
    })(),
    together(12, (n) => post(n + 1)),
  ]);
  const sums = await server.ok<{ boxes: { id: string; amount: number }[] }>("GET", path);
  const later = await server.ok<{ boxes: { id: string; amount: number }[] }>(
    "GET",
    `${books.registration}/returns/2026-06-30`,
  );
  const box1 = ({ boxes }: typeof sums) => boxes.find(({ id }) => id === "1")?.amount ?? 0;
  expect(seal.status).toBeLessThan(500);
  expect(box1(sums) + box1(later)).toBe(13 * 200);
  await expectSound(server, LAND, books);
});
