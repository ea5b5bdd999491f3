import type { ReturnForm } from "../../model/returnForm.ts";
import { computed, sum, typedIn, WHOLE_CUT } from "../shared/formBoxes.ts";

const VALUE = { holds: "value", rounding: WHOLE_CUT } as const;

/** GST F5. Values in whole dollars, cents dropped; tax in dollars and cents. Boxes 14 to 21 as numbered since 2023. */
export const gstF5: ReturnForm = {
  id: "sg-f5",
  name: "GST F5",
  levies: ["GST"],
  turnover: ["1", "2", "3"],
  purchases: ["5"],
  from: "2018-01-01",
  to: null,
  boxes: [
    sum("1", "Total value of standard-rated supplies", VALUE),
    sum("2", "Total value of zero-rated supplies", VALUE),
    sum("3", "Total value of exempt supplies", VALUE),
    computed("4", "Total value of supplies", "[1] + [2] + [3]", VALUE),
    sum("5", "Total value of taxable purchases", {
      ...VALUE,
      doubt: "Purchases whose tax is blocked are counted.",
    }),
    sum("6", "Output tax due"),
    sum("7", "Input tax and refunds claimed"),
    computed("8", "Net GST to be paid or claimed", "[6] - [7]"),
    sum("9", "Total value of goods imported under suspension schemes", {
      ...VALUE,
      short: "Goods imported under suspension",
    }),
    sum("10", "Tourist refund claimed, included in box 7"),
    sum("11", "Bad debt relief and reverse charge refunds, included in box 7", {
      short: "Bad debt relief claimed",
    }),
    sum("12", "Pre-registration claims, included in box 7"),
    typedIn("13", "Revenue for the period", {
      ...VALUE,
      words: "The main revenue of the income statement, without GST. It is typed in, not computed.",
    }),
    sum("14", "Imported services and low-value goods under reverse charge", VALUE),
    sum("15", "Remote services supplied for third parties", VALUE),
    sum("16", "Low-value goods supplied for third parties", VALUE),
    sum("17", "Own low-value goods supplied", VALUE),
    computed("18", "Net GST of box 8", "[8]"),
    sum("19", "Deferred import GST payable"),
    computed("20", "Total tax to be paid", "[18] + [19]"),
    sum("21", "Value of goods imported under the deferment scheme", VALUE),
  ],
  net: { output: "[6] + [19]", input: "[7]", due: "[20]", shown: "20" },
  rules: [{ formula: "[14] <= [1]", says: "Box 14 is more than box 1, of which it is a part." }],
  source: "IRAS, GST F5; from memory",
};
