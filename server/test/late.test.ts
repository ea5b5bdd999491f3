import type { TrailStep } from "@fiscalon/contract/trail";
import { afterAll, beforeAll, expect, test } from "vitest";
import { found } from "@fiscalon/core/at";
import type { ReturnView } from "@fiscalon/contract/returns";
import type { SettlementView } from "@fiscalon/contract/settlement";
import { british, periodBooks } from "./support/periods.ts";
import { expectRefusal } from "./support/refused.ts";
import { startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

const Q1 = "2026-03-31";
const Q2 = "2026-06-30";
let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

async function books(settled: boolean) {
  const client = await periodBooks(server, british());
  await client.post(["sales-invoice", "S20", "50000.00"], "2026-02-02");
  await client.seal(Q1);
  if (settled) await client.settle(Q1);
  await client.post(["sales-invoice", "S20", "20000.00"], "2026-04-02");
  const { registration } = client;
  return {
    ...client,
    answer: (document: { id: number }, body: object, end = Q2) =>
      server.call("PUT", `${registration}/returns/${end}/late/${document.id}`, {
        kind: null,
        separately: false,
        reason: "found when the bank was matched",
        ...body,
      }),
    view: (end: string) => server.ok<ReturnView>("GET", `${registration}/returns/${end}`),
    settlement: (end: string) => server.ok<SettlementView>("GET", `${registration}/settlements/${end}`),
  };
}

/** VAT Notice 700/45 method 2: what is notified is not put on a return; from memory. */
test("an error too large for the return is put right separately: off the return, in the ledger, in what is owed", async () => {
  const client = await books(true);
  const large = await client.post(["sales-invoice", "S20", "75000.00"], "2026-03-15"); // 15,000.00
  const bill = await client.post(["purchase-bill", "S20", "400.00"], "2026-03-16"); // 80.00
  const before = await client.view(Q2);
  expect(before.corrections.map(({ kind, way }) => [kind, way])).toEqual([
    ["late-claim", "on-return"],
    ["error", "separately"],
  ]);
  expect(before.findings.map(({ check }) => check)).toContain("late-item");
  expect(await client.boxes(Q2)).toMatchObject({ "1": "19000", "4": "80" });

  expect((await client.answer(large, { separately: true, reason: "VAT652 of 3 July" })).status).toBe(200);
  expect(await client.boxes(Q2)).toMatchObject({ "1": "4000", "4": "80", "6": "20000" });
  const after = await client.view(Q2);
  expect(after.corrections.map(({ way }) => way)).toEqual(["on-return"]);
  expect(after.findings.map(({ check }) => check)).not.toContain("late-item");
  expect(after.late.map(({ document, separately, reason }) => [document, separately, reason])).toEqual([
    [large.id, true, "VAT652 of 3 July"],
    [bill.id, false, ""],
  ]);
  for (const end of [Q1, Q2]) expect(await client.left(end)).toBe(0);

  const { entry } = await client.settlement(Q2);
  expect(entry.postings.map(({ text, amount }) => [text, amount])).toEqual([
    ["Output tax of the period", 4_000_00],
    ["Input tax of the period", -80_00],
    ["Due for the period", -3_920_00],
    ["Output tax of the period, put right separately", 15_000_00],
    ["Due for the period, put right separately", -15_000_00],
  ]);
  for (const { text, amount, ref } of entry.postings) {
    const step = await server.ok<TrailStep>("GET", `${client.base}/trail?ref=${encodeURIComponent(ref)}`);
    expect([text, Math.abs(step.amount ?? 0)]).toEqual([text, Math.abs(amount)]);
    if (text.endsWith("separately"))
      expect(step.parts.map((part) => [part.ref, part.amount])).toEqual([[`document/${large.id}`, amount]]);
  }

  await client.seal(Q2);
  await client.settle(Q2);
  for (const end of [Q1, Q2]) expect(await client.left(end)).toBe(0);
  const { continuity, outstanding } = await client.settlement(Q2);
  expect(outstanding).toBe(3_920_00 + 15_000_00);
  const row = found(continuity, ({ period }) => period === Q2, Q2);
  expect([row.declared, row.disclosed, row.closing]).toEqual([3_920_00, 15_000_00, row.ledger]);

  const book = await server.ok("GET", `${client.base}/book`);
  const { id } = await server.ok<{ id: number }>("POST", "/books", book);
  expect(await server.ok("GET", `/clients/${id}/book`)).toEqual(book);
});

test("a deliberate error is never simply on the return, and what was said can be taken back", async () => {
  const client = await books(true);
  const small = await client.post(["sales-invoice", "S20", "50.00"], "2026-03-15");
  expect((await client.view(Q2)).corrections).toMatchObject([{ way: "on-return", stops: false }]);
  await client.answer(small, { kind: "deliberate" });
  expect((await client.view(Q2)).corrections).toMatchObject([{ way: "separately", kind: "deliberate" }]);
  await client.answer(small, { separately: true });
  expect(await client.boxes(Q2)).toMatchObject({ "1": "4000" });
  await client.answer(small, { separately: false });
  expect(await client.boxes(Q2)).toMatchObject({ "1": "4010" });
  expect((await client.view(Q2)).late).toMatchObject([{ kind: "error", said: false }]);
});

test("what was put right separately counts in its own period once that is opened, and only there", async () => {
  const client = await books(false);
  const large = await client.post(["sales-invoice", "S20", "75000.00"], "2026-03-15");
  await client.answer(large, { separately: true });
  await server.ok("POST", `${client.registration}/returns/${Q1}/reopen`);
  expect(await client.boxes(Q1)).toMatchObject({ "1": "25000" });
  expect(await client.boxes(Q2)).toMatchObject({ "1": "4000" });
  expect((await client.view(Q2)).late).toEqual([]);
  await client.seal(Q1);
  await client.settle(Q1);
  expect((await client.settlement(Q1)).continuity).toMatchObject([{ declared: 25_000_00, disclosed: 0 }]);
  for (const end of [Q1, Q2]) expect(await client.left(end)).toBe(0);
});

test("only late documents of an open period are answered for", async () => {
  const client = await books(true);
  const own = await client.post(["sales-invoice", "S20", "50.00"], "2026-04-15");
  expectRefusal(await client.answer(own, {}), "returns/not-late");
  const late = await client.post(["sales-invoice", "S20", "50.00"], "2026-03-15");
  expectRefusal(await client.answer(late, {}, Q1), "returns/sealed");
  expectRefusal(await client.answer(late, { reason: "" }), "request/invalid", "reason");
  await client.seal(Q2);
  expectRefusal(await client.answer(late, { separately: true }), "returns/sealed");
});
