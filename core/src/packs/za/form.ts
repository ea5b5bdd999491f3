import type { ReturnForm } from "../../model/returnForm.ts";
import { computed, sum } from "../shared/formBoxes.ts";
import { line, table } from "../shared/formTables.ts";

const VALUE = { holds: "value" } as const;
const FRACTION = "{za.STD} / (100 + {za.STD})";

/** A number at the left is the field of the consideration, or that of the tax where there is no other. */
const tables = [
  table("A. Output tax and imported services", "Consideration, with VAT | VAT", [
    line("1, 4", "Standard rate (excluding capital goods and/or services and accommodation)", "1 4"),
    line("1A, 4A", "Standard rate (only capital goods and/or services)", "1A 4A"),
    line("2", "Zero rate (excluding goods exported)", "2 -"),
    line("2A", "Zero rate (only exported goods)", "2A -"),
    line("3", "Exempt and non-supplies", "3 -"),
    line("5", "Accommodation exceeding 28 days", "5 -"),
    line("6", "60 % of field 5", "6 -"),
    line("7", "Accommodation not exceeding 28 days", "7 -"),
    line("8, 9", "Total accommodation", "8 9"),
    line("10, 11", "Adjustments: change in use and export of second-hand goods", "10 11"),
    line("12", "Other and imported services", "- 12"),
    line("13", "Total output tax (4 + 4A + 9 + 11 + 12)", "- 13", "sum"),
  ]),
  table("B. Input tax", "VAT", [
    line("14", "Capital goods and/or services supplied to you", "14"),
    line("14A", "Capital goods imported by you", "14A"),
    line("15", "Other goods and/or services supplied to you (not capital)", "15"),
    line("15A", "Other goods imported by you (not capital)", "15A"),
    line("16", "Change in use", "16"),
    line("17", "Bad debts", "17"),
    line("18", "Other", "18"),
    line("19", "Total input tax", "19", "sum"),
  ]),
  table("", "VAT", [line("20", "VAT payable or refundable (13 − 19)", "20", "result")]),
];

/** VAT201. Fields 1, 1A, 5, 7 and 10 hold amounts with tax; the tax is worked out from their totals. */
export const vat201: ReturnForm = {
  id: "za-vat201",
  name: "VAT201",
  levies: ["VAT"],
  turnover: ["1", "1A", "2", "2A", "3", "5", "7"],
  from: "2018-01-01",
  to: null,
  boxes: [
    sum("1", "Standard rate (excluding capital goods and/or services and accommodation)", {
      ...VALUE,
      short: "Standard rate",
    }),
    sum("1A", "Standard rate (only capital goods and/or services)", {
      ...VALUE,
      short: "Standard rate, capital",
    }),
    sum("2", "Zero rate (excluding goods exported)", VALUE),
    sum("2A", "Zero rate (only exported goods)", VALUE),
    sum("3", "Exempt and non-supplies", VALUE),
    computed("4", "VAT on field 1", `[1] * ${FRACTION}`),
    computed("4A", "VAT on field 1A", `[1A] * ${FRACTION}`),
    sum("5", "Accommodation exceeding 28 days", VALUE),
    computed("6", "60 % of field 5", "[5] * 60 / 100", VALUE),
    sum("7", "Accommodation not exceeding 28 days", VALUE),
    computed("8", "Total accommodation", "[6] + [7]", VALUE),
    computed("9", "VAT on accommodation", `[8] * ${FRACTION}`),
    sum("10", "Adjustments: change in use and export of second-hand goods", {
      ...VALUE,
      short: "Change in use",
    }),
    computed("11", "VAT on field 10", `[10] * ${FRACTION}`),
    sum("12", "Other and imported services"),
    computed("13", "Total output tax", "[4] + [4A] + [9] + [11] + [12]"),
    sum("14", "Capital goods and/or services supplied to you"),
    sum("14A", "Capital goods imported by you"),
    sum("15", "Other goods and/or services supplied to you"),
    sum("15A", "Other goods imported by you"),
    sum("16", "Change in use"),
    sum("17", "Bad debts"),
    sum("18", "Other input adjustments"),
    computed("19", "Total input tax", "[14] + [14A] + [15] + [15A] + [16] + [17] + [18]"),
    computed("20", "VAT payable or refundable", "[13] - [19]"),
  ],
  tables,
  net: { output: "[13]", input: "[19]", due: "[20]", shown: "20" },
  source: "VAT 404, VAT201; from memory",
};
