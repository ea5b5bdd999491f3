import { afterAll, beforeAll, expect, test } from "vitest";
import type { AgreementLine } from "@fiscalon/contract/agreements";
import { BRIDGE_BY } from "@fiscalon/contract/bridge";
import type { BridgeByPage, BridgeByRow, BridgePage, BridgeView } from "@fiscalon/contract/bridge";
import { british, INCLUSIVE, periodBooks } from "./support/periods.ts";
import { expectRefusal } from "./support/refused.ts";
import { startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const Q1 = { from: "2026-01-01", to: "2026-03-31" };
const Q2 = { from: "2026-04-01", to: "2026-06-30" };
type Books = Awaited<ReturnType<typeof periodBooks>>;

const query = (span: object) => new URLSearchParams(span as Record<string, string>).toString();
const bridgeOf = ({ registration }: Books, span: object) =>
  server.ok<BridgeView>("GET", `${registration}/bridge?${query(span)}`);
const causes = ({ causes: list }: BridgeView) =>
  Object.fromEntries(list.map(({ name, amount }) => [name, amount / 100]));
const rowsOf = ({ registration }: Books, span: object, cause: string) =>
  server.ok<BridgePage>(
    "GET",
    `${registration}/bridge/rows?${query({ ...span, cause, offset: "0", limit: "50" })}`,
  );

function expectWhole({ left, right, causes: list, open, rest }: BridgeView) {
  expect(list.reduce((sum, { amount }) => sum + amount, left) + rest).toBe(right);
  expect(rest).toBe(open.amount);
}

/** The two figures of a bridge by whatever they are put together by, and every part down to its lines. */
async function expectPartsAddUp(
  { registration }: Books,
  { left, right, causes }: BridgeView,
  ask: Record<string, string>,
) {
  const ofNoLine = causes
    .filter(({ id }) => ["scheme", "by-hand", "sealed", "rounding"].includes(id))
    .reduce((sum, { amount }) => sum + amount, 0);
  const read = <T>(path: string, more: object) =>
    server.ok<T>("GET", `${registration}/bridge/${path}?${query({ ...ask, ...more })}`);
  for (const by of Object.keys(BRIDGE_BY)) {
    const rows = await read<BridgeByRow[]>("by", { by });
    expect([by, ...added(rows)]).toEqual([by, left, right - ofNoLine]);
    for (const { key, ledger, base } of rows) {
      const page = await read<BridgeByPage>("by/lines", { by, key, limit: "500" });
      expect(added(page.rows)).toEqual([ledger, base]);
    }
  }
}

const added = (rows: readonly { ledger: number; base: number }[]) => [
  rows.reduce((sum, { ledger }) => sum + ledger, 0),
  rows.reduce((sum, { base }) => sum + base, 0),
];

/** A journal that credits an account, or debits it, against debtors. */
const journal = (books: Books, number: string, date: string, amount: string, text = number) => {
  const other = amount.startsWith("-") ? amount.slice(1) : `-${amount}`;
  return server.ok("POST", `${books.base}/documents`, {
    kind: "journal",
    date,
    prices: "exclusive",
    number,
    contact: null,
    lines: [
      { account: "4000", amount, text },
      { account: "3000", amount: other, text },
    ],
  });
};

// Worked out by hand from the rules of agree.md; each amount stands in one document. Common practice, no source.
test("each cause between income and box 6 stands for itself, and what nobody can know is named by a person", async () => {
  const books = await periodBooks(server, british());
  const sale = (code: string, amount: string, day: string, more: Record<string, unknown> = {}) =>
    books.post(["sales-invoice", code, amount, more], day);
  await sale("S20", "1000.00", "2026-01-10"); // in both
  await sale("EX", "80.00", "2026-01-11"); // exempt, and in box 6
  await sale("OS", "70.00", "2026-01-12"); // a dividend: outside the scope
  await sale("S20", "400.00", "2026-01-13", { account: "0100" }); // a machine sold: not income
  await books.post(["purchase-bill", "S20", "60.00", { account: "4000" }], "2026-01-14"); // a bill on an income account
  await books.post(["purchase-bill", "RCS", "90.00"], "2026-01-15"); // the buyer owes the tax: stands in box 6
  await journal(books, "ACCRUED", "2026-03-31", "-250.00");
  await journal(books, "SPLIT", "2026-03-31", "-30.00");
  await server.ok("POST", `${books.registration}/returns/2026-03-31/adjustments`, {
    box: "6",
    amount: "15",
    reason: "taken home",
    evidence: "",
  });
  const view = await bridgeOf(books, Q1);
  expectWhole(view);
  await expectPartsAddUp(books, view, { of: "turnover", ...Q1 });
  expect([view.left, view.right, view.boxes, view.state]).toEqual([137_000, 158_500, ["6"], "open"]);
  expect(causes(view)).toEqual({
    "Outside the scope, in none of these boxes": -70,
    "Supplies on balance sheet accounts: disposals, deposits": 400,
    "Purchases posted to income accounts": 60,
    "Purchases among turnover: reverse charge, acquisitions": 90,
    "Boxes adjusted by hand": 15,
  });
  expect(view.open).toEqual({ amount: -280_00, rows: 2 });
  await books.expectSameAfterBookFile();
  const agreed = (note: string) =>
    server.call("POST", `${books.registration}/bridge/agreement`, { ...Q1, note });
  expectRefusal(await agreed(""), "agree/rest", "note");

  const { rows } = await rowsOf(books, Q1, "");
  expect(rows.map(({ number, amount }) => [number, amount])).toEqual([
    ["ACCRUED", -250_00],
    ["SPLIT", -30_00],
  ]);
  const name = (keys: string[], cause: string) =>
    server.ok("POST", `${books.registration}/bridge/causes`, { ...Q1, keys, cause, reason: "seen" });
  await name([rows[0]?.key ?? ""], "Accrued income");
  await name([rows[1]?.key ?? ""], "Moved between shops");
  const named = await bridgeOf(books, Q1);
  expectWhole(named);
  expect([named.rest, causes(named)["Accrued income"]]).toEqual([0, -250]);
  expect((await agreed("")).status).toBe(204);
  expect(await bridgeOf(books, Q1)).toMatchObject({ state: "agreed", changed: [], agreed: { note: "" } });

  const brief = await server.ok<AgreementLine[]>("GET", `${books.registration}/agreements/${Q1.to}`);
  expect(brief.map(({ id, rest, waiting, state }) => [id, rest, waiting, state])).toEqual([
    ["control", 0, 0, "open"],
    ["turnover", 0, 0, "agreed"],
    ["purchases", 0, 0, "open"],
    ["receivable", 0, 0, "open"],
    ["payable", 0, 0, "open"],
    ["unpaid", 0, 0, null],
  ]);
  const agreeLine = (id: string) =>
    server.call("POST", `${books.registration}/agreements/${Q1.to}`, { id, note: "" });
  expect((await agreeLine("receivable")).status).toBe(204);
  expectRefusal(await agreeLine("bank/9999"), "agree/no-balance", "id");

  await sale("S20", "5.00", "2026-02-01");
  expect(await bridgeOf(books, Q1)).toMatchObject({
    state: "changed",
    changed: [
      { name: "Income", before: 137_000, now: 137_500 },
      { name: "Declared", before: 158_500, now: 159_000 },
    ],
  });
  const debtors = (await server.ok<AgreementLine[]>("GET", `${books.registration}/agreements/${Q1.to}`)).find(
    ({ id }) => id === "receivable",
  );
  expect([debtors?.state, debtors?.changed.length]).toEqual(["changed", 2]);
  await books.expectSameAfterBookFile();
  expectRefusal(
    await server.call("GET", `${books.registration}/bridge?${query({ from: "2026-01-02", to: Q1.to })}`),
    "agree/span",
    "from",
  );
});

test("what was named is proposed for the next entry of the same words", async () => {
  const books = await periodBooks(server, british());
  await journal(books, "ACCRUED", "2026-03-31", "-250.00");
  const [row] = (await rowsOf(books, Q1, "")).rows;
  await server.ok("POST", `${books.registration}/bridge/causes`, {
    ...Q1,
    keys: [row?.key ?? ""],
    cause: "Accrued income",
    reason: "",
  });
  await journal(books, "BACK", "2026-04-01", "250.00", "ACCRUED");
  const [next] = (await rowsOf(books, Q2, "")).rows;
  expect(next?.suggestion).toBe("Accrued income");
});

// VATA 1994 Sch. 11, cash accounting: what was invoiced in one quarter is reported when it is received.
test("on the cash basis what waits and what is received of before are causes of their own, and a year has neither", async () => {
  const books = await periodBooks(server, british({ basis: "cash" }));
  const invoice = await books.post(["sales-invoice", "S20", "1000.00"], "2026-03-10");
  await books.pay(invoice, "600.00", "2026-03-20");
  const first = await bridgeOf(books, Q1);
  expectWhole(first);
  expect([first.left, first.right, causes(first)]).toEqual([
    1000_00,
    500_00,
    { "Reported in part, or at another value than it is posted": -500 },
  ]);
  await books.pay(invoice, "600.00", "2026-05-20");
  const second = await bridgeOf(books, Q2);
  expectWhole(second);
  await expectPartsAddUp(books, second, { of: "turnover", ...Q2 });
  expect(causes(second)).toEqual({ "Reported here, dated outside the span": 500 });
  const both = await bridgeOf(books, { from: Q1.from, to: Q2.to });
  expect([both.left, both.right, both.causes, both.rest]).toEqual([1000_00, 1000_00, [], 0]);
});

test("a flat rate trader's turnover with tax, and a form that asks for values with tax", async () => {
  const flat = await periodBooks(server, british());
  await flat.change({
    schemes: [
      {
        scheme: "gb-flat-rate",
        from: "2026-01-01",
        to: null,
        settings: { sector: "retail", turnover: "basic" },
      },
    ],
  });
  await flat.post(["sales-invoice", "S20", "1000.00"], "2026-01-10");
  const flatView = await bridgeOf(flat, Q1);
  expectWhole(flatView);
  await expectPartsAddUp(flat, flatView, { of: "turnover", ...Q1 });
  expect([flatView.right, causes(flatView)]).toEqual([1200_00, { "Turnover as a scheme works it out": 200 }]);
  const zealand = await periodBooks(server, {
    pack: "nz",
    country: "NZ",
    frequency: "two-monthly",
    anchor: "2026-01-31",
    number: "49091850",
  });
  await zealand.post(["sales-invoice", "S15", "1150.00", INCLUSIVE], "2026-02-10");
  await zealand.post(["sales-invoice", "SE", "50.00"], "2026-02-10");
  const days = { from: "2026-02-01", to: "2026-03-31" };
  const view = await bridgeOf(zealand, days);
  expectWhole(view);
  await expectPartsAddUp(zealand, view, { of: "turnover", ...days });
  expect(causes(view)).toEqual({
    "Tax inside the value, as the form asks": 150,
    "Exempt, in none of these boxes": -50,
  });
});

// Worked out by hand: each row stands for one cause. Common practice, no source.
test("costs and box 7: capital goods, blocked tax, wages, a sale on a cost account and timing are causes of their own", async () => {
  const books = await periodBooks(server, british());
  const bill = (amount: string, date: string, more: object = {}) =>
    server.ok("POST", `${books.base}/documents`, {
      kind: "purchase-bill",
      prices: "exclusive",
      number: `P-${amount}`,
      date,
      contact: null,
      lines: [{ code: "S20", amount, account: "5000", ...more }],
    });
  await bill("1000.00", "2026-02-03");
  await bill("400.00", "2026-02-04", { account: "0100" });
  await bill("200.00", "2026-02-05", { code: "HBL" });
  await server.ok("POST", `${books.base}/documents`, {
    kind: "journal",
    date: "2026-03-31",
    prices: "exclusive",
    number: "Wages of the quarter",
    contact: null,
    lines: [
      { account: "6000", amount: "900.00", text: "Wages" },
      { account: "3000", amount: "-900.00", text: "Wages" },
    ],
  });
  await server.ok("POST", `${books.base}/documents`, {
    kind: "sales-invoice",
    date: "2026-03-02",
    prices: "exclusive",
    number: "S-1",
    contact: null,
    lines: [{ code: "S20", amount: "50.00", account: "5000" }],
  });
  const view = await server.ok<BridgeView>(
    "GET",
    `${books.registration}/bridge?of=purchases&from=2026-01-01&to=2026-03-31`,
  );
  expectWhole(view);
  expect([view.of, view.boxes, view.left, view.right]).toEqual(["purchases", ["7"], 2090_00, 1600_00]);
  expect(Object.fromEntries(view.causes.map(({ id, amount }) => [id, amount]))).toEqual({
    bought: 400_00,
    "tax-in-cost": -40_00,
    unbilled: -900_00,
    sold: 50_00,
  });
  expect([view.open.rows, view.rest]).toEqual([0, 0]);

  await expectPartsAddUp(books, view, { of: "purchases", from: "2026-01-01", to: "2026-03-31" });
  const months = await server.ok<BridgeByRow[]>(
    "GET",
    `${books.registration}/bridge/by?${query({ ...Q1, of: "purchases", by: "month" })}`,
  );
  expect(months.map(({ key, ledger, base }) => [key, ledger, base])).toEqual([
    ["2026-02", 1240_00, 1600_00],
    ["2026-03", 850_00, 0],
  ]);
});

// CGST and SGST on one line: its value counts once, whatever it is put together by.
test("a line that bears two levies is once in every part", async () => {
  const books = await periodBooks(server, {
    pack: "in",
    country: "IN",
    region: "29",
    frequency: "monthly",
    anchor: "2026-01-31",
    number: "29AAPFM4417K1ZR",
  });
  await books.post(["sales-invoice", "S18", "1000.00"], "2026-01-10");
  await books.post(["sales-invoice", "S18", "500.00"], "2026-01-20");
  const days = { from: "2026-01-01", to: "2026-01-31" };
  const view = await bridgeOf(books, days);
  expect([view.left, view.right]).toEqual([1500_00, 1500_00]);
  await expectPartsAddUp(books, view, { of: "turnover", ...days });
});
