import { afterAll, beforeAll, describe, test } from "vitest";
import { expectRefusal } from "./support/refused.ts";
import type { RefusedCase } from "./support/refused.ts";
import { document, newClient, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
let base: string;
beforeAll(async () => {
  server = await startServer();
  ({ base } = await newClient(server));
});
afterAll(() => server.close());

describe("a question that cannot be answered", () => {
  const line = { amount: "1.00", code: "S20" };
  const price =
    (documentOf: object, more: object = { pack: "gb" }) =>
    () =>
      server.call("POST", "/price", { document: documentOf, ...more });
  const invoice = (lines: object[], more: object = {}) =>
    document("sales-invoice", "2026-05-11", lines, more);
  const bill = (lines: object[]) => document("purchase-bill", "2026-05-11", lines);
  const cases: RefusedCase[] = [
    ["a price without a set-up", "price/no-setup", "client", price(invoice([line]), {})],
    [
      "a price by a pack nobody knows",
      "jurisdiction/unknown-pack",
      "pack",
      price(invoice([line]), { pack: "zz" }),
    ],
    [
      "a code nobody knows",
      "tax/unknown-code",
      "document.lines[0].code",
      price(invoice([{ ...line, code: "NEVER" }])),
    ],
    [
      "a code of the other side",
      "tax/code-wrong-side",
      "document.lines[0].code",
      price(invoice([{ ...line, code: "RCS" }])),
    ],
    [
      "a code before its time",
      "tax/code-not-active",
      "document.lines[0].code",
      price(document("sales-invoice", "2006-05-11", [{ ...line, code: "DRS" }])),
    ],
    [
      "more discount than the price",
      "tax/bad-discount",
      "document.lines[0].discount.percent",
      price(invoice([{ ...line, discount: { percent: "101" } }])),
    ],
    [
      "an attribute that is misspelt",
      "document/unknown-attribute",
      "document.lines[0].attributes.recoverabel",
      price(bill([{ ...line, attributes: { recoverabel: "40" } }])),
    ],
    [
      "a share above all",
      "tax/bad-share",
      "document.lines[0].attributes.recoverable",
      price(bill([{ amount: "1.00", code: "S20R", attributes: { recoverable: "140" } }])),
    ],
    [
      "a share that is missing",
      "tax/missing-input",
      "document.lines[0].attributes.recoverable",
      price(bill([{ amount: "1.00", code: "S20R" }])),
    ],
    [
      "a fraction of a penny",
      "money/too-precise",
      "document.lines[0].amount",
      price(invoice([{ ...line, amount: "1.005" }])),
    ],
    [
      "tax of a levy the line does not bear",
      "tax/typed-tax-without-levy",
      "document.lines[0].typedTax.GST",
      price(invoice([{ ...line, typedTax: { GST: "1.00" } }])),
    ],
    [
      "a number checked against a pack nobody knows",
      "jurisdiction/unknown-pack",
      "pack",
      () => server.call("GET", "/number-check?pack=zz&number=1"),
    ],
    [
      "a trail that leads nowhere",
      "trail/not-found",
      "ref",
      () => server.call("GET", `${base}/trail?ref=nowhere/1`),
    ],
    ["an address that is none", "request/not-found", undefined, () => server.call("GET", "/nowhere")],
    [
      "a client that is not there",
      "request/not-found",
      undefined,
      () => server.call("GET", "/clients/999999/setup"),
    ],
    [
      "a jurisdiction that is not there",
      "request/not-found",
      undefined,
      () => server.call("GET", "/jurisdictions/own-never"),
    ],
  ];
  test.each(cases)("%s", async (_what, code, field, ask) => {
    const answer = await ask();
    expectRefusal(answer, code, field);
  });
});
