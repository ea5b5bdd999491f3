import { afterAll, beforeAll, expect, test } from "vitest";
import type { HeldCreditPage } from "@fiscalon/contract/credit";
import { periodBooks } from "./support/periods.ts";
import type { Country } from "./support/periods.ts";
import { expectRefusal } from "./support/refused.ts";
import { startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const AU: Country = {
  pack: "au",
  country: "AU",
  frequency: "quarterly",
  anchor: "2026-03-31",
  number: "51824753556",
};

async function books(where: Country) {
  const client = await periodBooks(server, where);
  const balance = async (code: string, on: string) =>
    (
      await server.ok<{ code: string; closing: number }[]>(
        "GET",
        `${client.base}/trial-balance?from=2026-01-01&to=${on}`,
      )
    ).find((row) => row.code === code)?.closing;
  return {
    ...client,
    balance,
    bill: async (code: string, amount: string, date: string, more: object) =>
      server.ok<{ id: number }>("POST", `${client.base}/documents`, {
        kind: "purchase-bill",
        date,
        number: `H-${amount}`,
        lines: [{ code, amount }],
        ...more,
      }),
    held: (state = "waiting") =>
      server.ok<HeldCreditPage>("GET", `${client.base}/held-credit?state=${state}`),
    release: (documents: number[], on: string) =>
      server.call("POST", `${client.base}/held-credit/release`, {
        documents,
        on,
        evidence: "the tax invoice",
      }),
    takeBack: (document: number) => server.call("DELETE", `${client.base}/held-credit/${document}`),
  };
}

/** GSTA s 29-10(3): a credit belongs to the period in which the tax invoice is held. From memory. */
test("Australia: a credit waits for its tax invoice, on no statement, on an account of its own", async () => {
  const client = await books(AU);
  const hold = { creditHold: "tax-invoice" };
  const bill = await client.bill("P10", "1000.00", "2026-02-03", hold); // 100.00
  await client.bill("P10", "50.00", "2026-02-04", {}); // 5.00
  expect(await client.boxes("2026-03-31")).toMatchObject({ "1B": "5", G11: "55" });
  expect([await client.balance("1205", "2026-03-31"), await client.balance("1200", "2026-03-31")]).toEqual([
    100_00, 5_00,
  ]);
  expect(await client.held()).toMatchObject({
    total: 1,
    waiting: 100_00,
    ledger: 100_00,
    rows: [{ document: bill.id, tax: 100_00, waitsFor: "the tax invoice", released: null }],
  });
  expect(await client.left("2026-03-31")).toBe(0);
  await client.seal("2026-03-31");

  expectRefusal(await client.release([bill.id], "2026-02-02"), "credit/before-document", "on");
  expect((await client.release([bill.id], "2026-05-06")).status).toBe(204);
  expect(await client.boxes("2026-06-30")).toMatchObject({ "1B": "100", G11: "1100" });
  expect([await client.balance("1205", "2026-06-30"), await client.balance("1200", "2026-06-30")]).toEqual([
    0, 105_00,
  ]);
  expect(await client.held()).toMatchObject({ total: 0, waiting: 0, ledger: 0 });
  expect(await client.held("released")).toMatchObject({
    rows: [{ released: "2026-05-06", evidence: "the tax invoice", days: 92 }],
  });
  for (const end of ["2026-03-31", "2026-06-30"]) expect(await client.left(end)).toBe(0);

  expect((await client.takeBack(bill.id)).status).toBe(204);
  expect(await client.boxes("2026-06-30")).toEqual({});
  expect(await client.balance("1205", "2026-06-30")).toBe(100_00);
  await client.release([bill.id], "2026-05-06");
  await client.seal("2026-06-30");
  expectRefusal(await client.takeBack(bill.id), "credit/sealed");
  for (const end of ["2026-03-31", "2026-06-30"]) expect(await client.left(end)).toBe(0);

  const book = await server.ok("GET", `${client.base}/book`);
  const { id } = await server.ok<{ id: number }>("POST", "/books", book);
  expect(await server.ok("GET", `/clients/${id}/book`)).toEqual(book);
});

/** GSTA s 29-10(2) and (3) together: on the cash basis to the extent paid, once the invoice is held. */
test("Australia, cash basis: what was paid counts from the day the invoice is there", async () => {
  const client = await books({ ...AU, basis: "cash" });
  const bill = await client.bill("P10", "1000.00", "2026-02-03", { creditHold: "tax-invoice" });
  await client.pay(bill, "440.00", "2026-02-20"); // 40.00
  expect(await client.boxes("2026-03-31")).toEqual({});
  await client.release([bill.id], "2026-04-10");
  expect(await client.boxes("2026-06-30")).toMatchObject({ "1B": "40", G11: "440" });
  await client.pay(bill, "660.00", "2026-07-05");
  expect(await client.boxes("2026-09-30")).toMatchObject({ "1B": "60", G11: "660" });
  for (const end of ["2026-03-31", "2026-06-30", "2026-09-30"]) expect(await client.left(end)).toBe(0);
});

test("a paper put beside the bill is the tax invoice that was missing", async () => {
  const client = await books(AU);
  const bill = await client.bill("P10", "1000.00", "2026-02-03", { creditHold: "tax-invoice" });
  const { status } = await server.upload(
    `${client.base}/documents/${bill.id}/attachments`,
    "invoice 7.pdf",
    "%PDF-1.7\n1 0 obj\n",
  );
  expect(status).toBe(201);
  expect(await client.held("released")).toMatchObject({ total: 1, rows: [{ evidence: "invoice 7.pdf" }] });
});

test("a corrected bill waits on, or stays released; a hold nobody knows, and a bill that holds nothing, are refused", async () => {
  const client = await books(AU);
  const body = (amount: string) => ({
    kind: "purchase-bill",
    date: "2026-02-03",
    number: "H-1",
    creditHold: "tax-invoice",
    lines: [{ code: "P10", amount }],
  });
  const first = await server.ok<{ id: number }>("POST", `${client.base}/documents`, body("1000.00"));
  const second = await server.ok<{ id: number }>(
    "PUT",
    `${client.base}/documents/${first.id}`,
    body("1200.00"),
  );
  expect(await client.held()).toMatchObject({ total: 1, waiting: 120_00, ledger: 120_00 });
  await client.release([second.id], "2026-05-06");
  const third = await server.ok<{ id: number }>(
    "PUT",
    `${client.base}/documents/${second.id}`,
    body("1300.00"),
  );
  expect(await client.held("released")).toMatchObject({ rows: [{ document: third.id, tax: 130_00 }] });
  expect(await client.boxes("2026-06-30")).toMatchObject({ "1B": "130" });
  expect([await client.balance("1205", "2026-06-30"), await client.left("2026-06-30")]).toEqual([0, 0]);

  await server.ok("POST", `${client.base}/documents/${third.id}/void`, { reason: "never came" });
  expect([await client.balance("1205", "2026-06-30"), await client.balance("1200", "2026-06-30")]).toEqual([
    0, 0,
  ]);
  const plain = await client.bill("P10", "10.00", "2026-02-03", {});
  expectRefusal(await client.release([plain.id], "2026-05-06"), "credit/not-held", "documents");
  const unknown = await server.call("POST", `${client.base}/documents`, {
    ...body("1.00"),
    creditHold: "mood",
  });
  expectRefusal(unknown, "document/unknown-hold", "creditHold");
});

/** CGST s.16(2)(aa): no credit before the supplier furnished the document; GSTR-3B 4A5 of that month. From memory. */
test("India: a bill that is not in GSTR-2B yet", async () => {
  const client = await books({
    pack: "in",
    country: "IN",
    region: "29",
    frequency: "monthly",
    anchor: "2026-01-31",
    number: "29AAPFM4417K1ZR",
  });
  const bill = await client.post(["purchase-bill", "PH18", "5000.00"], "2026-06-10"); // 450 + 450
  expect(await client.boxes("2026-06-30")).toEqual({});
  expect(await client.held()).toMatchObject({ total: 1, waiting: 900_00, ledger: 900_00 });
  await client.release([bill.id], "2026-08-14");
  expect(await client.boxes("2026-08-31")).toMatchObject({ "4A5.cgst": "450", "4A5.sgst": "450" });
  for (const end of ["2026-06-30", "2026-08-31"]) expect(await client.left(end)).toBe(0);
});
