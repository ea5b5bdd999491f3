import fc from "fast-check";
import Papa from "papaparse";
import { expect, test } from "vitest";
import { at } from "@fiscalon/core/at";
import { imbalanceOf } from "@fiscalon/core/formats/bank/bankStatement";
import { readStatement } from "@fiscalon/core/formats/bank/readStatement";
import { day, money, textRow } from "./support/layouts.ts";
import type { Style } from "./support/layouts.ts";

/** What the bank moved: pence, money in above zero. */
interface Moved {
  date: string;
  text: string;
  amount: number;
}

/** How a bank writes its statement. */
interface Layout extends Style {
  how: "signed" | "in and out" | "out below zero" | "side";
  balances: boolean;
  newestFirst: boolean;
  delimiter: "," | ";" | "\t";
  titles: number;
  words: number;
}

const moved: fc.Arbitrary<Moved> = fc.record({
  date: fc.constantFrom("2026-04-13", "2026-05-31", "2026-06-07", "2026-06-30"),
  text: fc.constantFrom("REED & CO", "DIRECT DEBIT, RENT", 'THE "KILN"', "CARD 1234"),
  amount: fc.integer({ min: -9_999_999, max: 9_999_999 }).filter((amount) => amount !== 0),
});

const layout: fc.Arbitrary<Layout> = fc
  .record({
    how: fc.constantFrom(
      "signed" as const,
      "in and out" as const,
      "out below zero" as const,
      "side" as const,
    ),
    balances: fc.boolean(),
    newestFirst: fc.boolean(),
    delimiter: fc.constantFrom("," as const, ";" as const, "\t" as const),
    decimal: fc.constantFrom("." as const, "," as const),
    thousands: fc.boolean(),
    minus: fc.constantFrom("front" as const, "back" as const, "brackets" as const, "word" as const),
    currency: fc.constantFrom("" as const, "£" as const, "GBP " as const),
    date: fc.constantFrom("slashes" as const, "dots" as const, "iso" as const, "months" as const),
    titles: fc.nat(2),
    words: fc.nat(1),
  })
  // A decimal comma and a comma between cells do not go together in any file a person can read.
  .map((one) => ({ ...one, delimiter: one.decimal === "," && one.delimiter === "," ? ";" : one.delimiter }));

/** The statement as the bank gives it out. */
function written(rows: readonly Moved[], opening: number, how: Layout): string {
  const pick = (...words: string[]) => at(words, how.words);
  const show = (amount: number) => money(amount, how, "DR");
  const amounts = {
    signed: [pick("Amount", "Value")],
    "in and out": [pick("Money in", "Credit"), pick("Money out", "Debit")],
    "out below zero": [pick("Paid in", "Deposits"), pick("Paid out", "Withdrawals")],
    side: ["Amount", pick("DR/CR", "Type")],
  }[how.how];
  const cells = (amount: number): string[] => {
    switch (how.how) {
      case "signed":
        return [show(amount)];
      case "in and out":
        return amount > 0 ? [show(amount), ""] : ["", show(-amount)];
      case "out below zero":
        return amount > 0 ? [show(amount), ""] : ["", show(amount)];
      case "side":
        return [show(Math.abs(amount)), amount > 0 ? pick("CR", "Credit") : pick("DR", "Debit")];
    }
  };
  const line = (texts: string[]) => textRow(texts, how.delimiter);
  let stands = opening;
  const lines = rows.map(({ date, text, amount }) => {
    stands += amount;
    return line([day(date, how.date), text, ...cells(amount), ...(how.balances ? [show(stands)] : [])]);
  });
  const titles = ["Statement of account", "Saltmarsh Kiln"].slice(0, how.titles);
  return [
    ...titles.map((title) => line([title, "", ""])),
    line([
      pick("Date", "Transaction date"),
      pick("Description", "Details"),
      ...amounts,
      ...(how.balances ? ["Balance"] : []),
    ]),
    ...(how.newestFirst ? lines.reverse() : lines),
  ].join("\r\n");
}

test("a statement of any bank gives back what was moved, and its balances prove that nothing is missing", () => {
  fc.assert(
    fc.property(
      fc.array(moved, { minLength: 1, maxLength: 12 }),
      fc.integer({ min: -500_000, max: 5_000_000 }),
      layout,
      (list, opening, how) => {
        const rows = [...list].sort((a, b) => (a.date < b.date ? -1 : a.date > b.date ? 1 : 0));
        const text = written(rows, opening, how);
        const [statement] = readStatement(text, (csv) => Papa.parse<string[]>(csv).data, "GBP", "dmy");
        const read = statement?.lines.map(({ date, text: words, amount }) => ({ date, text: words, amount }));
        expect(how.newestFirst ? read?.reverse() : read, text).toEqual(rows);
        if (!statement || !how.balances) return;
        const closing = rows.reduce((sum, { amount }) => sum + amount, opening);
        expect([statement.opening, statement.closing, imbalanceOf(statement)], text).toEqual([
          opening,
          closing,
          null,
        ]);
        if (rows.length < 3) return;
        const without = statement.lines.filter((_, index) => index !== 1);
        expect(imbalanceOf({ ...statement, lines: without })).toBe(at(statement.lines, 1).amount);
      },
    ),
    { numRuns: 800 },
  );
});
