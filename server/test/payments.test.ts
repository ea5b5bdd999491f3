import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { GB_CLIENT, document, newClient, nextVatNumber, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

type Refusal = { error: { code: string; field?: string } };
const onCashBasis = () => ({
  ...GB_CLIENT,
  registration: { ...GB_CLIENT.registration, number: nextVatNumber(), basis: "cash" },
});

async function books() {
  const { base, registration } = await newClient(server, onCashBasis());
  const contact = await server.ok<{ id: number }>("POST", `${base}/contacts`, {
    name: "Oxbow",
    country: "GB",
  });
  const invoice = (date: string, amount: string, kind = "sales-invoice") =>
    server.ok<{ id: number; input: { number: string }; open: number }>(
      "POST",
      `${base}/documents`,
      document(kind, date, [{ amount, code: "S20" }], { contact: contact.id }),
    );
  const pay = (date: string, amount: string, allocations: object[], more: object = {}) =>
    server.call<{ id: number; onAccount: number } & Refusal>("POST", `${base}/payments`, {
      kind: "receipt",
      date,
      amount,
      contact: contact.id,
      allocations,
      ...more,
    });
  const boxes = async (from: string, to: string) => {
    const answer = await server.ok<{ boxes: { id: string; exact: string }[] }>(
      "GET",
      `${registration}/returns?from=${from}&to=${to}`,
    );
    return ["1", "6"].map((id) => answer.boxes.find((box) => box.id === id)?.exact);
  };
  const left = async (end: string) =>
    (await server.ok<{ left: number }>("GET", `${registration}/agreements/${end}/control`)).left;
  return { base, registration, invoice, pay, boxes, left, contact: contact.id };
}

const Q1 = ["2026-01-01", "2026-03-31"] as const;
const Q2 = ["2026-04-01", "2026-06-30"] as const;

describe("registered on the cash basis", () => {
  test("part payments in two quarters report their parts there, and the control account agrees in both", async () => {
    const { invoice, pay, boxes, left } = await books();
    const { id, open } = await invoice("2026-02-10", "100.01");
    expect(open).toBe(120_01);
    expect(await boxes(...Q1)).toEqual(["0.00", "0.00"]);
    expect((await pay("2026-03-20", "40.00", [{ document: id, amount: "40.00" }])).status).toBe(201);
    expect((await pay("2026-05-02", "80.01", [{ document: id, amount: "80.01" }])).status).toBe(201);
    expect(await boxes(...Q1)).toEqual(["6.67", "33.33"]);
    expect(await boxes(...Q2)).toEqual(["13.33", "66.68"]);
    expect([await left("2026-03-31"), await left("2026-06-30")]).toEqual([0, 0]);
  });

  test("a correction takes its payments along; taking a paid document out is refused; voiding the payment frees it", async () => {
    const { base, invoice, pay, boxes, contact } = await books();
    const first = await invoice("2026-02-10", "100.00");
    const paid = await pay("2026-02-20", "60.00", [{ document: first.id, amount: "60.00" }]);
    const body = document("sales-invoice", "2026-02-10", [{ amount: "200.00", code: "S20" }], {
      contact,
      number: first.input.number,
    });
    const corrected = await server.ok<{ id: number; open: number }>(
      "PUT",
      `${base}/documents/${first.id}`,
      body,
    );
    expect([corrected.open, await boxes(...Q1)]).toEqual([180_00, ["10.00", "50.00"]]);
    const small = document("sales-invoice", "2026-02-10", [{ amount: "10.00", code: "S20" }], { contact });
    expect(
      (await server.call<Refusal>("PUT", `${base}/documents/${corrected.id}`, small)).body.error.code,
    ).toBe("document/paid");
    const out = await server.call<Refusal>("POST", `${base}/documents/${corrected.id}/void`, {
      reason: "mistake",
    });
    expect([out.status, out.body.error.code]).toEqual([422, "document/paid"]);
    await server.ok("POST", `${base}/payments/${paid.body.id}/void`, { reason: "bounced" });
    expect(await boxes(...Q1)).toEqual(["0.00", "0.00"]);
    await server.ok("POST", `${base}/documents/${corrected.id}/void`, { reason: "mistake" });
  });

  test("a credit note set off against an invoice reports both at once; over-allocation is refused with its field", async () => {
    const { base, invoice, pay, boxes } = await books();
    const bill = await invoice("2026-01-10", "100.00");
    const credit = await invoice("2026-01-20", "25.00", "sales-credit-note");
    const offset = [
      { document: bill.id, amount: "30.00" },
      { document: credit.id, amount: "30.00" },
    ];
    expect((await pay("2026-02-01", "0.00", offset)).status).toBe(201);
    expect(await boxes(...Q1)).toEqual(["0.00", "0.00"]);
    const tooMuch = await pay("2026-02-02", "120.00", [{ document: bill.id, amount: "120.00" }]);
    expect([tooMuch.body.error.code, tooMuch.body.error.field]).toEqual([
      "payment/not-open",
      "allocations[0].amount",
    ]);
    const tooLittle = await pay("2026-02-02", "10.00", [{ document: bill.id, amount: "90.00" }]);
    expect([tooLittle.body.error.code, tooLittle.body.error.field]).toEqual([
      "payment/over-allocated",
      "amount",
    ]);
    const over = await pay("2026-02-03", "95.00", [{ document: bill.id, amount: "90.00" }]);
    expect(over.body.onAccount).toBe(5_00);
    expect(await boxes(...Q1)).toEqual(["15.00", "75.00"]);
    expect(await server.ok("GET", `${base}/open-items`)).toMatchObject({ total: 0, open: 0 });
  });

  test("sealed releases stay; a payment found late is reported in the next period; the book survives export and import", async () => {
    const { base, registration, invoice, pay, boxes } = await books();
    const one = await invoice("2026-02-10", "100.00");
    const two = await invoice("2026-02-11", "50.00");
    const paid = await pay("2026-03-01", "120.00", [{ document: one.id, amount: "120.00" }]);
    const acceptAll = async (end: string) => {
      const { findings } = await server.ok<{ findings: { key: string }[] }>(
        "GET",
        `${registration}/returns/${end}`,
      );
      for (const { key } of findings)
        await server.ok("POST", `${registration}/returns/${end}/acceptances`, {
          key,
          reason: "seen and right",
        });
    };
    await acceptAll("2026-03-31");
    await server.ok("POST", `${registration}/returns/2026-03-31/seal`);
    const undo = await server.call<Refusal>("POST", `${base}/payments/${paid.body.id}/void`, {
      reason: "mistake",
    });
    expect([undo.status, undo.body.error.code]).toEqual([409, "payment/sealed"]);
    await pay("2026-03-15", "60.00", [{ document: two.id, amount: "60.00" }]);
    expect(await boxes(...Q1)).toEqual(["20.00", "100.00"]);
    expect(await boxes(...Q2)).toEqual(["10.00", "50.00"]);

    const exported = await server.ok<{ client: object; payments: object[] }>("GET", `${base}/book`);
    expect(exported.payments).toHaveLength(2);
    const copy = await server.ok<{ id: number }>("POST", "/books", exported);
    expect(await server.ok("GET", `/clients/${copy.id}/book`)).toEqual(exported);
  });

  test("money let go was never received: 1,200.00 invoiced, 1,080.00 paid, 180.00 due", async () => {
    const { base, invoice, pay, boxes } = await books();
    const { id } = await invoice("2026-02-10", "1000.00");
    const writtenOff = { difference: "120.00", differenceAccount: "6850" };
    await pay("2026-03-01", "1080.00", [{ document: id, amount: "1080.00", ...writtenOff }]);
    expect(await boxes(...Q1)).toEqual(["180.00", "900.00"]);
    expect(await server.ok("GET", `${base}/open-items`)).toMatchObject({ total: 0, open: 0 });
  });
});

test("an invoice in another currency: facts in the currency of the books, the rate's change is an exchange difference", async () => {
  const { base, registration } = await newClient(server);
  const contact = await server.ok<{ id: number }>("POST", `${base}/contacts`, {
    name: "Longshore",
    country: "US",
  });
  const sold = document("sales-invoice", "2026-02-10", [{ amount: "1000.01", code: "S20" }], {
    contact: contact.id,
    currency: "USD",
  });
  const refused = await server.call<Refusal>("POST", `${base}/documents`, sold);
  expect([refused.body.error.code, refused.body.error.field]).toEqual([
    "document/no-exchange-rate",
    "exchange.rate",
  ]);
  const exchange = { rate: "0.7931", source: "period rate", date: "2026-02-01" };
  const invoice = await server.ok<{ id: number; open: number; gross: number; tax: number }>(
    "POST",
    `${base}/documents`,
    { ...sold, exchange },
  );
  // 1,000.01 × 0.7931 = 793.107931 → 793.11; 200.00 × 0.7931 = 158.62; 1,200.01 USD are to be paid.
  expect([invoice.open, invoice.gross, invoice.tax]).toEqual([1_200_01, 951_73, 158_62]);
  const payment = (amount: string, bankAmount: string) => ({
    kind: "receipt",
    date: "2026-03-05",
    contact: contact.id,
    currency: "USD",
    amount,
    bankAmount,
    allocations: [{ document: invoice.id, amount }],
  });
  await server.ok("POST", `${base}/payments`, payment("200.01", "160.00"));
  await server.ok("POST", `${base}/payments`, payment("1000.00", "780.00"));
  const balance = await server.ok<{ code: string; closing: number }[]>(
    "GET",
    `${base}/trial-balance?from=2026-01-01&to=2026-03-31`,
  );
  const of = (code: string) => balance.find((row) => row.code === code)?.closing;
  expect([of("1100"), of("1000"), of("6860")]).toEqual([0, 940_00, 951_73 - 940_00]);
  const { boxes } = await server.ok<{ boxes: { id: string; exact: string }[] }>(
    "GET",
    `${registration}/returns?from=2026-01-01&to=2026-03-31`,
  );
  expect(["1", "6"].map((id) => boxes.find((box) => box.id === id)?.exact)).toEqual(["158.62", "793.11"]);
  const exported = await server.ok<object>("GET", `${base}/book`);
  const copy = await server.ok<{ id: number }>("POST", "/books", exported);
  expect(await server.ok("GET", `/clients/${copy.id}/book`)).toEqual(exported);
});
