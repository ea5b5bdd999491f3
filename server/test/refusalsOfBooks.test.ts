import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { expectRefusal, refusedWithoutTrace } from "./support/refused.ts";
import type { RefusedCase } from "./support/refused.ts";
import { LINE, RECEIPT, smallBooks } from "./support/smallBooks.ts";
import { document, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
let books: Awaited<ReturnType<typeof smallBooks>>;
beforeAll(async () => {
  server = await startServer();
  books = await smallBooks(server);
});
afterAll(() => server.close());

/** What is made before the tests is not there yet while they are listed. */
type More = object | (() => object);
const told = (more: More): object => (typeof more === "function" ? (more as () => object)() : more);

const post =
  (kind: string, lines: object[], more: More = {}) =>
  () =>
    server.call(
      "POST",
      `${books.base}/documents`,
      document(kind, "2026-02-06", lines, { contact: books.reed, ...told(more) }),
    );

describe("a document that cannot be", () => {
  const cases: RefusedCase[] = [
    ["without lines", "request/invalid", "lines", post("sales-invoice", [])],
    [
      "under a number that is taken",
      "document/duplicate-number",
      "number",
      post("sales-invoice", [LINE], { number: "SI-1" }),
    ],
    [
      "of a contact that is not there",
      "document/unknown-contact",
      "contact",
      post("sales-invoice", [LINE], { contact: 999_999 }),
    ],
    [
      "on an account that is not there",
      "ledger/unknown-account",
      "lines[0].account",
      post("sales-invoice", [{ ...LINE, account: "9999" }]),
    ],
    [
      "with a day that does not exist",
      "request/invalid",
      "date",
      post("sales-invoice", [LINE], { date: "2026-02-30" }),
    ],
    [
      "a credit note of somebody else's invoice",
      "document/corrects-other-party",
      "corrects",
      post("sales-credit-note", [LINE], () => ({ contact: books.oxbow, corrects: "SI-1" })),
    ],
    [
      "a journal that does not balance",
      "ledger/unbalanced",
      "lines",
      post(
        "journal",
        [
          { amount: "5.00", account: "6000" },
          { amount: "-4.99", account: "1000" },
        ],
        { contact: null },
      ),
    ],
    [
      "a journal without an account",
      "ledger/no-account",
      "lines[0].account",
      post("journal", [{ amount: "5.00" }, { amount: "-5.00", account: "1000" }], { contact: null }),
    ],
    [
      "a journal in another currency",
      "document/currency",
      "currency",
      post(
        "journal",
        [
          { amount: "5.00", account: "6000" },
          { amount: "-5.00", account: "1000" },
        ],
        { contact: null, currency: "EUR", exchange: { rate: "0.85" } },
      ),
    ],
    [
      "at a rate of exchange of nothing",
      "money/bad-rate",
      "exchange.rate",
      post("sales-invoice", [LINE], { currency: "EUR", exchange: { rate: "0" } }),
    ],
    [
      "to correct one that is paid, into one of another party",
      "document/paid",
      undefined,
      () =>
        server.call(
          "PUT",
          `${books.base}/documents/${books.invoice}`,
          document("sales-invoice", "2026-02-03", [LINE], { contact: books.oxbow, number: "SI-1" }),
        ),
    ],
    [
      "to take out one that is paid",
      "document/paid",
      undefined,
      () =>
        server.call("POST", `${books.base}/documents/${books.invoice}/void`, { reason: "never happened" }),
    ],
    [
      "to take one out without a reason",
      "request/invalid",
      "reason",
      () => server.call("POST", `${books.base}/documents/${books.invoice}/void`, { reason: "" }),
    ],
    [
      "to correct one that is not there",
      "request/not-found",
      undefined,
      () =>
        server.call("PUT", `${books.base}/documents/999999`, document("sales-invoice", "2026-02-03", [LINE])),
    ],
    [
      "a bill sent as an invoice",
      "export/not-sales",
      undefined,
      () => server.call("GET", `${books.base}/documents/${books.bill}/pdf`),
    ],
    [
      "a bill sent as an e-invoice",
      "formats/einvoice-kind",
      undefined,
      () => server.call("GET", `${books.base}/documents/${books.bill}/e-invoice`),
    ],
  ];
  test.each(cases)("%s", async (...given) => refusedWithoutTrace(given, books.state));
});

describe("a payment that cannot be", () => {
  const pay = (more: More) => () =>
    server.call("POST", `${books.base}/payments`, { ...RECEIPT, contact: books.reed, ...told(more) });
  const cases: RefusedCase[] = [
    [
      "of a document that is not there",
      "payment/unknown-document",
      "allocations[0].document",
      pay({ allocations: [{ document: 999_999, amount: "1.00" }] }),
    ],
    [
      "of another party's document",
      "payment/other-party",
      "allocations[0].document",
      pay(() => ({ allocations: [{ document: books.bill, amount: "1.00" }] })),
    ],
    [
      "of more than is open",
      "payment/not-open",
      "allocations[0].amount",
      pay(() => ({ amount: "100.00", allocations: [{ document: books.invoice, amount: "60.01" }] })),
    ],
    ["with a sign", "payment/amount", "amount", pay({ amount: "-60.00" })],
    ["through an account that is not there", "ledger/unknown-account", "account", pay({ account: "9999" })],
    [
      "in another currency, without what the bank made of it",
      "payment/bank-amount",
      "bankAmount",
      pay({ currency: "EUR" }),
    ],
    [
      "taken out twice",
      "payment/wrong-state",
      undefined,
      async () => {
        const { id } = await server.ok<{ id: number }>("POST", `${books.base}/payments`, {
          ...RECEIPT,
          contact: books.reed,
        });
        await server.ok("POST", `${books.base}/payments/${id}/void`, { reason: "bounced" });
        return server.call("POST", `${books.base}/payments/${id}/void`, { reason: "bounced" });
      },
    ],
    [
      "that is not there",
      "request/not-found",
      undefined,
      () => server.call("GET", `${books.base}/payments/999999`),
    ],
  ];
  test.each(cases)("%s", async (...[what, code, field, ask]) => {
    if (what !== "taken out twice") return refusedWithoutTrace([what, code, field, ask], books.state);
    expectRefusal(await ask(), code, field);
  });
  test("and the one that was made stays", async () => {
    expect(await server.ok("GET", `${books.base}/payments/${books.receipt}`)).toMatchObject({
      amount: 60_00,
      state: "posted",
    });
  });
});
