import { afterAll, beforeAll, expect, test } from "vitest";
import { at, found } from "@fiscalon/core/at";
import { british, periodBooks } from "./support/periods.ts";
import { dropped } from "./support/statements.ts";
import { startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

test("what was decided of one supplier's statement says nothing of another's, though both number alike", async () => {
  const books = await periodBooks(server, british());
  const csv = "Date,Reference,Charges\n2026-01-05,INV-1,120.00\n";
  const [first, second] = await Promise.all(
    ["Sample Paper", "Sample Ink"].map(async (name) => {
      const { id } = await server.ok<{ id: number }>("POST", `${books.base}/contacts`, {
        name,
        country: "GB",
      });
      const query = `kind=supplier&contact=${id}&period=2026-03-31`;
      return dropped(server, books.base, books.registration, query, `${name}.csv`, csv);
    }),
  );
  const [line] = (await first?.lines()) ?? [];
  await first?.post("decisions", { lines: [line?.id], decision: "not-ours", reason: "another customer's" });
  expect(await first?.view()).toMatchObject({ undecided: 0 });
  await second?.post("match");
  expect(await second?.view()).toMatchObject({ undecided: 1 });
});

const STATEMENT = `Statement of account,,,,
,,,,
Date,Reference,Details,Charges,Payments
02/01/2026,,Balance brought forward,250.00,
05/01/2026,INV-0101,Invoice,120.00,
12/01/2026,INV-0102,Invoice,60.00,
20/01/2026,CN-7,Credit note,,12.00
25/01/2026,,Payment received - thank you,,250.00
31/01/2026,INV-0104,Invoice,24.00,
,,Total,,
`;

test("a supplier's statement of account: charges and credits, payments left out, rows paired and parted by hand", async () => {
  const books = await periodBooks(server, british());
  const supplier = await server.ok<{ id: number }>("POST", `${books.base}/contacts`, {
    name: "Sample Paper",
    country: "GB",
  });
  const bill = (number: string, date: string, gross: string, kind = "purchase-bill") =>
    server.ok("POST", `${books.base}/documents`, {
      kind,
      prices: "inclusive",
      number,
      date,
      contact: supplier.id,
      lines: [{ code: "S20", amount: gross }],
    });
  await bill("0101", "2026-01-05", "120");
  await bill("102-A", "2026-01-12", "30");
  await bill("102-B", "2026-01-12", "30");
  await bill("CN 7", "2026-01-20", "12", "purchase-credit-note");
  await bill("X-99", "2026-01-30", "18");
  const query = `kind=supplier&contact=${supplier.id}&period=2026-03-31`;
  const statement = await dropped(server, books.base, books.registration, query, "statement.csv", STATEMENT);
  expect(await statement.view()).toMatchObject({ basis: "gross", rows: 4, theirsTotal: { value: 19200 } });
  const outcomes = async () =>
    (await statement.lines()).map(({ outcome, ours, theirs }) => [
      outcome,
      ours.map(({ number }) => number).join("+"),
      theirs.map(({ number }) => number).join("+"),
    ]);
  expect(await outcomes()).toEqual([
    ["agreed", "0101", "INV-0101"],
    ["parts", "102-A+102-B", "INV-0102"],
    ["agreed", "CN 7", "CN-7"],
    ["only-theirs", "", "INV-0104"],
    ["only-ours", "X-99", ""],
  ]);

  const lines = await statement.lines();
  const byHand = lines.filter(({ outcome }) => outcome.startsWith("only-")).map(({ id }) => id);
  await statement.post("decisions", { lines: byHand, decision: "pair", reason: "the same goods" });
  await statement.post("match");
  const pair = found(
    await statement.lines(),
    ({ decision }) => decision?.decision === "pair",
    "a pair by hand",
  );
  expect(pair).toMatchObject({ ours: [{ number: "X-99" }], theirs: [{ number: "INV-0104" }] });
  await statement.post("decisions/undo", { lines: [pair.id] });
  await statement.post("match");
  expect((await outcomes()).filter(([outcome]) => outcome?.startsWith("only-"))).toHaveLength(2);
  const refused = await server.call(
    "POST",
    `${books.base}/statements/${(await statement.view()).id}/decisions`,
    {
      lines: [at(await statement.lines("only-ours"), 0).id],
      decision: "agreed",
      reason: "",
    },
  );
  expect(refused).toMatchObject({ status: 422, body: { error: { code: "statements/decision" } } });
});

test("the monthly statement of postponed import VAT against our imports", async () => {
  const books = await periodBooks(server, british());
  const mill = await server.ok<{ id: number }>("POST", `${books.base}/contacts`, {
    name: "Sample Mill",
    country: "TR",
  });
  for (const [number, amount] of [
    ["TR-1", "1000"],
    ["TR-2", "400"],
  ])
    await server.ok("POST", `${books.base}/documents`, {
      kind: "purchase-bill",
      prices: "exclusive",
      number,
      date: "2026-01-09",
      contact: mill.id,
      lines: [{ code: "PVA20", amount }],
    });
  const csv =
    "MRN,Acceptance date,Import VAT postponed\n26GB000000000001A1,2026-01-09,200.00\n26GB000000000002B2,2026-01-10,90.00\n";
  const statement = await dropped(
    server,
    books.base,
    books.registration,
    "kind=postponed&period=2026-03-31",
    "mpivs.csv",
    csv,
  );
  const lines = await statement.lines();
  expect(
    lines.map(({ outcome, ours, theirs }) => [outcome, ours[0]?.tax ?? null, theirs[0]?.tax ?? null]),
  ).toEqual(
    expect.arrayContaining([
      ["agreed", 20000, 20000],
      ["only-ours", 8000, null],
      ["only-theirs", null, 9000],
    ]),
  );
});

test("the account at the authority: returns and payments meet, interest and a payment on its way are left to be named", async () => {
  const books = await periodBooks(server, british());
  await books.post(["sales-invoice", "S20", "1000"], "2026-02-10");
  const end = "2026-03-31";
  for (const [what, body] of [
    ["seal", {}],
    ["file", { declared: true }],
  ] as const)
    await server.ok("POST", `${books.registration}/returns/${end}/${what}`, body);
  await server.ok("POST", `${books.registration}/settlements/${end}`, {});
  const pay = (date: string, amount: string) =>
    server.ok("POST", `${books.registration}/settlements/${end}/payments`, { kind: "payment", date, amount });
  await pay("2026-05-05", "150.00");
  await pay("2026-06-29", "50.00");
  const csv = `Date,Description,Charges,Payments
2026-05-07,VAT return 03 26,200.00,
2026-05-06,Payment received,,150.00
2026-06-02,Late payment interest,1.37,
2026-06-30,Balance,51.37,
`;
  const statement = await dropped(
    server,
    books.base,
    books.registration,
    "kind=authority&period=2026-06-30",
    "account.csv",
    csv,
  );
  const lines = (await statement.lines()).map(({ outcome, ours, theirs }) => [
    outcome,
    ours[0]?.value ?? null,
    theirs[0]?.value ?? null,
  ]);
  expect(lines).toHaveLength(4);
  expect(lines).toEqual(
    expect.arrayContaining([
      ["agreed", 20000, 20000],
      ["agreed", -15000, -15000],
      ["only-theirs", null, 137],
      ["only-ours", -5000, null],
    ]),
  );
});
