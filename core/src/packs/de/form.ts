import type { BoxDefinition, ReturnForm } from "../../model/returnForm.ts";
import { computed, sum, typedIn, WHOLE_CUT } from "../shared/formBoxes.ts";
import { line } from "../shared/formTables.ts";
import { tablesOf } from "./formTables.ts";

const SUBTOTAL = {
  words: "A subtotal of the paper form; it has no number of its own.",
  helper: true,
} as const;
const FLAG = { holds: "value", words: "1 where it is so; it is in no sum." } as const;
const BASE = { holds: "value", rounding: WHOLE_CUT } as const;

/** The tax of some fields is worked out from their base in whole euros. */
const taxed = (id: string, title: string, percent: number): BoxDefinition[] => [
  sum(id, title, BASE),
  computed(`${id}.tax`, `${title}: tax`, `[${id}] * ${percent} / 100`, {
    words: `The base in whole euros, times ${percent} %.`,
  }),
];

const BESIDE = "The years since which the form has it, and the sign of what is paid after all.";

const TAXES =
  "[81.tax] + [86.tax] + [36] + [80] + [89.tax] + [93.tax] + [98] + [96] + [47] + [74] + [85] + [65] + [69]";
const CREDITS = "[66] + [61] + [62] + [67] + [63] + [64] + [59]";

/** Preliminary VAT return (Umsatzsteuer-Voranmeldung). Bases in whole euros, cents cut; taxes in cents. */
export const preliminaryReturn: ReturnForm = {
  id: "eu-de-ustva",
  name: "Preliminary VAT return (UStVA)",
  levies: ["VAT"],
  turnover: ["81", "86", "87", "35", "41", "43", "48", "42", "60", "21", "45"],
  frequencies: ["monthly", "quarterly"],
  from: "2018-01-01",
  to: null,
  boxes: [
    typedIn("10", "Corrected return (1)", FLAG),
    typedIn("22", "Documents are sent apart (1)", FLAG),
    typedIn("26", "Direct debit is not to be used (1)", FLAG),
    typedIn("29", "Refund to be set off, or given to another (1)", FLAG),
    typedIn("23", "More is said in a letter (1)", FLAG),
    ...taxed("81", "Taxable supplies at 19 %", 19),
    ...taxed("86", "Taxable supplies at 7 %", 7),
    sum("87", "Taxable supplies at 0 %", BASE),
    sum("35", "Taxable supplies at other rates", BASE),
    sum("36", "Taxable supplies at other rates: tax"),
    typedIn("77", "Farm and forestry supplies to other members", BASE),
    typedIn("76", "Farm and forestry supplies with tax", BASE),
    typedIn("80", "Farm and forestry supplies: tax"),
    sum("41", "Intra-union supplies to buyers with VAT id", BASE),
    typedIn("44", "New vehicles to buyers without VAT id", BASE),
    typedIn("49", "New vehicles by private sellers", BASE),
    sum("43", "Other exempt supplies with input credit", BASE),
    sum("48", "Exempt supplies without input credit", BASE),
    sum("91", "Exempt acquisitions", BASE),
    ...taxed("89", "Acquisitions at 19 %", 19),
    ...taxed("93", "Acquisitions at 7 %", 7),
    sum("90", "Acquisitions at 0 %", BASE),
    sum("95", "Acquisitions at other rates", BASE),
    sum("98", "Acquisitions at other rates: tax"),
    typedIn("94", "New vehicles from sellers without VAT id", BASE),
    typedIn("96", "New vehicles from sellers without VAT id: tax"),
    sum("46", "Services of a business in another member state", BASE),
    sum("47", "Services of a business in another member state: tax"),
    sum("73", "Land transfer tax cases", BASE),
    sum("74", "Land transfer tax cases: tax"),
    sum("84", "Other reverse charges", BASE),
    sum("85", "Other reverse charges: tax"),
    sum("42", "Triangular supplies", BASE),
    sum("60", "Reverse charge, supplier side", BASE),
    sum("21", "Services taxed in another member state", BASE),
    sum("45", "Other supplies not taxable in Germany", {
      ...BASE,
      doubt: "Supplies declared in the one-stop shop are left out.",
    }),
    computed(
      "T1",
      "Tax (printed subtotal)",
      `[81.tax] + [86.tax] + [36] + [80] + [89.tax] + [93.tax] + [98] + [96] + [47] + [74] + [85]`,
      SUBTOTAL,
    ),
    sum("66", "Input tax from invoices"),
    sum("61", "Input tax on acquisitions"),
    sum("62", "Import VAT"),
    sum("67", "Input tax on reverse charges"),
    typedIn("63", "Input tax by average rates"),
    sum("64", "Correction of input tax"),
    typedIn("59", "Input tax on new vehicles"),
    computed("T2", "Remaining amount (printed subtotal)", `[T1] - (${CREDITS})`, SUBTOTAL),
    typedIn("65", "Tax after a change of the form of taxation"),
    sum("69", "Tax wrongly shown"),
    computed(
      "T3",
      "Prepayment or surplus before the special prepayment (printed subtotal)",
      "[T2] + [65] + [69]",
      SUBTOTAL,
    ),
    typedIn("39", "Special prepayment credited"),
    computed("83", "Remaining prepayment or surplus", "[T3] - [39]"),
    sum("50", "Reductions of the base, uncollectable claims (beside)", {
      ...BASE,
      words: "What uncollectable claims took off the bases above; it stands beside and is in no sum.",
      doubt: BESIDE,
    }),
    sum("37", "Reductions of input tax, bills not paid (beside)", {
      words: "What bills of our own that are uncollectable took off the input tax above; in no sum.",
      doubt: BESIDE,
    }),
  ],
  tables: tablesOf([
    line("39", "Special prepayment credited", "- 39"),
    line("83", "Remaining prepayment or surplus", "- 83", "result"),
    line("50", "Reductions of the base, uncollectable claims (beside)", "50 -"),
    line("37", "Reductions of input tax, bills not paid (beside)", "- 37"),
  ]),
  net: { output: TAXES, input: `${CREDITS} + [39]`, due: "[83]", shown: "83" },
  rules: [{ formula: "[67] <= [47] + [74] + [85]", says: "More is deducted in 67 than 47, 74 and 85 hold." }],
  source: "UStG § 18, form of 2023 and later; from memory",
};

const PREPAID = "vorauszahlung";

/** Annual VAT return: the rows of the preliminary one for the year, less what was declared before. */
export const annualReturn: ReturnForm = {
  ...preliminaryReturn,
  id: "eu-de-ust2a",
  name: "Annual VAT return (USt 2 A)",
  frequencies: ["annual"],
  boxes: [
    ...preliminaryReturn.boxes.filter(({ id }) => !["39", "83", "50", "37"].includes(id)),
    computed("jahr", "Tax of the year", `${TAXES} - (${CREDITS})`),
    typedIn(PREPAID, "Prepayments declared in the year", {
      words: "The sum of field 83 of the preliminary returns of the year; nothing where none were filed.",
    }),
    computed("rest", "Still to pay, or to be refunded", `[jahr] - [${PREPAID}]`),
  ],
  tables: tablesOf([
    line("", "Tax of the year", "- jahr", "sum"),
    line("", "Prepayments declared in the year", `- ${PREPAID}`),
    line("", "Still to pay, or to be refunded", "- rest", "result"),
  ]),
  net: { output: TAXES, input: `${CREDITS} + [${PREPAID}]`, due: "[rest]", shown: "rest" },
  source: "UStG § 18(3), form USt 2 A; from memory",
};
