import { afterAll, beforeAll, expect, test } from "vitest";
import type { ReturnView } from "@fiscalon/contract/returns";
import type { SettlementView } from "@fiscalon/contract/settlement";
import { periodBooks } from "./support/periods.ts";
import { startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const END = "2026-06-30";

const trader = () =>
  periodBooks(server, {
    pack: "in",
    country: "IN",
    region: "29",
    frequency: "quarterly",
    anchor: "2026-03-31",
    number: "29AAPFM4417K1ZR",
    options: { composition: "trader" },
  });

/** CGST s.10(4): no tax is collected and no credit taken; 0.5 + 0.5 % of the taxable turnover of a trader. From memory. */
test("a composition trader: no input tax, tax on turnover is cost with an account of its own, nothing in rounding", async () => {
  const client = await trader();
  await client.post(["sales-invoice", "CS", "240000.00"], "2026-05-04");
  await client.post(["purchase-bill", "P18", "50000.00"], "2026-05-05"); // 4,500 + 4,500, cost
  await client.post(["purchase-bill", "R5", "8000.00"], "2026-05-06"); // 200 + 200 owed, cost
  const boxes = await client.boxes(END);
  expect(boxes).toMatchObject({
    "cmp08.1.cgst": "1200",
    "cmp08.1.sgst": "1200",
    "cmp08.2.cgst": "200",
    "cmp08.2.sgst": "200",
    "cmp08.5": "2800",
  });
  const { findings } = await server.ok<ReturnView>("GET", `${client.registration}/returns/${END}`);
  expect(findings.map(({ check }) => check)).not.toContain("no-box");
  const balance = async () =>
    server.ok<{ code: string; closing: number }[]>(
      "GET",
      `${client.base}/trial-balance?from=2026-04-01&to=${END}`,
    );
  const of = (rows: { code: string; closing: number }[], code: string) =>
    rows.find((row) => row.code === code)?.closing ?? 0;
  const before = await balance();
  // 50,000 + 9,000 and 8,000 + 400: nothing on the accounts of input tax.
  expect([of(before, "5000"), of(before, "1200"), of(before, "1210")]).toEqual([67_400_00, 0, 0]);
  await client.seal(END);
  await client.settle(END);
  const after = await balance();
  expect([of(after, "7994"), of(after, "7990"), of(after, "2291")]).toEqual([2_400_00, 0, -2_800_00]);
  expect(await client.left(END)).toBe(0);
  const { continuity } = await server.ok<SettlementView>("GET", `${client.registration}/settlements/${END}`);
  expect(continuity).toMatchObject([{ declared: 2_800_00, closing: 2_800_00, ledger: 2_800_00 }]);
});

// in.md 4.2: composition, negative quarter likewise; a doubt, marked so on the box.
test("a quarter of more credit notes than sales reduces what the next one pays", async () => {
  const client = await trader();
  await client.post(["sales-credit-note", "CS", "30200.00"], "2026-05-04"); // 151 and 151
  expect(await client.boxes(END)).toMatchObject({ "cmp08.1.cgst": "-151", "cmp08.out.cgst": "151" });
  expect(await client.boxes(END)).not.toHaveProperty(["cmp08.5"]);
  await client.seal(END);
  await client.settle(END);
  expect(await client.left(END)).toBe(0);
  await client.post(["sales-invoice", "CS", "240000.00"], "2026-08-04"); // 1,200 and 1,200
  const next = "2026-09-30";
  expect(await client.boxes(next)).toMatchObject({ "cmp08.in.cgst": "151", "cmp08.5": "2098" });
  await client.seal(next);
  await client.settle(next);
  expect(await client.left(next)).toBe(0);
});
