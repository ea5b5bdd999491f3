import { afterAll, beforeAll, expect, test } from "vitest";
import type { SettlementView } from "@fiscalon/contract/settlement";
import { british, periodBooks } from "./support/periods.ts";
import { startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

const Q1 = "2026-03-31";
let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

// Finance Act 2021 Sch. 26, as the pack has it; due on 7 May 2026.
test("what being late costs follows payments, is recorded as a charge, and is no part of what bears it", async () => {
  const books = await periodBooks(server, british());
  await books.post(["sales-invoice", "S20", "50000.00"], "2026-02-10");
  const settlement = () => server.ok<SettlementView>("GET", `${books.registration}/settlements/${Q1}`);
  const proposed = async () =>
    Object.fromEntries((await settlement()).lateCharges.proposed.map(({ id, amount }) => [id, amount]));
  expect(Object.keys(await proposed())).toEqual(["interest", "day-15", "day-30", "second"]);
  await books.seal(Q1);
  await books.settle(Q1);
  const pay = (kind: string, date: string, amount: string) =>
    server.ok("POST", `${books.registration}/settlements/${Q1}/payments`, { kind, date, amount });
  // 6,000.00 in time for day 15, the rest on day 26: three percent of 4,000.00 once, nothing at day 30 and later.
  await pay("payment", "2026-05-15", "6000.00");
  await pay("payment", "2026-06-02", "4000.00");
  const { lateCharges: late, outstanding } = await settlement();
  expect(outstanding).toBe(0);
  // 7.75 % on 10,000.00 for 8 days and on 4,000.00 for 18.
  const interest = Math.round((7.75 * (10_000 * 8 + 4_000 * 18)) / 365);
  expect(late.proposed.map(({ id, amount }) => [id, amount])).toEqual([
    ["interest", interest],
    ["day-15", 120_00],
  ]);
  expect(late.proposed[0]?.arithmetic[0]).toContain("10,000.00 × 7.75 % × 8 / 365");
  await pay("penalty", "2026-07-01", "120.00");
  const after = await settlement();
  expect(after.lateCharges).toMatchObject({ recorded: 120_00, proposed: late.proposed });
  expect(after.outstanding).toBe(120_00);
  // In time: nothing.
  await books.post(["sales-invoice", "S20", "1000.00"], "2026-05-10");
  await books.seal("2026-06-30");
  await books.settle("2026-06-30");
  await server.ok("POST", `${books.registration}/settlements/2026-06-30/payments`, {
    kind: "payment",
    date: "2026-08-07",
    amount: "200.00",
  });
  const second = await server.ok<SettlementView>("GET", `${books.registration}/settlements/2026-06-30`);
  expect(second.lateCharges.proposed).toEqual([]);
});
