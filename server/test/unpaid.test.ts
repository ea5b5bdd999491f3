import { afterAll, beforeAll, expect, test } from "vitest";
import { at, found } from "@fiscalon/core/at";
import type { ReturnView } from "@fiscalon/contract/returns";
import type { UnpaidPage } from "@fiscalon/contract/unpaid";
import { periodBooks } from "./support/periods.ts";
import type { Country } from "./support/periods.ts";
import { expectRefusal } from "./support/refused.ts";
import { nextVatNumber, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const BRITAIN = { pack: "gb", country: "GB", frequency: "quarterly", anchor: "2026-03-31" };
const [Q3, Q4] = ["2026-09-30", "2026-12-31"];

async function books(country: Partial<Country> = {}) {
  const own = await periodBooks(server, { ...BRITAIN, number: nextVatNumber(), ...country });
  const list = (end: string, rule: string) =>
    server.ok<UnpaidPage>("GET", `${own.registration}/unpaid/${end}?rule=${rule}&search=&limit=100&offset=0`);
  return {
    ...own,
    list,
    asked: async (end: string, rule: string) =>
      (await list(end, rule)).rows.map(({ number, way, owed, over }) => [number, way, owed, over]),
    take: async (end: string, rule: string) => {
      const { rows, account } = await list(end, rule);
      const documents = rows.map(({ document }) => document);
      return server.call("POST", `${own.registration}/unpaid/${end}`, { rule, documents, account });
    },
    due: async (row: Parameters<typeof own.post>[0], date: string, due: string) => {
      const { id } = await own.post(row, date);
      const { input } = await server.ok<{ input: object }>("GET", `${own.base}/documents/${id}`);
      const view = await server.ok<{ contact: { id: number } | null }>("GET", `${own.base}/documents/${id}`);
      return server.ok<{ id: number }>("PUT", `${own.base}/documents/${id}`, {
        ...input,
        due,
        contact: view.contact?.id ?? null,
      });
    },
    checks: async (end: string) =>
      (await server.ok<ReturnView>("GET", `${own.registration}/returns/${end}`)).findings.map(
        ({ check }) => check,
      ),
  };
}

// E13 of gb.md, VAT Notice 700/18 and VATA 1994 s.26A: 4,800 billed, 1,200 received; 900 received after the relief.
test("relief is proposed after six months, taken in bulk, and asked back by what is received", async () => {
  const client = await books();
  const sale = await client.due(["sales-invoice", "S20", "4000.00"], "2026-01-05", "2026-02-04");
  await client.due(["sales-invoice", "S20", "500.00"], "2026-01-06", "2026-04-30");
  await client.pay(sale, "1200.00", "2026-03-01");
  expect(await client.asked("2026-06-30", "bad-debt")).toEqual([]);
  expect(await client.asked(Q3, "bad-debt")).toEqual([["P-1", "relief", -600_00, "2026-08-05"]]);
  expect(await client.checks(Q3)).not.toContain("unpaid-input");
  expect((await client.take(Q3, "bad-debt")).body).toEqual({ posted: 1 });
  expect(await client.boxes(Q3)).toEqual({ "4": "600", "5": "600" });
  expect(await client.left(Q3)).toBe(0);
  expect(await client.asked(Q3, "bad-debt")).toEqual([]);
  expectRefusal(
    await server.call("POST", `${client.registration}/unpaid/${Q3}`, {
      rule: "bad-debt",
      documents: [sale.id],
      account: "8200",
    }),
    "unpaid/nothing-left",
    "documents",
  );

  await client.pay(sale, "900.00", "2026-10-20");
  expect(await client.asked(Q4, "bad-debt")).toEqual([
    ["P-1", "back", 150_00, "2026-08-05"],
    ["P-2", "relief", -100_00, "2026-10-31"],
  ]);
  await client.take(Q4, "bad-debt");
  expect(await client.boxes(Q4)).toMatchObject({ "1": "150", "4": "100" });
  const book = await server.ok<{ documents: { note?: string; lines: object[] }[] }>(
    "GET",
    `${client.base}/book`,
  );
  const notes = book.documents.flatMap(({ note }) => (note === undefined ? [] : [note]));
  expect(at(notes, 0)).toContain("VAT 800.00 × 3,600.00 of 4,800.00 unpaid: 600.00");
  expect(at(notes, 1)).toContain("600.00 done before: back 150.00");
  const { id } = await server.ok<{ id: number }>("POST", "/books", book);
  expect(await server.ok("GET", `/clients/${id}/book`)).toEqual(book);
});

test("what a buyer left unpaid for six months is a finding until it is repaid, and comes back on payment", async () => {
  const client = await books();
  const bill = await client.due(["purchase-bill", "S20", "600.00"], "2026-01-05", "2026-01-31");
  await client.post(["purchase-bill", "BL20", "600.00"], "2026-01-05");
  expect(await client.asked(Q3, "unpaid-input")).toEqual([["P-1", "relief", 120_00, "2026-08-01"]]);
  expect(await client.checks(Q3)).toContain("unpaid-input");
  await client.take(Q3, "unpaid-input");
  expect(await client.boxes(Q3)).toEqual({ "4": "-120", "5": "120" });
  expect(await client.checks(Q3)).not.toContain("unpaid-input");
  const { rows } = await server.ok<{ rows: { id: number; kind: string }[] }>(
    "GET",
    `${client.base}/documents?search=&limit=10`,
  );
  const journal = found(rows, ({ kind }) => kind === "journal", "the journal");
  await server.ok("POST", `${client.base}/documents/${journal.id}/void`, { reason: "not yet" });
  expect(await client.asked(Q3, "unpaid-input")).toHaveLength(1);
  await client.take(Q3, "unpaid-input");
  for (const end of ["2026-03-31", "2026-06-30", Q3]) await client.seal(end);
  const late = { rule: "unpaid-input", documents: [bill.id], account: "8200" };
  expectRefusal(await server.call("POST", `${client.registration}/unpaid/${Q3}`, late), "returns/sealed");
  await client.pay(bill, "720.00", "2026-11-02");
  expect(await client.asked(Q4, "unpaid-input")).toEqual([["P-1", "back", -120_00, "2026-08-01"]]);
  await client.take(Q4, "unpaid-input");
  expect(await client.boxes(Q4)).toEqual({ "4": "120", "5": "120" });
  expect(await client.left(Q4)).toBe(0);
});

test("on the cash basis nothing was declared that could be relieved", async () => {
  const client = await books({ basis: "cash" });
  await client.due(["sales-invoice", "S20", "4000.00"], "2026-01-05", "2026-02-04");
  await client.due(["purchase-bill", "S20", "600.00"], "2026-01-05", "2026-01-31");
  for (const rule of ["bad-debt", "unpaid-input"]) expect(await client.asked(Q3, rule)).toEqual([]);
});

// Example 12 of ae.md, and 7.7: the relief lands in the emirate of the sale.
test("Emirates: the next return by choice of the law, and each emirate for itself", async () => {
  const client = await books({ pack: "ae", country: "AE", region: "DU", number: "" });
  await client.due(["purchase-bill", "P5", "8200.00"], "2026-01-15", "2026-02-15");
  await client.post(["sales-invoice", "S5", "6500.00", { attributes: { emirate: "SH" } }], "2026-01-20");
  expect(await client.asked(Q3, "unpaid-input")).toEqual([]);
  expect(await client.asked(Q4, "unpaid-input")).toEqual([["P-1", "relief", 410_00, "2026-08-16"]]);
  await client.take(Q3, "bad-debt");
  const boxes = await client.boxes(Q3);
  expect(Object.entries(boxes).filter(([box]) => box.endsWith(".j"))).toEqual([
    [expect.stringMatching(/^1[a-g]\.j$/), "-325"],
    ["8.j", "-325"],
  ]);
});

// E8 of in.md, by R.37 read literally: the month after the 180 days.
test("India: each head of the credit is reversed and reclaimed", async () => {
  const client = await books({
    pack: "in",
    country: "IN",
    region: "27",
    frequency: "monthly",
    anchor: "2026-01-31",
    number: "27AAPFM4417K1ZV",
  });
  const bill = await client.post(["purchase-bill", "P18", "100000.00"], "2026-01-10");
  await client.pay(bill, "70800.00", "2026-02-01");
  expect(await client.asked("2026-07-31", "unpaid-input")).toEqual([]);
  expect(await client.asked("2026-08-31", "unpaid-input")).toEqual([
    ["P-1", "relief", 7_200_00, "2026-07-10"],
  ]);
  await client.take("2026-08-31", "unpaid-input");
  expect(await client.boxes("2026-08-31")).toMatchObject({ "4B2.cgst": "3600", "4B2.sgst": "3600" });
  await client.pay(bill, "23600.00", "2026-09-10");
  await client.take("2026-09-30", "unpaid-input");
  expect(await client.boxes("2026-09-30")).toMatchObject({ "4A5.cgst": "1800", "4D1.sgst": "1800" });
});
