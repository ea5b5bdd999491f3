import { afterAll, beforeAll, expect, test } from "vitest";
import type { SchemeView } from "@fiscalon/contract/schemeView";
import { INCLUSIVE, periodBooks } from "./support/periods.ts";
import type { Country } from "./support/periods.ts";
import { expectRefusal } from "./support/refused.ts";
import { startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const australia: Country = {
  pack: "au",
  country: "AU",
  levies: ["GST"],
  frequency: "quarterly",
  anchor: "2026-03-31",
  number: "51824753556",
};
const ontario: Country = {
  pack: "ca",
  country: "CA",
  region: "ON",
  levies: ["GST", "HST"],
  frequency: "quarterly",
  anchor: "2026-03-31",
  number: "843162074RT0001",
};
const zealand: Country = {
  pack: "nz",
  country: "NZ",
  frequency: "two-monthly",
  anchor: "2026-01-31",
  number: "49091850",
};

const joined = (scheme: string, settings: Record<string, string>, to: string | null = null) => ({
  schemes: [{ scheme, from: "2026-01-01", to, settings }],
});
const privately = (share: string) => ({ attributes: { privateShare: share } });

// au.md 7.19, GSTA Div 131: phone and car costs with GST of 660.00 claimed in full, 25 % private: 165.00 in 1A.
test("Australia: claimed in full, and the private part taken back once after June", async () => {
  const books = await periodBooks(server, australia);
  const change = await books.change(joined("au-annual-apportionment", { yearEnds: "6", later: "1" }));
  expect(change.status).toBe(200);
  await books.post(["purchase-bill", "P10Y", "4600.00", privately("25")], "2026-02-10");
  await books.post(["purchase-bill", "P10Y", "2000.00", privately("25")], "2026-05-10");
  await books.post(["purchase-bill", "P10Y", "100.00", privately("0")], "2026-05-11");
  expect(await books.boxes("2026-03-31")).toMatchObject({ "1B": "460" });
  expect((await books.boxes("2026-06-30"))["1A"]).toBeUndefined();
  expect(await books.boxes("2026-09-30")).toMatchObject({ "1A": "165" });
  const paper = `${books.registration}/returns/2026-09-30/schemes`;
  const [sheet] = await server.ok<SchemeView[]>("GET", paper);
  expect(sheet?.steps.map(({ arithmetic }) => arithmetic)).toEqual([
    "10.00",
    "660.00",
    "10.00 × 0 % + 660.00 × 25 % = 165.00",
  ]);
  const rid = books.registration.split("/").at(-1);
  const opened = sheet?.steps.map(async ({ id }) =>
    server.ok<{ parts: { amount: number }[] }>(
      "GET",
      `${books.base}/trail?ref=${encodeURIComponent(`scheme/${rid}/2026-09-30/${id}`)}`,
    ),
  );
  const parts = (await Promise.all(opened ?? [])).map((step) => step.parts.map(({ amount }) => amount));
  expect(parts).toEqual([[10_00], [460_00, 200_00], [460_00, 200_00, 10_00]]);
  await books.seal("2026-03-31");
  await books.seal("2026-06-30");
  await books.seal("2026-09-30");
  await books.settle("2026-09-30");
  expect(await books.left("2026-09-30")).toBe(0);
  const bare = server.call("POST", `${books.base}/documents`, {
    kind: "purchase-bill",
    date: "2026-10-02",
    prices: "exclusive",
    number: "BARE",
    contact: null,
    lines: [{ code: "P10Y", amount: "100.00" }],
  });
  expectRefusal(await bare, "tax/missing-input", "lines[0].attributes.privateShare");
  await books.expectSameAfterBookFile();
});

test("who leaves before the year is over takes back on the last return under it", async () => {
  const books = await periodBooks(server, australia);
  await books.change(joined("au-annual-apportionment", { yearEnds: "6", later: "5" }, "2026-03-31"));
  await books.post(["purchase-bill", "C10Y", "1000.00", privately("33.333333")], "2026-02-10");
  expect(await books.boxes("2026-03-31")).toMatchObject({ "1A": "33", "1B": "100" });
  expect((await books.boxes("2026-06-30"))["1A"]).toBeUndefined();
});

// au.md 7.19, GSTA Div 189: 12,000 of 118,000 is 10.17 %: exceeded; of the listed services of 9,000 75 % stays, 6,750.
test("Australia: credits for financial supplies as long as those of twelve months are below the threshold", async () => {
  const books = await periodBooks(server, australia);
  expect((await books.change(joined("au-financial-supplies", {}))).status).toBe(200);
  await books.post(["purchase-bill", "P10", "1060000.00"], "2026-02-01");
  await books.post(["purchase-bill", "PIF", "30000.00"], "2026-02-02");
  expect(await books.boxes("2026-03-31")).toMatchObject({ "1B": "109000" });
  await books.post(["purchase-bill", "R75", "90000.00"], "2026-04-02");
  const sheetOf = async (end: string) => {
    const [sheet] = await server.ok<SchemeView[]>("GET", `${books.registration}/returns/${end}/schemes`);
    return sheet?.steps.map(({ arithmetic }) => arithmetic);
  };
  expect(await sheetOf("2026-03-31")).toEqual(["3,000.00 of 109,000.00 = 2.75… %", "3,000.00"]);
  expect(await sheetOf("2026-06-30")).toEqual(["12,000.00 of 118,000.00 = 10.16… %"]);
  expect(await books.boxes("2026-06-30")).toMatchObject({ "1B": "6750" });
  await books.expectSameAfterBookFile();
});

// ca.md, section 7: rent of 6,000.00 at 30 and at 92 % commercial, at 10 %; an allowance of 2,848.00 on a car.
test("Canada: the commercial share of a line, nearly all being all; the allowance on a car", async () => {
  const books = await periodBooks(server, ontario);
  const rent = (share: string) =>
    ["purchase-bill", "HON-P", "6000.00", { attributes: { recoverable: share } }] as const;
  await books.post([...rent("30")], "2026-01-10");
  expect(await books.boxes("2026-03-31")).toMatchObject({ "106": "234" });
  await books.post([...rent("92")], "2026-04-10");
  expect(await books.boxes("2026-06-30")).toMatchObject({ "106": "780" });
  await books.post([...rent("10")], "2026-07-10");
  await books.post(["purchase-bill", "CCAON", "2848.00"], "2026-09-30");
  expect(await books.boxes("2026-09-30")).toMatchObject({ "106": "327.65" });
});

// nz.md, section 14, example 9: entertainment of a year, 2,300.00 with tax: 50 % × 3/23 = 150.00 in box 9.
test("New Zealand: half of the tax on entertainment is taken back once a year", async () => {
  const books = await periodBooks(server, zealand);
  expect((await books.change(joined("nz-entertainment", { yearEnds: "3", later: "2" }))).status).toBe(200);
  await books.post(["purchase-bill", "P15E", "2300.00", INCLUSIVE], "2026-02-10");
  expect(await books.boxes("2026-03-31")).toMatchObject({ "11": "2300", "12": "300" });
  expect(await books.boxes("2026-05-31")).toEqual({});
  expect(await books.boxes("2026-07-31")).toMatchObject({ "9": "150" });
});

// au.md 7.19, GSTA Div 123: a hot bread shop, 50 % of sales and 75 % of stock free of GST.
test("Australia: a food retailer splits takings and stock by business norms", async () => {
  const books = await periodBooks(server, australia);
  const settings = { trade: "hot-bread", salesFree: "", stockFree: "" };
  expect((await books.change(joined("au-food-retailers", settings))).status).toBe(200);
  await books.post(["cash-sale", "ST", "22000.00", INCLUSIVE], "2026-02-10");
  await books.post(["purchase-bill", "PT", "8800.00", INCLUSIVE], "2026-02-11");
  expect(await books.boxes("2026-03-31")).toMatchObject({
    G1: "22000",
    "1A": "1000",
    G3: "11000",
    "1B": "200",
  });
  await books.seal("2026-03-31");
  await books.settle("2026-03-31");
  expect(await books.left("2026-03-31")).toBe(0);
  const days = [{ date: "2026-04-01", amounts: { ST: "110.00" } }];
  const own = { trade: "own", salesFree: "40", stockFree: "62.5" };
  const later = [
    { scheme: "au-food-retailers", from: "2026-01-01", to: "2026-03-31", settings },
    { scheme: "au-food-retailers", from: "2026-04-01", to: null, settings: own },
  ];
  expect((await books.change({ schemes: later })).status).toBe(200);
  await server.ok("PUT", `${books.base}/takings`, { account: "1000", days });
  expect(await books.boxes("2026-06-30")).toMatchObject({ G1: "110", G3: "44", "1A": "6" });
  await books.expectSameAfterBookFile();
});
