import { at } from "@fiscalon/core/at";
import { droppedOn } from "./support/dropped.ts";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { expectRefusal, refusedWithoutTrace } from "./support/refused.ts";
import type { RefusedCase } from "./support/refused.ts";
import { LINE, smallBooks } from "./support/smallBooks.ts";
import { document, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
let books: Awaited<ReturnType<typeof smallBooks>>;
beforeAll(async () => {
  server = await startServer();
  books = await smallBooks(server);
});
afterAll(() => server.close());

describe("a return that cannot be", () => {
  const of = (end: string) => `${books.registration}/returns/${end}`;
  const cases: RefusedCase[] = [
    ["of a period that is none", "returns/no-period", "period", () => server.call("GET", of("2026-03-30"))],
    [
      "of a registration that is not there",
      "request/not-found",
      undefined,
      () => server.call("GET", `${books.base}/registrations/999999/returns/2026-03-31`),
    ],
    [
      "sealed before it has ended",
      "returns/not-ended",
      undefined,
      () => server.call("POST", `${of("2099-12-31")}/seal`),
    ],
    [
      "sealed while an earlier one is open",
      "returns/earlier-open",
      undefined,
      async () => {
        await server.ok(
          "POST",
          `${books.base}/documents`,
          document("sales-invoice", "2026-05-03", [LINE], { contact: books.reed }),
        );
        return server.call("POST", `${of("2026-06-30")}/seal`);
      },
    ],
    [
      "filed before it is sealed",
      "returns/wrong-state",
      undefined,
      () => server.call("POST", `${of("2026-03-31")}/file`, { declared: true }),
    ],
    [
      "filed without the declaration",
      "request/invalid",
      "declared",
      () => server.call("POST", `${of("2026-03-31")}/file`, { declared: false }),
    ],
    [
      "opened again while it is open",
      "returns/wrong-state",
      undefined,
      () => server.call("POST", `${of("2026-03-31")}/reopen`, { reason: "forgot one" }),
    ],
    [
      "adjusted in a box it does not have",
      "returns/no-box",
      "box",
      () =>
        server.call("POST", `${of("2026-03-31")}/adjustments`, {
          box: "12",
          amount: "1.00",
          reason: "till difference",
        }),
    ],
    [
      "with a finding accepted that is not there",
      "findings/not-found",
      "key",
      () => server.call("POST", `${of("2026-03-31")}/acceptances`, { key: "twin/1", reason: "fine here" }),
    ],
    [
      "settled before it is filed",
      "settle/wrong-state",
      undefined,
      () => server.call("POST", `${books.registration}/settlements/2026-03-31`),
    ],
    [
      "paid before it is filed",
      "settle/wrong-state",
      undefined,
      () =>
        server.call("POST", `${books.registration}/settlements/2026-03-31/payments`, {
          date: "2026-05-01",
          kind: "payment",
          amount: "1.00",
        }),
    ],
    [
      "with an entry explained that explains itself",
      "agree/not-a-journal",
      undefined,
      async () => {
        const entry = await books.entryOf(60_00);
        return server.call("PUT", `${books.base}/entries/${entry}/explanation`, { reason: "because" });
      },
    ],
  ];
  test.each(cases)("%s", async (_what, code, field, ask) => expectRefusal(await ask(), code, field));

  test("sealed, nothing in it changes: no adjustment, no correction, not twice", async () => {
    const path = of("2026-03-31");
    const { findings } = await server.ok<{ findings: { key: string }[] }>("GET", path);
    if (findings.length > 0)
      expectRefusal(await server.call("POST", `${path}/seal`), "returns/findings-open");
    for (const { key } of findings)
      await server.ok("POST", `${path}/acceptances`, { key, reason: "looked at" });
    await server.ok("POST", `${path}/seal`);
    const adjust = { box: "1", amount: "1.00", reason: "till difference" };
    expectRefusal(await server.call("POST", `${path}/adjustments`, adjust), "returns/sealed");
    expectRefusal(await server.call("POST", `${path}/seal`), "returns/sealed");
    expectRefusal(await server.call("POST", `${path}/state`, { state: "in-review" }), "returns/sealed");
    expectRefusal(
      await server.call(
        "PUT",
        `${books.base}/documents/${books.bill}`,
        document("purchase-bill", "2026-02-04", [LINE], { contact: books.oxbow, number: "B-1" }),
      ),
      "document/sealed",
    );
    await server.ok("POST", `${path}/file`, { declared: true });
    const money = { date: "2026-05-01", kind: "payment", amount: "-1.00" };
    expectRefusal(
      await server.call("POST", `${books.registration}/settlements/2026-03-31/payments`, money),
      "settle/amount",
      "amount",
    );
  });
});

describe("a file that cannot be", () => {
  const drop = (query: string, name: string, content: string) => () =>
    server.upload(`${books.base}/imports?${query}`, name, content);
  const cases: RefusedCase[] = [
    ["a PDF for a register", "imports/pdf", "file", drop("direction=sale", "r.pdf", "%PDF-1.7\n")],
    [
      "a table for an e-invoice",
      "imports/not-xml",
      "file",
      drop("content=e-invoice&direction=purchase", "e.csv", "A,B,C\n1,2,3\n"),
    ],
    ["an empty register", "formats/empty-file", "file", drop("direction=sale", "e.csv", "")],
    ["a book that is none", "request/invalid", "format", () => server.call("POST", "/books", { version: 1 })],
    [
      "a bank statement of another currency",
      "bank/currency",
      "file",
      () =>
        server.upload(
          `${books.base}/bank/1000/statements`,
          "s.ofx",
          "<OFX><BANKMSGSRSV1><STMTTRNRS><STMTRS><CURDEF>USD</CURDEF><BANKTRANLIST></BANKTRANLIST></STMTRS></STMTTRNRS></BANKMSGSRSV1></OFX>",
        ),
    ],
    [
      "a statement of an account that is not there",
      "ledger/unknown-account",
      "account",
      () => server.upload(`${books.base}/bank/9999/statements`, "s.csv", "Date,Amount\n01/02/2026,1.00\n"),
    ],
    [
      "a bank that is not connected",
      "bank/not-connected",
      undefined,
      () => server.call("POST", `${books.base}/bank/1000/fetch`),
    ],
    [
      "a line of the bank that is not there",
      "request/not-found",
      undefined,
      () => server.call("POST", `${books.base}/bank-lines/999999/match`, { ignore: "not ours" }),
    ],
    [
      "an import that is not there",
      "request/not-found",
      undefined,
      () => server.call("GET", `${books.base}/imports/999999`),
    ],
    ["a job that is not there", "request/not-found", undefined, () => server.call("GET", "/jobs/999999")],
  ];
  test.each(cases)("%s", async (...given) => refusedWithoutTrace(given, books.state));

  test("a trial balance without its day, a posted file changed, a file undone twice", async () => {
    const table = "Code,Account name,Debit,Credit\n1000,Bank,15.00,\n3000,Capital,,15.00\n";
    const { id } = (await server.upload(`${books.base}/imports?content=trial-balance`, "tb.csv", table)).body;
    const checked = await server.job(`${books.base}/imports/${id}/check`);
    expect(checked.error?.code).toBe("imports/no-date");
    const opened = await droppedOn(server, books.base, "tb.csv", table, "content=trial-balance", {
      date: "2025-12-31",
    });
    expect((await opened.post()).state).toBe("done");
    expectRefusal(
      await server.call("PUT", `${opened.path}/settings`, { leftOut: [2] }),
      "imports/wrong-state",
    );
    expect((await server.job(`${opened.path}/undo`)).result).toEqual({ documents: 1 });
    expect((await server.job(`${opened.path}/undo`)).error?.code).toBe("imports/wrong-state");
  });

  test("of two lines of the bank each has its own entry, of its own amount", async () => {
    const csv =
      "Date,Description,Amount\n2026-02-20,REED,60.00\n2026-02-21,REED AGAIN,60.00\n2026-02-22,OTHER,59.00\n";
    await server.upload(`${books.base}/bank/1000/statements`, "s.csv", csv);
    const { rows } = await server.ok<{ rows: { id: number; amount: number }[] }>(
      "GET",
      `${books.base}/bank/1000/lines?state=open`,
    );
    const entry = await books.entryOf(60_00);
    const [first, second, other] = [60_00, 60_00, 59_00].map(
      (amount, index) =>
        at(
          rows.filter((row) => row.amount === amount),
          amount === 60_00 ? index : 0,
        ).id,
    );
    await server.ok("POST", `${books.base}/bank-lines/${first}/match`, { entry });
    expectRefusal(
      await server.call("POST", `${books.base}/bank-lines/${second}/match`, { entry }),
      "bank/taken",
      "entry",
    );
    expectRefusal(
      await server.call("POST", `${books.base}/bank-lines/${first}/match`, { entry }),
      "bank/wrong-state",
    );
    await server.ok(
      "POST",
      `${books.base}/documents`,
      document("journal", "2026-05-20", [
        { amount: "-59.00", account: "1000" },
        { amount: "59.00", account: "6000" },
      ]),
    );
    const turned = await books.entryOf(-59_00);
    expectRefusal(
      await server.call("POST", `${books.base}/bank-lines/${other}/match`, { entry: turned }),
      "bank/wrong-way",
      "entry",
    );
    expectRefusal(
      await server.call("POST", `${books.base}/bank-lines/${second}/match`, { entry: turned }),
      "bank/other-amount",
      "entry",
    );
  });
});
