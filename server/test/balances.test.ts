import { afterAll, beforeAll, expect, test } from "vitest";
import { found } from "@fiscalon/core/at";
import type { BalanceRows, BalanceView } from "@fiscalon/contract/balances";
import type { BankLinePage } from "@fiscalon/contract/bank";
import { expectBanksApart } from "./support/banksApart.ts";
import { expectKeptSums } from "./support/keptSums.ts";
import { british, periodBooks } from "./support/periods.ts";
import { expectRefusal } from "./support/refused.ts";
import { startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const MARCH = "2026-03-31";

// Worked out by hand: each difference stands in one document or line. Common practice, no source.
test("debtors, creditors and the bank on a day: what one side has and the other has not is a cause of its own", async () => {
  const books = await periodBooks(server, british());
  const { base } = books;
  const balance = async (id: string, on = MARCH) =>
    found(await server.ok<BalanceView[]>("GET", `${base}/balances?on=${on}`), (one) => one.id === id, id);
  const causes = ({ causes: list }: BalanceView) => list.map(({ id, amount, rows }) => [id, amount, rows]);
  const first = await books.post(["sales-invoice", "S20", "1000.00"], "2026-03-02");
  await books.post(["sales-credit-note", "S20", "100.00"], "2026-03-03");
  await books.pay(first, "500.00", "2026-03-10");
  await books.pay(first, "200.00", "2026-04-02"); // after the day
  const bill = await books.post(["purchase-bill", "S20", "300.00"], "2026-03-04");
  await books.pay(bill, "360.00", "2026-03-12");
  const { contact } = await server.ok<{ contact: { id: number } }>("GET", `${base}/documents/${first.id}`);
  await server.ok("POST", `${base}/payments`, {
    kind: "receipt",
    date: "2026-03-20",
    amount: "75.00",
    contact: contact.id,
    allocations: [],
  });
  await server.ok("POST", `${base}/documents`, {
    kind: "journal",
    date: "2026-03-25",
    prices: "exclusive",
    number: "Written up",
    contact: null,
    lines: [
      { account: "1100", amount: "12.00" },
      { account: "4000", amount: "-12.00" },
    ],
  });
  const debtors = await balance("receivable");
  expect([debtors.left, debtors.right, debtors.rest]).toEqual([517_00, 580_00, 0]);
  expect(causes(debtors)).toEqual([
    ["account", 75_00, 1],
    ["journals", -12_00, 1],
  ]);
  const later = await balance("receivable", "2026-04-30");
  expect([later.right, later.rest]).toEqual([380_00, 0]);
  // The bill is settled in March.
  expect(await server.ok<BalanceView[]>("GET", `${base}/balances?on=${MARCH}`)).toHaveLength(1);
  const before = await balance("payable", "2026-03-05");
  expect([before.left, before.right, before.causes]).toEqual([-360_00, -360_00, []]);

  const rows = await server.ok<BalanceRows>(
    "GET",
    `${base}/balances/rows?on=${MARCH}&of=receivable&cause=account&offset=0&limit=10`,
  );
  expect(rows.rows.map(({ ref, amount }) => [ref?.split("/")[0], amount])).toEqual([["payment", 75_00]]);

  // At the bank: the receipt of 500.00, charges nobody booked, and neither the bill nor the receipt on account.
  await server.upload(
    `${base}/bank/1000/statements`,
    "bank.csv",
    ["Date,Description,Amount", "2026-03-10,Party in GB,500.00", "2026-03-31,Bank charges,-4.50", ""].join(
      "\n",
    ),
  );
  const { rows: lines } = await server.ok<BankLinePage>("GET", `${base}/bank/1000/lines`);
  const line = found(lines, ({ amount }) => amount === 500_00, "the receipt");
  const [entry] = line.proposals.flatMap((one) => (one.kind === "entry" ? [one.entry] : []));
  await server.ok("POST", `${base}/bank-lines/${line.id}/match`, { entry });
  const bank = await balance("bank/1000");
  expect([bank.left, bank.right, bank.rest]).toEqual([215_00, 495_50, 0]);
  expect(causes(bank)).toEqual([
    ["transit", 285_00, 2],
    ["unbooked", -4_50, 1],
  ]);
  const behind = async (cause: string, page = "offset=0&limit=10") => {
    const query = `on=${MARCH}&of=bank%2F1000&cause=${cause}&${page}`;
    const { rows, total } = await server.ok<BalanceRows>("GET", `${base}/balances/rows?${query}`);
    return [total, ...rows.map(({ ref, date, party, amount }) => [ref?.split("/")[0], date, party, amount])];
  };
  const [paid, onAccount] = [
    ["payment", "2026-03-12", "Party in GB", 360_00],
    ["payment", "2026-03-20", "Party in GB", -75_00],
  ];
  expect(await behind("transit")).toEqual([2, paid, onAccount]);
  expect(await behind("transit", "offset=1&limit=1")).toEqual([2, onAccount]);
  expect(await behind("unbooked")).toEqual([1, [undefined, MARCH, "", -4_50]]);
  // The receipt is known to the bank on another day than to the ledger, or never, or before the first line.
  const days = Array.from({ length: 28 }, (_, n) => `2026-03-${String(n + 1).padStart(2, "0")}`);
  await expectBanksApart(server, base, [...days, MARCH, "2026-06-30"]);
  await server.ok("POST", `${base}/bank-lines/${line.id}/unmatch`, {});
  await expectBanksApart(server, base, [...days, MARCH]);
  await expectKeptSums(server);
  expectRefusal(
    await server.call("GET", `${base}/balances/rows?on=${MARCH}&of=till&cause=account&offset=0&limit=1`),
    "agree/no-balance",
    "of",
  );
});

type Books = Awaited<ReturnType<typeof periodBooks>>;
const viewsOn = ({ base }: Books, on: string) => server.ok<BalanceView[]>("GET", `${base}/balances?on=${on}`);
const figures = async (books: Books, on: string, id: string, left = 0) => {
  const {
    left: ours,
    right,
    causes,
    rest,
  } = found(await viewsOn(books, on), (one) => one.id.startsWith(id), id);
  expect(rest).toBe(left);
  return [ours, right, Object.fromEntries(causes.map((cause) => [cause.id, cause.amount]))];
};

// GSTA s 29-10(3), from memory: credit waits for its invoice. The account is agreed as it was on the day, not as it is now.
test("input tax not yet deducted on a day, before and after it is released", async () => {
  const books = await periodBooks(server, {
    pack: "au",
    country: "AU",
    region: "NSW",
    frequency: "quarterly",
    anchor: "2026-03-31",
    number: "51824753556",
  });
  const { id } = await server.ok<{ id: number }>("POST", `${books.base}/documents`, {
    kind: "purchase-bill",
    date: "2026-02-03",
    number: "H-1",
    creditHold: "tax-invoice",
    lines: [{ code: "P10", amount: "1000.00" }],
  });
  await server.ok("POST", `${books.base}/documents`, {
    kind: "journal",
    date: "2026-03-05",
    prices: "exclusive",
    number: "By hand",
    contact: null,
    lines: [
      { account: "1205", amount: "7.00" },
      { account: "3000", amount: "-7.00" },
    ],
  });
  expect(await figures(books, MARCH, "held")).toEqual([107_00, 100_00, { journals: -7_00 }]);
  await server.ok("POST", `${books.base}/held-credit/release`, {
    documents: [id],
    on: "2026-04-10",
    evidence: "the tax invoice",
  });
  expect(await figures(books, MARCH, "held")).toEqual([107_00, 100_00, { journals: -7_00 }]);
  expect(await figures(books, "2026-04-30", "held")).toEqual([7_00, 0, { journals: -7_00 }]);
});

test("purchases under the margin scheme and capital goods against their books, each difference a cause", async () => {
  const books = await periodBooks(server, british());
  await server.ok("POST", `${books.base}/pieces`, {
    name: "Violin",
    identifier: "no label",
    kind: "goods",
    boughtOn: "2026-01-12",
    price: "700.00",
    seller: "Hesper Lockwood",
    sellerAddress: "4 Chapel Row, Todmorden",
    purchase: { contact: null, ownPaper: true, paidThrough: "" },
  });
  await books.post(["purchase-bill", "MGP", "80.00"], "2026-02-01"); // in no stock book
  expect(await figures(books, MARCH, "stock")).toEqual([780_00, 700_00, { unlisted: -80_00 }]);
  expect(await figures(books, "2026-01-20", "stock")).toEqual([700_00, 700_00, {}]);

  const bill = await books.post(["purchase-bill", "CAP20", "300000.00"], "2026-02-10");
  await books.post(["purchase-bill", "CAP20", "260000.00"], "2026-02-11"); // on no list
  const item = { kind: "land", share: "100", yearEnds: 3, uses: {}, ended: null, taxes: { VAT: "0" } };
  const add = (more: object) =>
    server.ok("POST", `${books.registration}/capital-items`, { ...item, firstUse: "2026-03-01", ...more });
  await add({ name: "Kiln hall", net: "299000", evidence: bill.number }); // mistyped
  await add({ name: "Old yard", net: "400000", evidence: "bought in 2019" });
  expect(await figures(books, MARCH, "capital")).toEqual([
    560_000_00,
    699_000_00,
    { unlisted: -260_000_00, net: -1_000_00, elsewhere: 400_000_00 },
  ]);
});

// CGST s.49, from memory: what is not used stays in the credit ledger; the closing entry takes it to its account.
test("credit carried forward: brought in, on a return that is open, and settled", async () => {
  const books = await periodBooks(server, {
    pack: "in",
    country: "IN",
    region: "29",
    frequency: "monthly",
    anchor: "2026-01-31",
    number: "29AAPFM4417K1ZR",
  });
  await books.post(["purchase-bill", "P18", "1000.00"], "2026-01-10");
  const january = "2026-01-31";
  expect(await figures(books, january, "carried")).toEqual([0, 180_00, { open: 180_00 }]);
  await books.seal(january);
  await books.settle(january);
  expect(await figures(books, january, "carried")).toEqual([180_00, 180_00, {}]);
});

// Common practice, no source: what the books owe, less returns the authority does not know yet, is what its account says.
test("a typed balance of the authority's account: returns it does not know are a cause, the rest blocks sealing until accepted", async () => {
  const books = await periodBooks(server, british());
  await books.post(["sales-invoice", "S20", "1000.00"], "2026-01-10");
  await books.seal(MARCH);
  await books.settle(MARCH);
  const say = (on: string, amount: string) =>
    server.call("PUT", `${books.registration}/authority-balance`, { on, amount, note: "by telephone" });
  // Filed today: on the last day of June the books owe 200.00 that the authority had not heard of; 3.10 nobody can explain.
  const june = "2026-06-30";
  expect((await say(june, "3.10")).status).toBe(204);
  const view = found(await viewsOn(books, june), ({ id }) => id.startsWith("authority/"), "authority");
  expect([view.left, view.right, view.rest, view.causes.map(({ id, amount }) => [id, amount])]).toEqual([
    200_00,
    3_10,
    3_10,
    [["unfiled", -200_00]],
  ]);
  // Paid by then, it was known, whenever it was filed.
  await server.ok("POST", `${books.registration}/settlements/${MARCH}/payments`, {
    date: "2026-05-07",
    kind: "payment",
    amount: "200.00",
  });
  expect(await figures(books, june, "authority", 3_10)).toEqual([0, 3_10, {}]);
  await books.post(["sales-invoice", "S20", "10.00"], "2026-05-10");
  expectRefusal(
    await server.call("POST", `${books.registration}/returns/${june}/seal`),
    "returns/findings-open",
  );
  await server.ok("POST", `${books.registration}/agreements/${june}`, {
    id: view.id,
    note: "interest of May",
  });
  await server.ok("POST", `${books.registration}/returns/${june}/seal`);
  await books.expectSameAfterBookFile();
  expectRefusal(await say("2999-01-01", "1.00"), "agree/balance-ahead", "on");
  expect((await say(june, "")).status).toBe(204);
  expect((await viewsOn(books, june)).some(({ id }) => id.startsWith("authority/"))).toBe(false);
});
