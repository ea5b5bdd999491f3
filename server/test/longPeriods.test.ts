import { afterAll, beforeAll, expect, test } from "vitest";
import type { BankLinePage } from "@fiscalon/contract/bank";
import type { ReturnView } from "@fiscalon/contract/returns";
import { document, newClient, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const many = (count: number, line: object) => Array.from({ length: count }, () => line);

test("the last line of a long period is checked, too; many of one kind are told by the first and how many more", async () => {
  const { base, registration } = await newClient(server);
  const supplier = { name: "Fair & Square", country: "GB", taxNumber: "100000034", registered: true };
  const { id: contact } = await server.ok<{ id: number }>("POST", `${base}/contacts`, supplier);
  const post = (number: string, lines: object[]) =>
    server.ok(
      "POST",
      `${base}/documents`,
      document("purchase-bill", "2026-05-11", lines, { number, contact }),
    );
  for (const number of ["1", "2", "3", "4", "5", "6"])
    await post(number, many(900, { amount: "30.00", code: "S20" }));
  await post("LAST", [{ amount: "100.00", code: "S20", typedTax: { VAT: "25.00" } }]);
  await post("UNCODED", many(620, { amount: "1.00", code: null }));
  const path = `${registration}/returns/2026-06-30`;
  const { findings } = await server.ok<ReturnView>("GET", path);
  const of = (check: string) => findings.filter((one) => one.check === check);
  expect(of("typed-tax").map(({ text }) => text)).toEqual([expect.stringContaining("LAST")]);
  const more = of("no-code").at(-1);
  expect([of("no-code").length, more?.key]).toEqual([501, expect.stringMatching(/^no-code:more:120:/)]);
  expect(more?.text).toMatch(/^120 more of this kind stand behind these 500\./);
  // As many, but others: what was said of the ones before says nothing of these.
  await post("UNCODED-2", many(1, { amount: "2.00", code: null }));
  const next = await server.ok<ReturnView>("GET", path);
  expect(next.findings.map(({ key }) => key)).not.toContain(more?.key);
});

test("a long statement is counted whole: the oldest lines come with what they may be, the others can be paged to", async () => {
  const { base } = await newClient(server);
  const invoice = document("sales-invoice", "2026-05-11", [{ amount: "100.00", code: "S20" }], {
    number: "SI-77",
  });
  await server.ok("POST", `${base}/documents`, invoice);
  const days = Array.from(
    { length: 2_150 },
    (_, n) => `2026-05-${String(12 + (n % 9)).padStart(2, "0")},Till ${n},1.${10 + (n % 90)}`,
  );
  const lines = ["Date,Description,Amount", "2026-05-12,Thanks for SI-77,120.00", ...days];
  await server.upload(`${base}/bank/1000/statements`, "bank.csv", `${lines.join("\n")}\n`);
  const page = (offset: number) =>
    server.ok<BankLinePage>("GET", `${base}/bank/1000/lines?state=open&offset=${offset}&limit=100`);
  const first = await page(0);
  const paid = first.rows.find(({ text }) => text.includes("SI-77"));
  expect(paid?.proposals[0]).toMatchObject({
    kind: "documents",
    label: expect.stringContaining("SI-77") as string,
  });
  const sum =
    120_00 + days.reduce((total, day) => total + Number(day.split(",").at(-1)?.replace(".", "")), 0);
  expect([first.total, first.sum, first.sure]).toEqual([2_151, sum, 1]);
  const last = await page(2_100);
  expect(last.rows).toHaveLength(51);
  const ids = new Set<number>();
  for (let offset = 0; offset < first.total; offset += 100)
    for (const { id } of (await page(offset)).rows) ids.add(id);
  expect(ids.size).toBe(2_151);
  // Accepted, the answer is another one at once.
  expect(await server.ok("POST", `${base}/bank/accept`, { account: "1000" })).toMatchObject({ accepted: 1 });
  expect(await page(0)).toMatchObject({ total: 2_150, sum: sum - 120_00, sure: 0 });
});
