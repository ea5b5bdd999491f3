import type { BoxDefinition, ReturnForm } from "../../model/returnForm.ts";
import { computed, sum, typedIn, WHOLE_CUT } from "../shared/formBoxes.ts";
import { simplerTables, tables } from "./formTables.ts";

const VALUE = { holds: "value", rounding: WHOLE_CUT } as const;
const TAX = { rounding: WHOLE_CUT } as const;
const SHEET = { ...VALUE, part: "worksheet" } as const;

const lodged: BoxDefinition[] = [
  sum("G1", "Total sales", {
    ...VALUE,
    words: "All sales with GST and wine tax in the price, without luxury car tax.",
    doubt: "What counts of luxury car tax and of margin scheme sales.",
  }),
  sum("G2", "Export sales", VALUE),
  sum("G3", "Other GST-free sales", VALUE),
  sum("G10", "Capital purchases", VALUE),
  sum("G11", "Non-capital purchases", VALUE),
  typedIn("W1", "Total of salary, wages and other payments", { ...VALUE, short: "Wages and other payments" }),
  typedIn("W2", "Amounts withheld from W1", TAX),
  typedIn("W4", "Amounts withheld where no ABN is quoted", TAX),
  typedIn("W3", "Other amounts withheld", TAX),
  computed("W5", "Total amounts withheld", "[W2] + [W3] + [W4]", TAX),
  typedIn("T7", "PAYG instalment amount of the authority", { ...TAX, short: "PAYG instalment" }),
  typedIn("T8", "Estimated income tax for the year", TAX),
  typedIn("T9", "Varied PAYG instalment", {
    ...TAX,
    words: "Typed in, also as nil, it takes the place of T7.",
  }),
  typedIn("T1", "PAYG instalment income", {
    ...VALUE,
    words: "Gross business and investment income without GST.",
  }),
  typedIn("T2", "PAYG instalment rate of the authority, %", { holds: "value" }),
  typedIn("T3", "Varied PAYG instalment rate, %", {
    holds: "value",
    words: "Typed in, also as nil, it takes the place of T2.",
  }),
  computed("T11", "PAYG instalment by income and rate", "[T1] * ([T3?] > 0 ? [T3] : [T2]) / 100", TAX),
  typedIn("T4", "Reason code for varying PAYG", { holds: "value" }),
  typedIn("F1", "FBT instalment amount of the authority", { ...TAX, short: "FBT instalment" }),
  typedIn("F2", "Estimated FBT for the year", TAX),
  typedIn("F3", "Varied FBT instalment", {
    ...TAX,
    words: "Typed in, also as nil, it takes the place of F1.",
  }),
  typedIn("F4", "Reason code for varying FBT", { holds: "value" }),
  sum("1A", "GST on sales", { ...TAX, negativeTo: "1B" }),
  sum("1C", "Wine equalisation tax", { ...TAX, negativeTo: "1D" }),
  sum("1E", "Luxury car tax", { ...TAX, negativeTo: "1F" }),
  computed("4", "PAYG tax withheld", "[W5]", TAX),
  computed("5A", "PAYG income tax instalment", "([T9?] > 0 ? [T9] : [T7]) + [T11]", TAX),
  computed("6A", "FBT instalment", "[F3?] > 0 ? [F3] : [F1]", TAX),
  typedIn("7", "Deferred company or fund instalment", TAX),
  sum("7A", "Deferred GST on imports", TAX),
  typedIn("7C", "Fuel tax credit over claim", TAX),
  computed("8A", "Total owed to the ATO", "[1A] + [1C] + [1E] + [4] + [5A] + [6A] + [7] + [7A] + [7C]", TAX),
  sum("1B", "GST on purchases", { ...TAX, negativeTo: "1A" }),
  sum("1D", "Wine equalisation tax refundable", { ...TAX, negativeTo: "1C" }),
  sum("1F", "Luxury car tax refundable", { ...TAX, negativeTo: "1E" }),
  typedIn("5B", "Credit from varying the PAYG instalment", TAX),
  typedIn("6B", "Credit from varying the FBT instalment", TAX),
  typedIn("7D", "Fuel tax credit", TAX),
  computed("8B", "Total owed by the ATO", "[1B] + [1D] + [1F] + [5B] + [6B] + [7D]", TAX),
  computed("9", "Payment or refund", "abs([8A] - [8B])", {
    ...TAX,
    words: "The difference of 8A and 8B: to pay where 8A is larger.",
  }),
];

const worksheet: BoxDefinition[] = [
  sum("G4", "Input-taxed sales", SHEET),
  computed("G5", "G2 + G3 + G4", "[G2] + [G3] + [G4]", SHEET),
  computed("G6", "Sales subject to GST", "[G1] - [G5]", SHEET),
  sum("G7", "Adjustments, sales", SHEET),
  computed("G8", "Sales subject to GST after adjustments", "[G6] + [G7]", SHEET),
  computed("G9", "GST on sales by the worksheet", "[G8] / 11", SHEET),
  computed("G12", "G10 + G11", "[G10] + [G11]", SHEET),
  sum("G13", "Purchases for making input-taxed sales", SHEET),
  sum("G14", "Purchases without GST in the price", SHEET),
  sum("G15", "Private and non-deductible part", SHEET),
  computed("G16", "G13 + G14 + G15", "[G13] + [G14] + [G15]", SHEET),
  computed("G17", "Purchases subject to GST", "[G12] - [G16]", SHEET),
  sum("G18", "Adjustments, purchases", SHEET),
  computed("G19", "Purchases subject to GST after adjustments", "[G17] + [G18]", SHEET),
  computed("G20", "GST on purchases by the worksheet", "[G19] / 11", SHEET),
];

/** Business activity statement. Cents are dropped on the total of each label. */
export const activityStatement: ReturnForm = {
  id: "au-bas",
  name: "Business activity statement",
  levies: ["GST"],
  turnover: ["G1"],
  purchases: ["G10", "G11"],
  from: "2018-01-01",
  to: null,
  parts: [{ id: "worksheet", name: "Calculation worksheet (kept, not lodged)" }],
  boxes: [...lodged, ...worksheet],
  tables,
  net: { output: "[8A]", input: "[8B]", due: "[8A] - [8B]", shown: "9" },
  rules: [
    { formula: "[G2] + [G3] + [G4] <= [G1]", says: "G2, G3 and G4 together are more than G1." },
    { formula: "[W2] <= [W1]", says: "More is withheld than was paid: W2 is above W1." },
  ],
  source: "ATO, how to complete your activity statement; from memory",
};

/** Kept for the agreement with the books, and not lodged by who reports by the simpler statement. */
const KEPT = new Set(["G2", "G3", "G10", "G11"]);

/** Simpler activity statement: of GST only G1, 1A and 1B are lodged. */
export const simplerStatement: ReturnForm = {
  ...activityStatement,
  id: "au-bas-simpler",
  name: "Business activity statement, simpler reporting",
  option: ["reporting", "simpler"],
  tables: simplerTables,
  boxes: activityStatement.boxes.map((box) => (KEPT.has(box.id) ? { ...box, part: "worksheet" } : box)),
  source: "ATO, simpler BAS for a GST turnover below $10 million; from memory",
};
