import { afterAll, beforeAll, expect, test } from "vitest";
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
