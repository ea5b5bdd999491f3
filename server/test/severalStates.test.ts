import { afterAll, beforeAll, expect, test } from "vitest";
import { found } from "@fiscalon/core/at";
import type { BookFile } from "@fiscalon/contract/book";
import type { RegisterView } from "@fiscalon/contract/registers";
import type { ReturnView } from "@fiscalon/contract/returns";
import type { StockMove } from "@fiscalon/contract/stockMove";
import { periodBooks } from "./support/periods.ts";
import { expectRefusal } from "./support/refused.ts";
import { startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const MAY = "2026-05-31";
const JUNE = "2026-06-30";
/** Numbers of the sheet's check tests: Maharashtra, and Karnataka of the same PAN. */
const MAHARASHTRA = "27ZZZCZ9999Z1ZJ";
const KARNATAKA = "29ZZZCZ9999Z1ZF";

const INDIA = { pack: "in", country: "IN", region: "27", frequency: "monthly", anchor: MAY };

/** A business in Mumbai that registers in Karnataka too, with a shop there. */
async function twoStates() {
  const books = await periodBooks(server, { ...INDIA, number: MAHARASHTRA });
  const client = await server.ok<{ places: { id: number }[] }>("GET", books.base);
  const mumbai = client.places[0]?.id ?? 0;
  const second = await server.ok<{ registrations: { id: number; region: string | null }[] }>(
    "POST",
    `${books.base}/registrations`,
    { pack: "in", from: "2026-01-01", frequency: "monthly", anchor: MAY, number: KARNATAKA },
  );
  const karnataka = found(second.registrations, ({ region }) => region === "29", "Karnataka").id;
  const added = await server.ok<{ places: { id: number; name: string }[] }>("POST", `${books.base}/places`, {
    name: "Bengaluru shop",
    country: "IN",
    region: "29",
  });
  const bengaluru = found(added.places, ({ name }) => name === "Bengaluru shop", "the shop").id;
  const there = `${books.base}/registrations/${karnataka}`;
  const boxesOf = async (registration: string, end: string) => {
    const { boxes } = await server.ok<ReturnView>("GET", `${registration}/returns/${end}`);
    return Object.fromEntries(
      boxes.filter(({ amount }) => amount !== 0).map(({ id, amount }) => [id, amount / 100]),
    );
  };
  const close = async (registration: string, end: string) => {
    const { findings } = await server.ok<ReturnView>("GET", `${registration}/returns/${end}`);
    for (const { key, accepted } of findings)
      if (!accepted)
        await server.ok("POST", `${registration}/returns/${end}/acceptances`, { key, reason: "looked at" });
    await server.ok("POST", `${registration}/returns/${end}/seal`);
    await server.ok("POST", `${registration}/returns/${end}/file`, { declared: true, reference: "by hand" });
    await server.ok("POST", `${registration}/settlements/${end}`);
  };
  const left = async (registration: string, end: string) =>
    (await server.ok<{ left: number }>("GET", `${registration}/agreements/${end}/control`)).left;
  return { ...books, mumbai, bengaluru, here: books.registration, there, boxesOf, close, left };
}

type Books = Awaited<ReturnType<typeof twoStates>>;
const sell = (books: Books, place: number, amount: string, date: string, number: string) =>
  server.ok("POST", `${books.base}/documents`, {
    kind: "sales-invoice",
    number,
    date,
    prices: "exclusive",
    place,
    contact: null,
    lines: [{ text: "Cloth", amount, code: "S18", supply: "goods" }],
  });

/** CGST s.22, 25: a registration for each state; IGST s.7, 8: local by the state the goods leave. */
test("each state has its return, its ledger accounts and its settlement", async () => {
  const books = await twoStates();
  await sell(books, books.mumbai, "1000.00", "2026-05-04", "M-1");
  await sell(books, books.bengaluru, "3000.00", "2026-05-05", "K-1");
  expect(await books.boxesOf(books.here, MAY)).toMatchObject({
    "3.1a.txval": 1000,
    "3.1a.cgst": 90,
    "3.1a.sgst": 90,
  });
  expect(await books.boxesOf(books.there, MAY)).toMatchObject({
    "3.1a.txval": 3000,
    "3.1a.cgst": 270,
    "3.1a.sgst": 270,
    cash: 540,
  });
  expect([await books.left(books.here, MAY), await books.left(books.there, MAY)]).toEqual([0, 0]);
  await books.close(books.here, MAY);
  // The other state is still open: what is posted there keeps its day.
  await sell(books, books.bengaluru, "500.00", "2026-05-20", "K-2");
  expect(await books.boxesOf(books.there, MAY)).toMatchObject({ "3.1a.txval": 3500 });
  expect([await books.left(books.here, MAY), await books.left(books.there, MAY)]).toEqual([0, 0]);
  await books.close(books.there, MAY);
  expect([await books.left(books.here, MAY), await books.left(books.there, MAY)]).toEqual([0, 0]);
  const book = await server.ok<BookFile>("GET", `${books.base}/book`);
  const again = await server.ok<{ id: number }>("POST", "/books", {
    ...book,
    client: { ...book.client, name: "Two states again" },
  });
  const copy = await server.ok<BookFile>("GET", `/clients/${again.id}/book`);
  expect({ ...copy, client: book.client }).toEqual(book);
});

/** CGST Sch. I para 2; sheet section 9: own GSTIN in another state, S{r} inter, table 4A. */
test("stock moved between the states is supplied by the one and credited by the other", async () => {
  const books = await twoStates();
  const move = {
    date: "2026-06-03",
    number: "BT-1",
    from: books.mumbai,
    to: books.bengaluru,
    lines: [{ text: "Cloth, 40 bales", amount: "20000.00", saleCode: "S5", purchaseCode: "P5" }],
  };
  const { sale, purchase } = await server.ok<StockMove>("POST", `${books.base}/stock-moves`, move);
  expect(sale).not.toBe(purchase);
  expect(await books.boxesOf(books.here, JUNE)).toMatchObject({
    "3.1a.txval": 20000,
    "3.1a.igst": 1000,
    "g1.4A.txval": 20000,
    "6.1A.igst.cash": 1000,
  });
  expect(await books.boxesOf(books.there, JUNE)).toMatchObject({ "4A5.igst": 1000, "cl.igst": 1000 });
  const ledger = await server.ok<{ name: string; closing: number }[]>(
    "GET",
    `${books.base}/trial-balance?from=2026-06-01&to=${JUNE}`,
  );
  const between = ledger.find(({ name }) => name === "Stock between our registrations");
  expect(between?.closing).toBe(0);
  expect([await books.left(books.here, JUNE), await books.left(books.there, JUNE)]).toEqual([0, 0]);

  const same = await server.call("POST", `${books.base}/stock-moves`, {
    ...move,
    number: "BT-2",
    to: books.mumbai,
  });
  expectRefusal(same, "stock/one-registration", "to");
  const early = await server.call("POST", `${books.base}/stock-moves`, { ...move, date: "2025-06-03" });
  expectRefusal(early, "stock/not-registered", "from");
});

test("two registrations of one state on one day are refused", async () => {
  const books = await twoStates();
  const again = await server.call("POST", `${books.base}/registrations`, {
    pack: "in",
    from: "2026-02-01",
    frequency: "monthly",
    anchor: MAY,
    number: KARNATAKA,
  });
  expectRefusal(again, "registration/overlap", "from");
});

/** GSTR-1 tables 12 and 13, from memory: by state, with the numbers of what was taken out, agreeing with the tables. */
test("the lists of a state's return: what was sold by code, and the numbers given", async () => {
  const books = await twoStates();
  await server.ok("POST", `${books.base}/items`, { name: "Cloth", statisticalCode: "52081190" });
  const { rows: items } = await server.ok<{ rows: { ref: string; name: string }[] }>(
    "GET",
    `${books.base}/items`,
  );
  const cloth = found(items, ({ name }) => name === "Cloth", "cloth").ref;
  const post = (number: string, place: number, amount: string, line: object = {}) =>
    server.ok<{ id: number }>("POST", `${books.base}/documents`, {
      kind: "sales-invoice",
      number,
      date: "2026-05-07",
      prices: "exclusive",
      place,
      contact: null,
      lines: [{ code: "S5", supply: "goods", amount, ...line }],
    });
  await post("M-1", books.mumbai, "1000.00", { item: cloth, quantity: "4", attributes: { unit: "MTR" } });
  const void2 = await post("M-2", books.mumbai, "500.00");
  await server.ok("POST", `${books.base}/documents/${void2.id}/void`, { reason: "typed twice" });
  await post("M-3", books.mumbai, "250.00", { attributes: { hsn: "6302" } });
  await post("K-1", books.bengaluru, "800.00");
  const registers = await server.ok<RegisterView[]>("GET", `${books.here}/returns/${MAY}/registers`);
  expect(registers.map(({ id, rows, missing }) => [id, rows, missing])).toEqual([
    ["gstr1", [["7A1", "2", 125000, 0, 3125, 3125, 0]], null],
    [
      "12",
      [
        ["B2C", "5208", "Cloth", "MTR", "4", "5", 100000, 0, 2500, 2500, 0],
        ["B2C", "6302", "", "OTH", "0", "5", 25000, 0, 625, 625, 0],
      ],
      null,
    ],
    ["13", [["1 Invoices for outward supply", "M-1", "M-3", 3, 1, 2]], null],
  ]);
  const there = await server.ok<RegisterView[]>("GET", `${books.there}/returns/${MAY}/registers`);
  expect(found(there, ({ id }) => id === "12", "table 12").missing).toContain("no code of 4 digits");
  expect(found(there, ({ id }) => id === "13", "table 13").rows).toEqual([
    ["1 Invoices for outward supply", "K-1", "K-1", 1, 0, 1],
  ]);
});

test("a state registered later takes over what its places did and another state's return has not sealed", async () => {
  const books = await periodBooks(server, { ...INDIA, number: MAHARASHTRA });
  const shop = await server.ok<{ places: { id: number; region: string | null }[] }>(
    "POST",
    `${books.base}/places`,
    { name: "Bengaluru shop", country: "IN", region: "29" },
  );
  const placeIn = (region: string) => found(shop.places, (place) => place.region === region, region).id;
  const sale = (place: number, number: string, date: string) =>
    server.ok("POST", `${books.base}/documents`, {
      kind: "sales-invoice",
      number,
      date,
      prices: "exclusive",
      place,
      contact: null,
      lines: [{ text: "Cloth", amount: "1000.00", code: "S18", supply: "goods" }],
    });
  await sale(placeIn("29"), "K-1", "2026-04-20");
  await sale(placeIn("27"), "M-1", "2026-05-10");
  await sale(placeIn("29"), "K-2", "2026-05-11");
  await books.seal("2026-04-30");
  expect(await books.boxes(MAY)).toMatchObject({ "3.1a.txval": "2000" });
  const { registrations } = await server.ok<{ registrations: { id: number; region: string | null }[] }>(
    "POST",
    `${books.base}/registrations`,
    { pack: "in", from: "2026-04-01", frequency: "monthly", anchor: MAY, number: KARNATAKA },
  );
  const there = `${books.base}/registrations/${found(registrations, ({ region }) => region === "29", "29").id}`;
  const value = async (registration: string, end: string) => {
    const { boxes, drift } = await server.ok<ReturnView>("GET", `${registration}/returns/${end}`);
    expect(drift).toEqual([]);
    return found(boxes, ({ id }) => id === "3.1a.txval", "3.1a").amount;
  };
  const left = async (registration: string, end: string) =>
    (await server.ok<{ left: number }>("GET", `${registration}/agreements/${end}/control`)).left;
  // April was declared in Maharashtra and stays there; May goes to the state it belongs to.
  expect([await value(books.registration, "2026-04-30"), await value(there, "2026-04-30")]).toEqual([
    100000, 0,
  ]);
  expect([await value(books.registration, MAY), await value(there, MAY)]).toEqual([100000, 100000]);
  expect([await left(books.registration, MAY), await left(there, MAY)]).toEqual([0, 0]);

  // Once a state's registration has ended, its places are covered by none, and not by the other state's.
  await server.ok("PUT", there, { to: MAY });
  await sale(placeIn("29"), "K-3", "2026-06-05");
  expect([await value(books.registration, JUNE), await left(books.registration, JUNE)]).toEqual([0, 0]);
});
