import { afterAll, beforeAll, expect, test } from "vitest";
import type { PieceView } from "@fiscalon/contract/stockBook";
import type { SchemeView } from "@fiscalon/contract/schemeView";
import { INCLUSIVE, periodBooks } from "./support/periods.ts";
import type { Country } from "./support/periods.ts";
import { startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const zealand: Country = {
  pack: "nz",
  country: "NZ",
  frequency: "two-monthly",
  anchor: "2026-01-31",
  number: "49091850",
};

// nz.md, section 14, example 3: 1,150.00, of which 460.00 is paid in the period: 3/23 × 460 = 60.00, on the invoice basis.
test("New Zealand: second-hand goods give a credit as far as they are paid, on every basis", async () => {
  const books = await periodBooks(server, zealand);
  const goods = await books.post(["purchase-bill", "P2", "1150.00"], "2026-02-10");
  await books.post(["sales-invoice", "S15", "1000.00"], "2026-02-11");
  expect((await books.boxes("2026-03-31"))["11"]).toBeUndefined();
  await books.pay(goods, "460.00", "2026-03-02");
  expect(await books.boxes("2026-03-31")).toMatchObject({ "11": "460", "12": "60" });
  await books.seal("2026-03-31");
  await books.settle("2026-03-31");
  expect(await books.left("2026-03-31")).toBe(0);
  await books.pay(goods, "690.00", "2026-04-20");
  expect(await books.boxes("2026-05-31")).toMatchObject({ "11": "690", "12": "90" });
  // Leaving the registration, or the basis, deducts nothing that is unpaid.
  const unpaid = await periodBooks(server, { ...zealand, basis: "cash" });
  await unpaid.post(["purchase-bill", "P2", "230.00"], "2026-02-10");
  await unpaid.change({ changes: [{ from: "2026-04-01", basis: "accrual" }] });
  expect(await unpaid.boxes("2026-05-31")).toEqual({});
  await books.expectSameAfterBookFile();
});

// za.md, section 7.3: R(15/115 × price × paid in the period ÷ price), in field 15.
test("South Africa: notional input tax of who is no vendor, to the extent paid", async () => {
  const books = await periodBooks(server, {
    pack: "za",
    country: "ZA",
    frequency: "two-monthly",
    anchor: "2026-02-28",
    number: "4440000000",
  });
  const goods = await books.post(["purchase-bill", "SH", "9200.00"], "2026-01-10");
  await books.pay(goods, "4600.00", "2026-01-20");
  expect(await books.boxes("2026-02-28")).toMatchObject({ "15": "600" });
  await books.pay(goods, "4600.00", "2026-03-20");
  expect(await books.boxes("2026-04-30")).toMatchObject({ "15": "600" });
});

// GSTA s 66-10 and Subdiv 66-B; au.md 7.9 and 7.19: the lesser of an eleventh and the GST on the sale; a lot of 2,200.00.
test("Australia: credited on resale, at most the GST on the sale; a lot takes the GST on its parts until it is used up", async () => {
  const books = await periodBooks(server, {
    pack: "au",
    country: "AU",
    levies: ["GST"],
    frequency: "quarterly",
    anchor: "2026-03-31",
    number: "51824753556",
  });
  const [Q1, Q2] = ["2026-03-31", "2026-06-30"];
  const schemes = [{ scheme: "au-second-hand", from: "2026-01-01", to: null, settings: { pool: "" } }];
  expect((await books.change({ schemes })).status).toBe(200);
  const resold = (price: string, cost: string, day: string) =>
    books.post(["sales-invoice", "S2", price, { ...INCLUSIVE, attributes: { cost } }], day);
  await books.post(["purchase-bill", "P2S", "1100.00"], "2026-01-05");
  await resold("1650.00", "1100.00", "2026-02-01"); // 150.00 of tax, 100.00 credited
  await resold("880.00", "1100.00", "2026-02-02"); // 80.00 of tax, all of it credited
  await resold("550.00", "300.00", "2026-02-03"); // credited when it was bought
  // What a piece cost is known to the stock book: 55.00 of tax, 40.00 credited.
  const piece = await server.ok<PieceView>("POST", `${books.base}/pieces`, {
    name: "Wool press",
    identifier: "WP-7",
    kind: "goods",
    boughtOn: "2026-02-05",
    price: "440.00",
    seller: "Odile Brannock",
    sellerAddress: "12 Creek Street, Ararat",
    purchase: { contact: null, ownPaper: true, paidThrough: "" },
  });
  const byPiece = { ...INCLUSIVE, attributes: { piece: String(piece.no) } };
  await books.post(["sales-invoice", "S2", "605.00", byPiece], "2026-02-20");
  expect(await server.ok<PieceView>("GET", `${books.base}/pieces/${piece.no}`)).toMatchObject({
    state: "sold",
    margin: 165_00,
    tax: 55_00,
  });
  expect(await books.boxes(Q1)).toMatchObject({ G1: "3685", G11: "1540", "1A": "335", "1B": "220" });
  await books.post(["purchase-bill", "P2L", "2200.00"], "2026-02-04");
  await books.post(["sales-invoice", "S2L", "1100.00", INCLUSIVE], "2026-03-01");
  expect(await books.boxes(Q1)).toMatchObject({ G1: "4785", G11: "3740", "1A": "335", "1B": "220" });
  const [paper] = await server.ok<SchemeView[]>("GET", `${books.registration}/returns/${Q1}/schemes`);
  expect(paper).toMatchObject({ owed: -320_00, gain: -320_00 });
  await books.seal(Q1);
  await books.settle(Q1);
  expect(await books.left(Q1)).toBe(0);
  await books.post(["sales-invoice", "S2L", "1650.00", INCLUSIVE], "2026-05-01");
  expect(await books.boxes(Q2)).toMatchObject({ "1A": "50" });
  const [next] = await server.ok<SchemeView[]>("GET", `${books.registration}/returns/${Q2}/schemes`);
  expect(next?.steps.map(({ arithmetic }) => arithmetic)).toEqual([
    "the lesser of 150.00 and 100.00 in the pool",
  ]);
  const kept = next?.steps[0]?.id ?? "";
  const rid = books.registration.split("/").at(-1);
  const trail = await server.ok<{ parts: object[]; amount: number }>(
    "GET",
    `${books.base}/trail?ref=${encodeURIComponent(`scheme/${rid}/${Q2}/${kept}`)}`,
  );
  expect([trail.amount, trail.parts.length]).toEqual([-100_00, 1]);
  await books.expectSameAfterBookFile();
});
