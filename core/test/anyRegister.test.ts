import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { at } from "@fiscalon/core/at";
import { documentEffect } from "@fiscalon/core/facts/documentEffect";
import { setupOf } from "./support/books.ts";
import { day, money, textRow } from "./support/layouts.ts";
import type { Style } from "./support/layouts.ts";
import { readRegister } from "./support/registers.ts";

/** What a business sold: the figures a register holds, in pence; a credit note is below zero. */
interface Sold {
  date: string;
  party: string;
  net: number;
  rate: 20 | 5;
  tax: number;
}

/** How an office writes its register. */
interface Layout extends Style {
  columns: string[];
  headings: Record<string, string>;
  delimiter: "," | ";" | "\t";
  titles: number;
  total: boolean;
}

const pence = fc.integer({ min: 1, max: 9_999_999 });
const sold: fc.Arbitrary<Sold> = fc
  .record({
    date: fc.constantFrom("2026-04-13", "2026-05-31", "2026-06-07", "2026-06-30"),
    party: fc.constantFrom("Reed & Co", "Oxbow Ltd", "Tern"),
    net: pence,
    credit: fc.boolean(),
    rate: fc.constantFrom(20 as const, 5 as const),
  })
  .map(({ net, credit, rate, ...rest }) => {
    const tax = Math.round((net * rate) / 100);
    return { ...rest, rate, net: credit ? -net : net, tax: credit ? -tax : tax };
  })
  // Under two pounds several rates give the same tax.
  .filter(({ net }) => Math.abs(net) > 200);

const HEADINGS: Record<string, string[]> = {
  number: ["Invoice No", "Document number", "Ref", "Voucher no"],
  date: ["Date", "Invoice date", "Dated"],
  party: ["Customer", "Client name", "Sold to"],
  net: ["Net", "Net amount", "Amount excl. VAT", "Goods value"],
  tax: ["VAT", "VAT amount", "Output tax"],
  gross: ["Gross", "Total", "Amount incl. VAT", "Invoice total"],
  rate: ["VAT rate", "Rate", "VAT %"],
};

const layout: fc.Arbitrary<Layout> = fc
  .record({
    amounts: fc.constantFrom(
      ["net", "tax", "gross"],
      ["net", "tax"],
      ["gross", "tax"],
      ["net", "rate"],
      ["gross", "rate"],
    ),
    order: fc.array(fc.nat(1000), { minLength: 6, maxLength: 6 }),
    words: fc.record(
      Object.fromEntries(
        Object.entries(HEADINGS).map(([field, words]) => [field, fc.constantFrom(...words)]),
      ),
    ),
    delimiter: fc.constantFrom("," as const, ";" as const, "\t" as const),
    decimal: fc.constantFrom("." as const, "," as const),
    thousands: fc.boolean(),
    minus: fc.constantFrom("front" as const, "back" as const, "brackets" as const, "word" as const),
    currency: fc.constantFrom("" as const, "£" as const, "GBP " as const),
    date: fc.constantFrom("slashes" as const, "dots" as const, "iso" as const, "months" as const),
    titles: fc.nat(3),
    total: fc.boolean(),
  })
  .map(({ amounts, order, words, delimiter, decimal, ...rest }) => ({
    ...rest,
    // A decimal comma and a comma between cells do not go together in any file a person can read.
    delimiter: decimal === "," && delimiter === "," ? ";" : delimiter,
    decimal,
    headings: words,
    columns: ["number", "date", "party", ...amounts]
      .map((column, index) => ({ column, rank: at(order, index) }))
      .sort((a, b) => a.rank - b.rank)
      .map(({ column }) => column),
  }));

/** The register as a text file. */
function written(rows: readonly Sold[], how: Layout): string {
  const line = (cells: string[]) => textRow(cells, how.delimiter);
  const of = (row: Sold, index: number): Record<string, string> => ({
    number: `SI-${index + 1}`,
    date: day(row.date, how.date),
    party: row.party,
    net: money(row.net, how),
    tax: money(row.tax, how),
    gross: money(row.net + row.tax, how),
    rate: how.decimal === "." ? `${row.rate}%` : String(row.rate),
  });
  const blank = how.columns.map(() => "");
  const titles = ["Sales day book", "Saltmarsh Kiln", "April to June"].slice(0, how.titles);
  const sum = (field: keyof Sold & ("net" | "tax")) => rows.reduce((total, row) => total + row[field], 0);
  const totals: Record<string, string> = {
    number: "Total",
    net: money(sum("net"), how),
    tax: money(sum("tax"), how),
    gross: money(sum("net") + sum("tax"), how),
  };
  return [
    ...titles.map((title) => line([title, ...blank.slice(1)])),
    line(how.columns.map((column) => how.headings[column] ?? column)),
    ...rows.map((row, index) => line(how.columns.map((column) => of(row, index)[column] ?? ""))),
    ...(how.total && how.columns[0] === "number"
      ? [line(how.columns.map((column) => totals[column] ?? ""))]
      : []),
  ].join("\r\n");
}

describe("a register of any office, in whatever columns, order, signs and dates", () => {
  const setup = setupOf("gb");

  test("gives back what was sold, to the penny, and nothing is guessed wrong in silence", () => {
    fc.assert(
      fc.property(fc.array(sold, { minLength: 3, maxLength: 12 }), layout, (rows, how) => {
        const text = written(rows, how);
        const content = readRegister(text);
        const said = content.problems.map(({ row, message }) => `row ${row}: ${message}`);
        expect(said, text).toEqual([]);
        expect(content.documents.length, text).toBe(rows.length);
        content.documents.forEach(({ input }, index) => {
          const row = at(rows, index);
          const { net, tax } = documentEffect(input, setup).priced;
          const sign = row.net < 0 ? -1 : 1;
          expect([input.kind, input.number, input.date, sign * net, sign * tax], text).toEqual([
            row.net < 0 ? "sales-credit-note" : "sales-invoice",
            `SI-${index + 1}`,
            row.date,
            row.net,
            row.tax,
          ]);
          expect(
            input.lines.map(({ code }) => code),
            text,
          ).toEqual([row.rate === 20 ? "S20" : "R5"]);
        });
      }),
      { numRuns: 600 },
    );
  });
});
