import type { BoxDefinition, ReturnForm } from "../../model/returnForm.ts";
import { computed, sum, typedIn } from "../shared/formBoxes.ts";
import { across, line as row, table } from "../shared/formTables.ts";
import { EMIRATES } from "./emirates.ts";

const VALUE = { holds: "value" } as const;
const ANSWER = { holds: "value", words: "1 where it is so; it is in no sum." } as const;
const LETTERS = EMIRATES.map(({ tag }) => tag);

/** A line of the form with its amount, VAT and adjustment columns. */
function line(id: string, title: string, columns: string, doubt?: string): BoxDefinition[] {
  const names: Record<string, string> = { a: "amount", v: "VAT", j: "adjustment" };
  return [...columns].map((column) =>
    sum(`${id}.${column}`, `${title}, ${names[column]}`, {
      ...(column === "a" ? VALUE : {}),
      short: `${title}, ${names[column]}`,
      ...(doubt === undefined ? {} : { doubt }),
    }),
  );
}

const IN_NINE = "The net of goods under reverse charge stands here and not in box 10.";
const adding = (ids: readonly string[], column: string) => ids.map((id) => `[${id}.${column}]`).join(" + ");
const FIRST = LETTERS.map((letter) => `1${letter}`);

const COLUMNS = "Amount | VAT amount | Adjustment";

const tables = [
  table("VAT on sales and all other outputs", COLUMNS, [
    ...EMIRATES.map(({ tag, name }) =>
      row(`1${tag}`, `Standard Rated Supplies in ${name}`, across(`1${tag}`, "a v j")),
    ),
    row(
      "2",
      "Tax Refunds provided to Tourists under the Tax Refunds for Tourists Scheme",
      across("2", "a v -"),
    ),
    row("3", "Supplies subject to the reverse charge provisions", across("3", "a v -")),
    row("4", "Zero Rated Supplies", across("4", "a - -")),
    row("5", "Exempt Supplies", across("5", "a - -")),
    row("6", "Goods imported into the UAE", across("6", "a v -")),
    row("7", "Adjustments to goods imported into the UAE", across("7", "a v -")),
    row("8", "Totals", across("8", "a v j"), "sum"),
  ]),
  table("VAT on expenses and all other inputs", COLUMNS, [
    row("9", "Standard Rated Expenses", across("9", "a v j")),
    row("10", "Supplies subject to the reverse charge provisions", across("10", "a v -")),
    row("11", "Totals", across("11", "a v j"), "sum"),
  ]),
  table("Net VAT due", "", [
    row("12", "Total value of due tax for the period", "12"),
    row("13", "Total value of recoverable tax for the period", "13"),
    row("14", "Payable tax for the period", "14", "result"),
  ]),
  table("Answers", "1: yes", [
    row("", "Do you wish to request a refund of excess recoverable tax?", "refund"),
    row("", "Profit margin scheme applied in this period?", "margin"),
  ]),
];

/** VAT201. Box 1 by emirate of the establishment the supply is made from. */
export const vat201: ReturnForm = {
  id: "ae-vat201",
  name: "VAT201",
  levies: ["VAT"],
  turnover: ["1a.a", "1b.a", "1c.a", "1d.a", "1e.a", "1f.a", "1g.a", "4.a", "5.a"],
  from: "2018-01-01",
  to: null,
  boxes: [
    ...EMIRATES.flatMap(({ tag, name }) => line(`1${tag}`, `Standard Rated Supplies in ${name}`, "avj")),
    ...line("2", "Tax Refunds provided to Tourists under the Tax Refunds for Tourists Scheme", "av"),
    ...line("3", "Supplies subject to the reverse charge provisions", "av"),
    ...line("4", "Zero Rated Supplies", "a"),
    ...line("5", "Exempt Supplies", "a"),
    ...line("6", "Goods imported into the UAE", "av"),
    ...line("7", "Adjustments to goods imported into the UAE", "av"),
    computed("8.a", "Totals, amount", adding([...FIRST, "2", "3", "4", "5", "6", "7"], "a"), VALUE),
    computed("8.v", "Totals, VAT", adding([...FIRST, "2", "3", "6", "7"], "v")),
    computed("8.j", "Totals, adjustment", adding(FIRST, "j")),
    ...line("9", "Standard Rated Expenses", "avj", IN_NINE),
    ...line("10", "Supplies subject to the reverse charge provisions", "av"),
    computed("11.a", "Totals, amount", "[9.a] + [10.a]", VALUE),
    computed("11.v", "Totals, VAT", "[9.v] + [10.v]"),
    computed("11.j", "Totals, adjustment", "[9.j]"),
    computed("12", "Total value of due tax for the period", "[8.v] + [8.j]"),
    computed("13", "Total value of recoverable tax for the period", "[11.v] + [11.j]"),
    computed("14", "Payable tax for the period", "[12] - [13]"),
    typedIn("refund", "Do you wish to request a refund of excess recoverable tax? (1: yes)", ANSWER),
    typedIn("margin", "Profit margin scheme applied in this period? (1: yes)", ANSWER),
  ],
  tables,
  net: { output: "[12]", input: "[13]", due: "[14]", shown: "14" },
  rules: [
    {
      formula: "[10.v] <= [3.v] + [6.v] + [7.v]",
      says: "More is recovered in box 10 than boxes 3, 6 and 7 hold.",
    },
    { formula: "[2.v] <= 0", says: "Tourist refunds in box 2 must not be positive." },
  ],
  source: "FTA, VAT Returns User Guide; from memory",
};
