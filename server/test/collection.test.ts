import { afterAll, beforeAll, expect, test } from "vitest";
import type {
  CollectionCustomers,
  CollectionProposal,
  CollectionSheet,
  CollectionView,
  DeductedRows,
} from "@fiscalon/contract/collection";
import { periodBooks } from "./support/periods.ts";
import { expectRefusal } from "./support/refused.ts";
import { startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const LAKH = 1_00_000_00;
/** An invented number with the check character of the country; the PAN is its third to twelfth character. */
const WITH_PAN = "29AABCM4821K1ZB";

async function weaver(way: "receipt" | "invoice", from = "2020-04-01") {
  const books = await periodBooks(
    server,
    {
      pack: "in",
      country: "IN",
      region: "KA",
      frequency: "monthly",
      anchor: "2020-04-30",
      number: "29AAGFM7315R1ZJ",
      options: { collection: way },
    },
    from,
  );
  const contactOf = async (name: string, more: object) =>
    (
      await server.ok<{ id: number }>("POST", `${books.base}/contacts`, {
        name,
        country: "IN",
        region: "KA",
        registered: true,
        ...more,
      })
    ).id;
  return {
    ...books,
    contactOf,
    invoice: (contact: number, number: string, date: string, lines: object[]) =>
      server.ok<{ id: number; gross: number }>("POST", `${books.base}/documents`, {
        kind: "sales-invoice",
        number,
        date,
        contact,
        lines,
      }),
    receive: (contact: number, date: string, amount: string, allocations: object[] = []) =>
      server.ok<{ id: number }>("POST", `${books.base}/payments`, {
        kind: "receipt",
        date,
        amount,
        contact,
        allocations,
      }),
    sheet: (contact: number, day: string) =>
      server.ok<CollectionSheet>("GET", `${books.base}/collection/customers/${contact}?day=${day}`),
    customers: (day: string) =>
      server.ok<CollectionCustomers>("GET", `${books.base}/collection/customers?day=${day}`),
    view: (day: string) => server.ok<CollectionView>("GET", `${books.base}/collection?day=${day}`),
    propose: async (body: object) =>
      (
        await server.ok<{ proposal: CollectionProposal | null }>(
          "POST",
          `${books.base}/collection/proposal`,
          body,
        )
      ).proposal,
  };
}

// E12 of in.md; section 7.8 there: s.206C(1H), CBDT Circular 17/2020, the cut rate to 31 March 2021, the first year's start.
test("only what a customer pays above 50 lakh in a fiscal year bears the tax, from the first day of collection on", async () => {
  const books = await weaver("receipt");
  const cloth = await books.contactOf("Cloth House", { taxNumber: WITH_PAN });
  await books.receive(cloth, "2020-09-20", "4200000.00");
  await books.receive(cloth, "2020-11-10", "1200000.00");
  await books.receive(cloth, "2021-03-02", "944000.00");
  const first = await books.sheet(cloth, "2021-03-31");
  expect(first.receipts.map(({ before, excess, rate, tax }) => [before, excess, rate, tax])).toEqual([
    [0, 0, null, 0],
    [42 * LAKH, 4 * LAKH, "0.075", 300_00],
    [54 * LAKH, 9.44 * LAKH, "0.075", 708_00],
  ]);
  expect(first.identification).toBe("AABCM4821K");
  await books.receive(cloth, "2021-08-01", "5000000.00");
  await books.receive(cloth, "2021-09-01", "118000.00");
  const second = await books.sheet(cloth, "2022-03-31");
  expect(second.receipts.map(({ tax }) => tax)).toEqual([0, 118_00]);
  // Without a number the first of them bears one percent, which is never cut.
  const unknown = await books.contactOf("Nobody Known", { registered: false });
  await books.receive(unknown, "2020-09-20", "4200000.00");
  await books.receive(unknown, "2020-11-10", "1200000.00");
  expect((await books.sheet(unknown, "2021-03-31")).tax).toBe(4_000_00);
  // Withdrawn for receipts from 1 April 2025.
  await books.receive(cloth, "2025-03-31", "5100000.00");
  await books.receive(cloth, "2025-04-01", "9900000.00");
  expect((await books.sheet(cloth, "2025-03-31")).tax).toBe(100_00);
  expect((await books.sheet(cloth, "2026-03-31")).tax).toBe(0);

  const { months, quarters, years } = await books.view("2021-03-31");
  expect(years).toContain("2021-03-31");
  expect(
    months.map(({ to, onReceipts, due }) => [to, onReceipts, due]).filter(([, sum]) => sum !== 0),
  ).toEqual([
    ["2020-11-30", 4_300_00, "2020-12-07"],
    ["2021-03-31", 708_00, "2021-04-07"],
  ]);
  expect(quarters.map(({ due }) => due)).toEqual(["2020-07-15", "2020-10-15", "2021-01-15", "2021-05-15"]);
});

test("what is not for goods sold here does not count: services, buyers who deduct, abroad, the tax itself; openings do", async () => {
  const books = await weaver("receipt");
  const both = await books.contactOf("Both of It", { taxNumber: WITH_PAN });
  const { id } = await books.invoice(both, "W-1", "2022-05-02", [
    { code: "S18", amount: "2000000.00", supply: "goods" },
    { code: "S18", amount: "1000000.00", supply: "services" },
  ]);
  const paid = await books.receive(both, "2022-05-10", "3540000.00", [
    { document: id, amount: "3540000.00" },
  ]);
  expect((await books.sheet(both, "2023-03-31")).received).toBe(23.6 * LAKH);
  await server.ok("PUT", `${books.base}/collection/customers/${both}/opening`, {
    year: "2022-04-01",
    amount: "4000000.00",
    evidence: "ledger of the books before",
  });
  const sheet = await books.sheet(both, "2023-03-31");
  expect([sheet.opening, sheet.excess, sheet.tax]).toEqual([40 * LAKH, 13.6 * LAKH, 1_360_00]);

  const deducts = await books.contactOf("Deducts Itself", {});
  await server.ok("PUT", `${books.base}/collection/customers/${deducts}/deducts`, { deducts: true });
  await books.receive(deducts, "2022-06-01", "9000000.00");
  const abroad = await books.contactOf("Far Away", { country: "AE", region: null, registered: false });
  await books.receive(abroad, "2022-06-01", "9000000.00");
  const { rows, sum } = await books.customers("2023-03-31");
  expect(rows.map(({ name, tax }) => [name, tax])).toEqual([
    ["Deducts Itself", 0],
    ["Both of It", 1_360_00],
  ]);
  expect(sum.left).toBe(1_360_00);

  // Charged once, as a debit note the customer owes; paying that is no receipt that counts.
  const charges = { to: "2022-05-31", customers: [both] };
  expect(await server.ok("POST", `${books.base}/collection/charges`, charges)).toEqual({ posted: 1 });
  expectRefusal(
    await server.call("POST", `${books.base}/collection/charges`, charges),
    "collection/nothing-left",
    "customers",
  );
  // Nor once more for an earlier day of the same year.
  expectRefusal(
    await server.call("POST", `${books.base}/collection/charges`, { to: "2022-05-20", customers: [both] }),
    "collection/nothing-left",
    "customers",
  );
  const [charge] = (await books.sheet(both, "2023-03-31")).charges;
  expect(charge).toMatchObject({ number: "TCS-0001", date: "2022-05-31", amount: 1_360_00, kind: null });
  await books.receive(both, "2022-06-02", "1360.00", [{ document: charge?.document, amount: "1360.00" }]);
  const after = await books.sheet(both, "2023-03-31");
  expect([after.received, after.tax, after.left]).toEqual([23.6 * LAKH, 1_360_00, 0]);
  // On its own account, in no box of the return; left with the day it is paid over.
  expect((await books.view("2022-05-31")).balance).toBe(1_360_00);
  expect((await books.boxes("2022-05-31"))["3.1a.txval"]).toBe("3000000");

  // A note of a month that is sealed is no late item: it is on no return.
  await books.seal("2022-04-30");
  await books.seal("2022-05-31");
  await books.receive(both, "2022-05-30", "1000000.00");
  await server.ok("POST", `${books.base}/collection/charges`, { to: "2022-05-31", customers: [both] });
  const { late } = await server.ok<{ late: object[] }>("GET", `${books.registration}/settlements/2022-06-30`);
  expect(late).toEqual([]);

  // A receipt that is taken out takes its tax along: what was charged is ahead then.
  await server.ok("POST", `${books.base}/payments/${paid.id}/void`, { reason: "bounced" });
  expect((await books.sheet(both, "2023-03-31")).left).toBe(-2_360_00);
  await books.expectSameAfterBookFile();
});

// Section 7.8 of in.md: 49,00,000 and an invoice of 2,36,000; scrap of 2,36,000 with GST, with and without PAN.
test("on invoices: once over the limit, with an advance first, not again on the receipt; and by kind of goods", async () => {
  const books = await weaver("invoice");
  const buyer = await books.contactOf("Buyer", { taxNumber: WITH_PAN });
  await books.receive(buyer, "2022-05-02", "4900000.00");
  const invoice = { contact: buyer, date: "2022-06-01", amount: "236000.00" };
  const advance = await books.propose(invoice);
  // All of it is an advance still, so an invoice of as much is paid by it and bears nothing more.
  expect(advance).toBeNull();
  const covered = await books.invoice(buyer, "I-0", "2022-05-20", [{ code: "EX", amount: "4900000.00" }]);
  expect(covered.gross).toBe(49 * LAKH);
  const open = await server.ok<{ rows: { id: number }[] }>("GET", `${books.base}/payments?limit=5`);
  const [payment] = open.rows;
  await server.ok("PUT", `${books.base}/payments/${payment?.id}`, {
    kind: "receipt",
    date: "2022-05-02",
    amount: "4900000.00",
    contact: buyer,
    allocations: [{ document: covered.id, amount: "4900000.00" }],
  });
  const proposal = await books.propose(invoice);
  expect(proposal?.tax).toBe(136_00);
  expect(proposal?.arithmetic).toContain("136,000.00 above 5,000,000.00");
  const tcs = { code: proposal?.code, account: proposal?.account, amount: "136.00", text: proposal?.text };
  const sold = await books.invoice(buyer, "I-1", "2022-06-01", [{ code: "S18", amount: "200000.00" }, tcs]);
  expect(sold.gross).toBe(236_136_00);
  // The next one bears all of it, though the first is not paid.
  expect((await books.propose({ ...invoice, date: "2022-06-02" }))?.tax).toBe(236_00);
  expect((await books.sheet(buyer, "2023-03-31")).left).toBe(-136_00);
  await books.receive(buyer, "2022-06-20", "236136.00", [{ document: sold.id, amount: "236136.00" }]);
  const sheet = await books.sheet(buyer, "2023-03-31");
  expect([sheet.tax, sheet.charged, sheet.left]).toEqual([136_00, 136_00, 0]);

  const scrap = { date: "2022-07-01", amount: "236000.00", kind: "scrap" };
  expect((await books.propose({ contact: buyer, ...scrap }))?.tax).toBe(2_360_00);
  const dealer = await books.contactOf("Scrap Dealer", { registered: false });
  expect((await books.propose({ contact: dealer, ...scrap }))?.tax).toBe(11_800_00);
  const scrapSold = await books.invoice(dealer, "I-2", "2022-07-01", [
    { code: "S18", amount: "200000.00" },
    { ...tcs, amount: "11800.00", attributes: { collected: "scrap" } },
  ]);
  // Scrap is not collected on twice: what is paid for it counts nowhere else.
  await books.receive(dealer, "2022-07-05", "247800.00", [{ document: scrapSold.id, amount: "247800.00" }]);
  expect((await books.sheet(dealer, "2023-03-31")).received).toBe(0);
  const july = (await books.view("2023-03-31")).months.find(({ to }) => to === "2022-07-31");
  expect([july?.onReceipts, july?.onSales]).toEqual([0, 11_800_00]);

  const file = await fetch(
    `${server.address}/api${books.base}/collection/statement?from=2022-04-01&to=2022-06-30`,
  );
  const csv = await file.text();
  expect(csv).toContain("AABCM4821K,Buyer,2022-06-20");
  expect(csv.trim().split("\n").at(-1)).toContain("136.00");
});

test("what operators deducted from us is listed from the entries on its account", async () => {
  const books = await weaver("receipt");
  const operator = await books.contactOf("Market Place", {});
  const { id } = await books.invoice(operator, "M-1", "2022-05-02", [{ code: "S18", amount: "100000.00" }]);
  await server.ok("POST", `${books.base}/payments`, {
    kind: "receipt",
    date: "2022-05-10",
    amount: "117500.00",
    contact: operator,
    allocations: [{ document: id, amount: "117500.00", difference: "500.00", differenceAccount: "1295" }],
  });
  const { rows, balance, deducted, total } = await server.ok<DeductedRows>(
    "GET",
    `${books.base}/collection/deducted?from=2022-04-01&to=2023-03-31`,
  );
  expect([balance, deducted, total]).toEqual([500_00, 500_00, 1]);
  expect(rows).toMatchObject([{ date: "2022-05-10", party: "Market Place", amount: 500_00 }]);
});
