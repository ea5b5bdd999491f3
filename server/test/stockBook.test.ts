import { afterAll, beforeAll, expect, test } from "vitest";
import type { ReturnView } from "@fiscalon/contract/returns";
import type { PiecePage, PieceView } from "@fiscalon/contract/stockBook";
import { british, periodBooks } from "./support/periods.ts";
import { expectRefusal } from "./support/refused.ts";
import { startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const END = "2026-03-31";
const FIELD = "lines[0].attributes.piece";

async function dealer() {
  const books = await periodBooks(server, british());
  const bought = (name: string, price: string, more: object = {}) =>
    server.ok<PieceView>("POST", `${books.base}/pieces`, {
      name,
      identifier: "no label",
      kind: "goods",
      boughtOn: "2026-01-12",
      price,
      seller: "Hesper Lockwood",
      sellerAddress: "4 Chapel Row, Todmorden",
      purchase: { contact: null, ownPaper: true, paidThrough: "" },
      ...more,
    });
  const sell = (no: number, amount: string, code = "MGS", more: object = {}) =>
    server.call<{ id: number }>("POST", `${books.base}/documents`, {
      kind: "sales-invoice",
      date: "2026-02-14",
      prices: "inclusive",
      lines: [{ code, amount, attributes: { piece: String(no) } }],
      ...more,
    });
  const book = (query = "") => server.ok<PiecePage>("GET", `${books.base}/pieces${query}`);
  const piece = (no: number) => server.ok<PieceView>("GET", `${books.base}/pieces/${no}`);
  return { ...books, bought, sell, book, piece };
}

// VATA 1994 s.50A, VAT Notice 718 section 3: margin a piece, a sixth of it, a loss set against nothing; from memory. Boxes
// by the sheet's 7.4: box 6 the price less the tax inside, box 7 the price when bought.
test("a piece from its purchase to its sale; a loss bears nothing; the account holds what is not sold", async () => {
  const { bought, sell, book, piece, boxes, left } = await dealer();
  const violin = await bought("Violin, Bram Okkerse 1934", "7800.00");
  const viola = await bought("Viola, Idris Pell 1962", "1850.00");
  const cello = await bought("Cello, Saxony 1920", "1260.00");
  expect(violin).toMatchObject({ no: 1, state: "in-stock", missing: [], purchaseNumber: "PM-0001" });
  expect((await sell(violin.no, "9450.00")).status).toBe(201);
  expect((await sell(viola.no, "1700.00")).status).toBe(201);

  expect(await piece(violin.no)).toMatchObject({
    state: "sold",
    margin: 1_650_00,
    tax: 275_00,
    sale: { onMargin: true },
  });
  expect(await piece(viola.no)).toMatchObject({ margin: -150_00, tax: 0 });
  expect(await boxes(END)).toMatchObject({ "1": "275", "6": "10875", "7": "10910" }); // 9,450 − 275 + 1,700
  const { counts, sums, stock } = await book();
  expect(counts).toMatchObject({ inStock: 1, sold: 2, off: 0, toMend: 0, all: 3 });
  expect(sums).toEqual({ sold: 2, bought: 9_650_00, price: 11_150_00, margin: 1_500_00, tax: 275_00 });
  expect(stock).toMatchObject({ pieces: 1, cost: 1_260_00, balance: 1_260_00 });
  expect(await left(END)).toBe(0);

  expectRefusal(await sell(violin.no, "1.00"), "stock/sold", FIELD);
  expectRefusal(await sell(99, "1.00"), "stock/unknown", FIELD);
  const wrongCost = { lines: [{ code: "MGS", amount: "2000", attributes: { piece: "3", cost: "1.00" } }] };
  expectRefusal(await sell(cello.no, "2000.00", "MGS", wrongCost), "stock/cost", FIELD);
});

test("a credit note brings a piece back, a corrected sale still counts once", async () => {
  const { base, bought, sell, piece } = await dealer();
  const { no } = await bought("Bow, silver mounted", "450.00");
  const first = (await sell(no, "870.00")).body;
  await server.ok("PUT", `${base}/documents/${first.id}`, {
    kind: "sales-invoice",
    date: "2026-02-14",
    prices: "inclusive",
    lines: [{ code: "MGS", amount: "900.00", attributes: { piece: String(no) } }],
  });
  expect(await piece(no)).toMatchObject({ state: "sold", sold: 900_00, tax: 75_00 });
  const back = await sell(no, "900.00", "MGS", { kind: "sales-credit-note", date: "2026-02-20" });
  expect(back.status).toBe(201);
  expect(await piece(no)).toMatchObject({ state: "in-stock", sold: null });
  expect((await sell(no, "870.00", "MGS", { date: "2026-03-01" })).status).toBe(201);
  expect(await piece(no)).toMatchObject({ state: "sold", sold: 870_00, tax: 70_00 });
});

test("sets and lots: a set is one margin, a lot shares its price by value; both can be taken back", async () => {
  const { base, bought, sell, piece, book } = await dealer();
  const violin = await bought("Violin", "2400.00");
  const bow = await bought("Bow", "500.00");
  const set = await server.ok<PieceView>("POST", `${base}/pieces/join`, {
    on: "2026-02-01",
    name: "Violin with bow",
    pieces: [violin.no, bow.no],
  });
  expect(set).toMatchObject({ price: 2_900_00, isSet: true, missing: [], parts: [{ no: 1 }, { no: 2 }] });
  expectRefusal(await sell(violin.no, "3000.00"), "stock/ended", FIELD);
  await sell(set.no, "4100.00");
  expect(await piece(set.no)).toMatchObject({ state: "sold", margin: 1_200_00, tax: 200_00 });
  expectRefusal(await server.call("DELETE", `${base}/pieces/${set.no}/end`), "stock/ended", "piece");

  const lot = await bought("Four parlour guitars", "100.00");
  const split = (parts: object[]) =>
    server.ok<PieceView>("POST", `${base}/pieces/${lot.no}/split`, { on: "2026-02-01", parts });
  const { parts } = await split([
    { name: "one", value: "10" },
    { name: "two", value: "10" },
    { name: "three", value: "10" },
  ]);
  expect(parts.map(({ price }) => price)).toEqual([33_34, 33_33, 33_33]);
  expect((await book()).stock).toMatchObject({ cost: 100_00, balance: 100_00 });
  await server.ok("DELETE", `${base}/pieces/${lot.no}/end`);
  expect(await piece(lot.no)).toMatchObject({ state: "in-stock", parts: [] });
});

test("off the scheme by kind, by the bill or by choice: ordinary tax only; what is missing has its price", async () => {
  const { base, bought, sell, piece, book, post, registration } = await dealer();
  const gold = await bought("Gold sovereign", "400.00", { kind: "metal" });
  expectRefusal(await sell(gold.no, "500.00"), "stock/off", FIELD);
  expect((await sell(gold.no, "600.00", "S20")).status).toBe(201);
  expect(await piece(gold.no)).toMatchObject({ margin: null, tax: 100_00, sale: { onMargin: false } });

  const lacking = await bought("Violin, Cyprian Dale", "2150.00", { sellerAddress: "" });
  expect(lacking).toMatchObject({ missing: ["address of the seller"] });
  await sell(lacking.no, "2600.00");
  await sell((await bought("Rebec", "10.00")).no, "16.00");
  await post(
    ["sales-invoice", "MGS", "90.00", { attributes: { cost: "60.00" }, prices: "inclusive" }],
    "2026-03-02",
  );
  const { findings } = await server.ok<ReturnView>("GET", `${registration}/returns/${END}`);
  expect(findings.filter(({ check }) => check === "stock-book").map(({ text }) => text)).toEqual([
    expect.stringMatching(/piece 0002 lacks address of the seller.*433\.33 instead of 75\.00/),
    expect.stringMatching(/names no piece/),
  ]);
  expect((await piece(lacking.no)).consequence).toEqual({ full: 433_33, inside: 75_00 });
  expect((await book("?state=to-mend")).rows.map(({ no }) => no)).toEqual([lacking.no]);

  // Bought in the books without a piece: listed, and taken in with what the bill says.
  const bill = await post(["purchase-bill", "MGP", "320.00", { text: "Mandolin" }], "2026-03-03");
  expect(await book()).toMatchObject({ toTakeIn: 1 });
  await server.ok("POST", `${base}/pieces/take-in`, { lines: [{ document: bill.id, line: 1 }] });
  const taken = (await book()).rows[0];
  expect(taken).toMatchObject({ name: "Mandolin", price: 320_00, seller: "Party in GB" });
});

test("lost pieces leave the stock account with a journal, and come back with it", async () => {
  const { base, bought, book, piece } = await dealer();
  const { no } = await bought("Guitar", "610.00");
  const gone = { kind: "stolen", on: "2026-03-01", reason: "broken into, police report" };
  expect(await server.ok("POST", `${base}/pieces/${no}/end`, gone)).toMatchObject({ state: "stolen" });
  expect((await book()).stock).toMatchObject({ pieces: 0, balance: 0 });
  await server.ok("DELETE", `${base}/pieces/${no}/end`);
  expect(await piece(no)).toMatchObject({ state: "in-stock", ended: null });
  expect((await book()).stock).toMatchObject({ pieces: 1, balance: 610_00 });
});

test("a corrected purchase takes its piece along, one with a piece is not taken out, a wrong piece is removed", async () => {
  const { base, bought, piece, book, sell } = await dealer();
  const { no, bought: bill } = await bought("Viola", "500.00");
  const line = { code: "MGP", amount: "520.00", text: "Viola" };
  const body = { kind: "self-billed-bill", date: "2026-01-12", prices: "inclusive", lines: [line] };
  const { id } = await server.ok<{ id: number }>("PUT", `${base}/documents/${bill?.document}`, body);
  expect(await piece(no)).toMatchObject({ price: 520_00, bought: { document: id, line: 1 } });
  expect(await book()).toMatchObject({ toTakeIn: 0, stock: { cost: 520_00, balance: 520_00 } });
  const out = () => server.call("POST", `${base}/documents/${id}/void`, { reason: "never happened" });
  expectRefusal(await out(), "stock/bought", "documents");

  await server.ok("DELETE", `${base}/pieces/${no}?reason=entered%20twice`);
  expect(await book()).toMatchObject({ total: 0, toTakeIn: 1 });
  expect((await out()).status).toBeLessThan(300);
  const sold = await bought("Cello", "900.00");
  await sell(sold.no, "1000.00");
  expectRefusal(
    await server.call("DELETE", `${base}/pieces/${sold.no}?reason=wrong`),
    "stock/ended",
    "piece",
  );
});

test("imported, exported, printed, and the same after a book file", async () => {
  const { base, bought, sell, book, expectSameAfterBookFile } = await dealer();
  const csv = 'name,price,kind,seller,note\nOld fiddle,"1,200.00",goods,Ida,\'=1+1\nCase,,goods,,\n';
  await server.upload(`${base}/pieces/import?on=2025-12-31`, "stock.csv", csv);
  expect((await book("?sort=no")).rows).toMatchObject([
    {
      no: 1,
      price: 1_200_00,
      missing: ["day of purchase", "number of the purchase paper", "address of the seller"],
    },
    { no: 2, price: null },
  ]);
  expect((await book()).stock).toMatchObject({ cost: 1_200_00, balance: 1_200_00 });
  const wrong = await server.upload(`${base}/pieces/import`, "stock.csv", "name,kind\nA,goods\nB,boat\n");
  expect(wrong).toMatchObject({ status: 422, body: { error: { code: "stock/csv" } } });
  expect((await book()).total).toBe(2);

  const violin = await bought("Violin", "2400.00");
  await sell(violin.no, "3600.00");
  const text = await (await fetch(`${server.address}/api${base}/pieces/export?format=csv`)).text();
  expect(text.split("\r\n").find((row) => row.startsWith("0003"))).toContain(
    "2400.00,sold,2026-02-14,,3600.00,1200.00,200.00",
  );
  for (const path of ["pieces/3/pdf", "pieces/3/pdf?own=true", "pieces/export?format=pdf"]) {
    const answer = await fetch(`${server.address}/api${base}/${path}`);
    expect(
      Buffer.from(await answer.arrayBuffer())
        .subarray(0, 5)
        .toString(),
    ).toBe("%PDF-");
  }

  const copy = await expectSameAfterBookFile();
  const pageOf = async (id: string) => {
    const { rows, sums, stock } = await server.ok<PiecePage>("GET", `${id}/pieces`);
    return { rows, sums, stock };
  };
  expect(await pageOf(`/clients/${copy.id}`)).toEqual(await pageOf(base));
});
