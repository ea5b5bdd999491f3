import { afterAll, beforeAll, expect, test } from "vitest";
import { at } from "@fiscalon/core/at";
import type { ReturnView } from "@fiscalon/contract/returns";
import type { PricePreview } from "@fiscalon/contract/views";
import { periodBooks } from "./support/periods.ts";
import { startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

/** VATCA 2010 s.41, example I8 of the sheet: 1,000 with goods of 700 is 23 %, of 600 is 13.5 %. */
test("Ireland: goods above two thirds of the price take the rate of the goods, at two thirds they do not", async () => {
  const books = await periodBooks(server, {
    pack: "ie",
    country: "IE",
    frequency: "two-monthly",
    anchor: "2026-02-28",
    number: "",
  });
  const said = async (code: string, goodsCost: string) => {
    const document = {
      kind: "sales-invoice",
      date: "2026-05-04",
      prices: "exclusive",
      number: `${code}-${goodsCost}`,
      lines: [{ code, amount: "1000.00", attributes: { goodsCost } }],
    };
    await server.ok("POST", `${books.base}/documents`, document);
    const client = Number(books.base.split("/").at(-1));
    const { effect } = await server.ok<PricePreview>("POST", "/price", { client, document });
    return effect.warnings.flatMap(({ code: about, take }) =>
      about === "document/goods-share" ? [take] : [],
    );
  };
  expect(await said("R13", "700.00")).toEqual(["S23"]);
  expect(await said("R13", "666.67")).toEqual(["S23"]);
  expect(await said("R13", "666.66")).toEqual([]);
  expect(await said("R13", "600.00")).toEqual([]);
  expect(await said("S23", "600.00")).toEqual(["R13"]);
  expect(await said("S23", "700.00")).toEqual([]);
  const { findings } = await server.ok<ReturnView>("GET", `${books.registration}/returns/2026-06-30`);
  const found = findings.filter(({ check }) => check === "goods-share");
  expect(found.map(({ source }) => source)).toEqual(Array.from({ length: 3 }, () => "VATCA 2010 s.41"));
  expect(at(found, 0).text).toContain(
    "goods of 700.00 in a price of 1,000.00 are more than two thirds of it",
  );
});

/** UStG § 19(1) as of 2025, example 12 of the sheet: 99,100 so far, the bill of 1,500 passes 100,000. */
test("Germany: the sale that passes the limit of a small business is named, and a year above it ends it", async () => {
  const books = await periodBooks(server, {
    pack: "eu-de",
    country: "DE",
    frequency: "quarterly",
    anchor: "2026-03-31",
    number: "",
  });
  const limits = async (end: string) => {
    const { findings } = await server.ok<ReturnView>("GET", `${books.registration}/returns/${end}`);
    return findings.filter(({ check }) => check === "turnover-limit").map(({ text }) => text);
  };
  await books.post(["sales-invoice", "KU", "99100.00"], "2026-04-02");
  expect(await limits("2026-06-30")).toEqual([]);
  await books.post(["sales-invoice", "KU", "900.00"], "2026-05-02");
  expect(await limits("2026-06-30")).toEqual([]);
  await books.post(["sales-invoice", "KU", "600.00"], "2026-05-03");
  await books.post(["sales-invoice", "KU", "1500.00"], "2026-06-03");
  expect(await limits("2026-06-30")).toEqual([
    "Sales as a small business come to 102,100.00 in 2026, more than 100,000.00. P-3 passes it; from that document on tax is charged.",
  ]);
  expect(await limits("2027-03-31")).toEqual([
    "Sales as a small business come to 102,100.00 in 2026, more than 25,000.00. So it ended on 1 January 2027.",
  ]);
});
