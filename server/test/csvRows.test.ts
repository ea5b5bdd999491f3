import fc from "fast-check";
import Papa from "papaparse";
import { expect, test } from "vitest";
import { csvRows } from "../dist/base/readRows.js";

const cell = fc.oneof(
  fc.constantFrom("", "1,00", 'x"y', "two\nlines", "two\r\nlines", " sp ", "end;", '"', "ü"),
  fc.string({ maxLength: 6 }).filter((text) => !/[\r\n]/.test(text)),
);
const table = fc.array(fc.array(cell, { minLength: 1, maxLength: 4 }), { minLength: 1, maxLength: 12 });

/** Without the line that an end of line at the end begins. */
function rowsOf(rows: Iterable<string[]>): string[][] {
  const all = [...rows];
  while (all.at(-1)?.join("") === "" && all.at(-1)?.length === 1) all.pop();
  return all;
}

test("a text cut window by window gives the rows it gives as a whole, wherever the windows end", () => {
  fc.assert(
    fc.property(
      table,
      fc.constantFrom(",", ";", "\t"),
      fc.constantFrom("\n", "\r\n"),
      fc.integer({ min: 1, max: 60 }),
      (rows, delimiter, newline, window) => {
        const text = Papa.unparse(rows, { delimiter, newline }) + newline;
        const whole = Papa.parse<string[]>(text, { delimiter }).data;
        expect(rowsOf(csvRows(text, delimiter, window))).toEqual(rowsOf(whole));
      },
    ),
    { numRuns: 500 },
  );
});
