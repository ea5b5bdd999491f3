import type { ReturnForm } from "../../model/returnForm.ts";
import { computed, sum } from "../shared/formBoxes.ts";

const VALUE = { holds: "value" } as const;
const HALF_CENTS = "Half a cent is rounded up.";
const FRACTION = "{nz.STD} / (100 + {nz.STD})";

/** GST101A. The tax comes from the totals of boxes 7 and 11, not from the invoices. */
export const gst101a: ReturnForm = {
  id: "nz-gst101a",
  name: "GST return",
  levies: ["GST"],
  turnover: ["5"],
  purchases: ["11"],
  from: "2018-01-01",
  to: null,
  boxes: [
    sum("5", "Total sales and income including GST and zero-rated supplies", {
      ...VALUE,
      short: "Total sales and income",
    }),
    sum("6", "Zero-rated supplies included in box 5", VALUE),
    computed("7", "Box 5 less box 6", "[5] - [6]", VALUE),
    computed("8", "Box 7 times 3 divided by 23", `[7] * ${FRACTION}`, {
      words: "The tax fraction of the rate in force, of box 7.",
      doubt: HALF_CENTS,
    }),
    sum("9", "Adjustments from the calculation sheet"),
    computed("10", "Total GST collected", "[8] + [9]"),
    sum("11", "Total purchases and expenses including GST, excluding imported goods", {
      ...VALUE,
      short: "Total purchases and expenses",
    }),
    computed("12", "Box 11 times 3 divided by 23", `[11] * ${FRACTION}`, {
      words: "The tax fraction of the rate in force, of box 11.",
      doubt: HALF_CENTS,
    }),
    sum("13", "Credit adjustments from the calculation sheet"),
    computed("14", "Total GST credit", "[12] + [13]"),
    computed("15", "Difference between boxes 10 and 14", "abs([10] - [14])", {
      words: "To pay where box 10 is larger, to be refunded where box 14 is.",
    }),
  ],
  net: { output: "[10]", input: "[14]", due: "[10] - [14]", shown: "15" },
  rules: [{ formula: "[6] <= [5]", says: "Box 6 is more than box 5." }],
  source: "IR375, form GST101A; from memory",
};
