import type { ReturnForm } from "../../model/returnForm.ts";
import { computed, sum, WHOLE_CUT } from "../shared/formBoxes.ts";
import { line, table } from "../shared/formTables.ts";

/** Every box is in whole euro; the cents are left out once, on the total of the box. */
const TAX = { rounding: WHOLE_CUT } as const;
const VALUE = { holds: "value", rounding: WHOLE_CUT } as const;

const tables = [
  table("VAT", "€", [
    line("T1", "VAT on sales", "T1"),
    line("T2", "VAT on purchases", "T2"),
    line("T3", "Net payable (T1 over T2)", "T3", "result"),
    line("T4", "Net repayable (T2 over T1)", "T4", "result"),
  ]),
  table("Trading details", "To other EU countries | From other EU countries", [
    line("E1, E2", "Goods", "E1 E2"),
    line("ES1, ES2", "Services", "ES1 ES2"),
  ]),
];

/** VAT3. A negative T1 or T2 is not accepted: it stands in the other box. */
const before2021: ReturnForm = {
  id: "ie-vat3",
  name: "VAT3",
  levies: ["VAT"],
  from: "2018-01-01",
  to: "2020-12-31",
  boxes: [
    sum("T1", "VAT on sales", {
      ...TAX,
      negativeTo: "T2",
      words:
        "Output tax, with the tax on acquisitions, services received, postponed imports and construction.",
    }),
    sum("T2", "VAT on purchases", {
      ...TAX,
      negativeTo: "T1",
      words: "Input tax that is deductible.",
    }),
    computed("T3", "VAT payable", "max([T1] - [T2], 0)", TAX),
    computed("T4", "VAT repayable", "max([T2] - [T1], 0)", TAX),
    sum("E1", "Goods to other EU countries", VALUE),
    sum("E2", "Goods from other EU countries", VALUE),
    sum("ES1", "Services to other EU countries", VALUE),
    sum("ES2", "Services from other EU countries", VALUE),
  ],
  tables,
  net: { output: "[T1]", input: "[T2]", due: "[T3] - [T4]", shown: "T3", repaid: "T4" },
  rules: [{ formula: "[T3] == 0 || [T4] == 0", says: "T3 and T4 exclude each other." }],
  source: "Revenue, VAT3 return; from memory",
};

/** From the period of January 2021 on, with the value of imports under postponed accounting. */
export const vat3: ReturnForm = {
  ...before2021,
  from: "2021-01-01",
  to: null,
  boxes: [
    ...before2021.boxes,
    sum("PA1", "Postponed accounting: customs value of goods imported", {
      ...VALUE,
      short: "Customs value of postponed imports",
      doubt: "The customs value without the duty.",
    }),
  ],
  tables: [
    ...tables,
    table("Postponed accounting", "€", [
      line("PA1", "Customs value of goods imported under postponed accounting", "PA1"),
    ]),
  ],
};

export const forms = [before2021, vat3];
