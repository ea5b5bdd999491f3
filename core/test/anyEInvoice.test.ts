import fc from "fast-check";
import { expect, test } from "vitest";
import { documentEffect } from "@fiscalon/core/facts/documentEffect";
import { checkTotals } from "@fiscalon/core/formats/einvoice/checkTotals";
import { invoiceOf } from "@fiscalon/core/formats/einvoice/invoiceOf";
import { readUbl } from "@fiscalon/core/formats/einvoice/readUbl";
import { writeUbl } from "@fiscalon/core/formats/einvoice/writeUbl";
import { readXml } from "@fiscalon/core/formats/xml/readXml";
import { documentOf } from "@fiscalon/core/incoming/eInvoiceDocument";
import type { DocumentInput, LineInput } from "@fiscalon/core/model/document";
import { formatAmount } from "@fiscalon/core/money/amount";
import { setupOf } from "./support/books.ts";

/** Countries of one levy whose sales can be told in an e-invoice, with codes of several rates. */
const SELLERS = {
  ie: { codes: ["S23", "R13", "Z", "EX"], number: "IE6388047V", country: "IE", currency: "EUR" },
  gb: { codes: ["S20", "R5", "Z", "EX"], number: "GB980780684", country: "GB", currency: "GBP" },
  "eu-de": { codes: ["S19", "S7"], number: "DE271828000", country: "DE", currency: "EUR" },
} as const;

const name = fc.string({ maxLength: 20 }).map((text) => text.replace(/[^\x20-\x7eäöüé€]/g, "").trim());
const decimal = (most: number, digits: number) =>
  fc.integer({ min: 1, max: most }).map((minor) => formatAmount(minor, digits));

const anySale = fc.constantFrom(...(Object.keys(SELLERS) as (keyof typeof SELLERS)[])).chain((pack) =>
  fc.record({
    pack: fc.constant(pack),
    credit: fc.boolean(),
    prices: fc.constantFrom("exclusive" as const, "inclusive" as const),
    discount: fc.option(
      fc.integer({ min: 1, max: 40 }).map((percent) => ({ percent: String(percent) })),
      { nil: undefined },
    ),
    number: name.filter((text) => text !== ""),
    note: name,
    lines: fc.array(
      fc.record({
        text: name,
        code: fc.constantFrom(...SELLERS[pack].codes),
        amount: decimal(9_999_999, 2),
        quantity: fc.option(decimal(99_999, 3), { nil: undefined }),
        discount: fc.option(
          fc.integer({ min: 1, max: 90 }).map((percent) => ({ percent: String(percent) })),
          { nil: undefined },
        ),
      }),
      { minLength: 1, maxLength: 12 },
    ),
  }),
);

function documentFor({
  credit,
  prices,
  discount,
  number,
  note,
  lines,
}: Omit<typeof anySale extends fc.Arbitrary<infer S> ? S : never, "pack">) {
  const kept = lines.map(({ text, code, amount, quantity, discount: off }): LineInput => ({
    text: text === "" ? "Goods" : text,
    code,
    amount,
    ...(quantity === undefined ? {} : { quantity }),
    ...(off === undefined ? {} : { discount: off }),
  }));
  const document: DocumentInput & { number: string } = {
    kind: credit ? "sales-credit-note" : "sales-invoice",
    number,
    date: "2026-05-11",
    prices,
    ...(note === "" ? {} : { note }),
    ...(discount === undefined ? {} : { discount }),
    lines: kept,
  };
  return document;
}

test("any sale as an e-invoice: its sums obey the standard, it reads back the same, and is the buyer's bill to the cent", () => {
  fc.assert(
    fc.property(anySale, ({ pack, ...sale }) => {
      const setup = setupOf(pack);
      const { country, number: taxNumber, currency } = SELLERS[pack];
      const document = documentFor(sale);
      const { printed, priced } = documentEffect(document, setup);
      const seller = { name: "Seller & Co", taxNumber, country, region: "" };
      const buyer = { name: "Buyer <Ltd>", taxNumber: "", country, region: "" };
      const invoice = invoiceOf(document, printed, { seller, buyer }, currency, 2);

      expect(checkTotals(invoice, 2)).toEqual([]);
      expect([invoice.totals.exclusive, invoice.totals.tax, invoice.totals.payable]).toEqual([
        priced.net,
        priced.tax,
        priced.gross,
      ]);
      const read = readUbl(readXml(writeUbl(invoice)));
      expect(read).toEqual(invoice);

      const bill = documentOf(read, {
        direction: "purchase",
        codes: setup.codes,
        schedules: setup.schedules,
        chosen: pack === "gb" ? { "Z 0": "Z", "E 0": "EX" } : {},
        account: "5000",
        digits: 2,
      });
      expect([bill.kind, bill.number]).toEqual([
        sale.credit ? "purchase-credit-note" : "purchase-bill",
        document.number,
      ]);
      const typed = Object.fromEntries(
        read.taxes
          .filter(({ rate }) => Number(rate) !== 0)
          .map(({ rate, tax }) => [`VAT ${rate}`, formatAmount(tax, 2)]),
      );
      const bought = documentEffect({ ...bill, typedTax: typed }, setup).priced;
      expect([bought.net, bought.tax, bought.gross]).toEqual([priced.net, priced.tax, priced.gross]);
    }),
    { numRuns: 400 },
  );
});
