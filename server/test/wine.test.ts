import { afterAll, beforeAll, expect, test } from "vitest";
import type { RegisterView } from "@fiscalon/contract/registers";
import type { ReturnView } from "@fiscalon/contract/returns";
import type { SchemeView } from "@fiscalon/contract/schemeView";
import { periodBooks } from "./support/periods.ts";
import { startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

async function winery(claimed = "", from = "2026-01-01") {
  const books = await periodBooks(
    server,
    {
      pack: "au",
      country: "AU",
      levies: ["GST", "WET"],
      frequency: "quarterly",
      anchor: "2026-03-31",
      number: "51824753556",
    },
    from,
  );
  const schemes = [{ scheme: "au-producer-rebate", from, to: null, settings: { claimed } }];
  expect((await books.change({ schemes })).status).toBe(200);
  return books;
}

// au.md, section 14, example 6: 29 % of the year's wine up to the cap of 350,000; nothing for a quoted sale of 5,000.
test("the producer rebate is the wine tax of the year up to its cap, nothing for quoted or other wine", async () => {
  const books = await winery();
  await books.post(["sales-invoice", "WW", "1150000.00"], "2026-02-01");
  await books.post(["sales-invoice", "WQ", "5000.00"], "2026-02-02");
  await books.post(["sales-invoice", "WWN", "10000.00"], "2026-02-03");
  const before = await books.boxes("2026-03-31");
  expect(before).toMatchObject({ "1C": "336400", "1D": "333500" });
  await books.seal("2026-03-31");
  await books.settle("2026-03-31");
  expect(await books.left("2026-03-31")).toBe(0);
  // 16,500 is left of the year to June, then a new year with a cap of its own.
  await books.post(["sales-invoice", "WW", "100000.00"], "2026-05-01");
  expect(await books.boxes("2026-06-30")).toMatchObject({ "1C": "29000", "1D": "16500" });
  await books.post(["sales-invoice", "WW", "100000.00"], "2026-08-01");
  expect(await books.boxes("2026-09-30")).toMatchObject({ "1D": "29000" });
  const [quotes] = await server.ok<RegisterView[]>(
    "GET",
    `${books.registration}/returns/2026-03-31/registers`,
  );
  expect(quotes?.rows.map((row) => [row[0], row[4], row[6]])).toEqual([["2026-02-02", "WQ", 500_000]]);
  expect(quotes?.missing).toContain("1 line without the buyer's ABN");
  const [paper] = await server.ok<SchemeView[]>("GET", `${books.registration}/returns/2026-06-30/schemes`);
  expect(paper?.steps.find(({ box }) => box === "1D")?.arithmetic).toBe(
    "the lesser of 29,000.00 and 350,000.00 − 333,500.00 = 16,500.00",
  );
  await books.expectSameAfterBookFile();
});

test("what was claimed elsewhere since July counts, and a credit below what was claimed is repaid", async () => {
  const books = await winery("345000.00");
  await books.post(["sales-invoice", "WW", "100000.00"], "2026-02-01");
  expect(await books.boxes("2026-03-31")).toMatchObject({ "1D": "5000" });
  // 345,000 + 29,000 − 58,000 leaves 316,000 of 350,000 claimed: 34,000 is repaid out of the 58,000 of the credit note.
  await books.post(["sales-credit-note", "WW", "200000.00"], "2026-05-02");
  expect(await books.boxes("2026-06-30")).toMatchObject({ "1D": "24000" });
});

// au.md, section 7.2: the average wholesale price is that of the same wine in the period, from 10 % wholesale on.
test("the average wholesale price is that of the period's own sales, and only open where a tenth was wholesale", async () => {
  const books = await periodBooks(server, {
    pack: "au",
    country: "AU",
    levies: ["GST", "WET"],
    frequency: "quarterly",
    anchor: "2026-03-31",
    number: "51824753556",
  });
  const item = async (name: string) =>
    (await server.ok<{ ref: string }>("POST", `${books.base}/items`, { name })).ref;
  const [shiraz, mead] = [await item("Shiraz 2024"), await item("Dry mead")];
  const retail = (of: string, quantity: string, averagePrice: string) => ({
    item: of,
    quantity,
    attributes: { averagePrice },
  });
  // 60 at 10.00 and 40 at 15.00: 12.00 on average.
  await books.post(["sales-invoice", "WW", "600.00", { item: shiraz, quantity: "60" }], "2026-01-10");
  await books.post(["sales-invoice", "WW", "600.00", { item: shiraz, quantity: "40" }], "2026-02-10");
  await books.post(["sales-invoice", "WA", "240.00", retail(shiraz, "10", "12.00")], "2026-02-11");
  await books.post(["sales-invoice", "WA", "240.00", retail(shiraz, "10", "11.00")], "2026-02-12");
  await books.post(["sales-invoice", "WW", "60.00", { item: mead, quantity: "5" }], "2026-02-13");
  await books.post(["sales-invoice", "WA", "1800.00", retail(mead, "95", "12.00")], "2026-02-14");
  const { findings } = await server.ok<ReturnView>("GET", `${books.registration}/returns/2026-03-31`);
  expect(findings.filter(({ check }) => check === "average-price").map(({ text }) => text)).toEqual([
    "P-4, line 1: taxed on 11.00 a unit; the period's own wholesale sales of Shiraz 2024 come to 1,200.00 for 100, 12.00 a unit. Correct the average price.",
    "P-6, line 1: 5.0 % of what was sold of Dry mead in this period was sold wholesale, and the average price is open from 10 % on. Use the code of half the retail price.",
  ]);
});
