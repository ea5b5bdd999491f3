import type { BoxDefinition, ReturnForm } from "../../model/returnForm.ts";
import { carried, computed, sum, typedIn, WHOLE_NEAREST } from "../shared/formBoxes.ts";
import { across, line, table } from "../shared/formTables.ts";
import { outwardTables } from "./tablesOfGstr1.ts";
import { paymentTables, summaryTables } from "./tablesOfGstr3b.ts";
import { states } from "./states.ts";
import { creditUse } from "./creditUse.ts";

const VALUE = { holds: "value" } as const;
const WORDS: Record<string, string> = {
  txval: "taxable value",
  igst: "integrated tax",
  cgst: "central tax",
  sgst: "state tax",
  cess: "cess",
  nil: "nil rated",
  exempt: "exempt",
  nongst: "non-GST",
  intra: "inside the state",
  inter: "across states",
};
const HEADS = ["igst", "cgst", "sgst", "cess"];
const ALL = ["txval", ...HEADS];
const VALUES = new Set(["txval", "nil", "exempt", "nongst", "intra", "inter"]);

function row(id: string, title: string, columns: readonly string[], part: string): BoxDefinition[] {
  return columns.map((column) =>
    sum(`${id}.${column}`, `${title}, ${WORDS[column] ?? column}`, {
      ...(VALUES.has(column) ? VALUE : {}),
      part,
      ...(id.includes("*") ? { members: states.map(({ code }) => code) } : {}),
    }),
  );
}

const G1 = (table: string, title: string, columns: readonly string[] = ALL) =>
  row(`g1.${table}`, title, columns, "g1");
const R3 = (id: string, title: string, columns: readonly string[] = ALL) => row(id, title, columns, "3b");

/** Imports bear no central and no state tax: the form has no field for them. */
const NO_FIELD = /\.(cgst|sgst)$/;
const imported = (id: string, title: string) =>
  R3(id, title, HEADS).map((box) => (NO_FIELD.test(box.id) ? { ...box, helper: true } : box));

/** Kinds of table 15: who supplies, and to whom. */
const OPERATORS = [
  ["b2b", "registered to registered"],
  ["b2c", "registered to unregistered"],
  ["urp2b", "unregistered to registered"],
  ["urp2c", "unregistered to unregistered"],
] as const;

const outwardRegister: BoxDefinition[] = [
  ...G1("4A", "To registered persons"),
  ...G1("4B", "To registered persons, recipient pays"),
  ...G1("5A", "To unregistered persons across states, large"),
  ...G1("6A", "Exports", ["txval", "igst", "cess"]),
  ...G1("6B", "To special economic zones", ["txval", "igst", "cess"]),
  ...G1("6C", "Deemed exports"),
  ...G1("7A1", "To unregistered persons inside the state"),
  ...G1("7B1", "To unregistered persons across states"),
  ...["8A", "8B", "8C", "8D"].flatMap((table) => G1(table, `Table ${table}`, ["nil", "exempt", "nongst"])),
  ...G1("9A.b2ba", "Amended: invoices to registered persons"),
  ...G1("9A.b2cla", "Amended: large invoices to unregistered persons across states"),
  ...G1("9A.expa", "Amended: exports", ["txval", "igst", "cess"]),
  ...G1("9B.cdnr", "Notes to registered persons"),
  ...G1("9B.cdnur", "Notes to unregistered persons"),
  ...G1("9C.cdnra", "Amended: notes to registered persons"),
  ...G1("9C.cdnura", "Amended: notes to unregistered persons"),
  ...G1("10A", "Amended: unregistered persons inside the state"),
  ...G1("10B", "Amended: unregistered persons across states"),
  ...G1("11A1", "Advances received, local"),
  ...G1("11A2", "Advances received, inter-state"),
  ...G1("11B1", "Advances adjusted, local"),
  ...G1("11B2", "Advances adjusted, inter-state"),
  ...G1("11IIA1", "Amended: advances received, local"),
  ...G1("11IIA2", "Amended: advances received, inter-state"),
  ...G1("11IIB1", "Amended: advances adjusted, local"),
  ...G1("11IIB2", "Amended: advances adjusted, inter-state"),
  ...G1("14b", "Through operators who pay the tax", ["txval"]),
  ...G1("14Ab", "Amended: through operators who pay the tax", ["txval"]),
  ...OPERATORS.flatMap(([kind, title]) => G1(`15.${kind}`, `Operator's own liability, ${title}`)),
  ...ALL.map((column) =>
    computed(
      `g1.15.${column}`,
      `Operator's own liability, ${WORDS[column] ?? column}`,
      OPERATORS.map(([kind]) => `[g1.15.${kind}.${column}]`).join(" + "),
      { ...(VALUES.has(column) ? VALUE : {}), part: "g1" },
    ),
  ),
  ...G1("15A", "Amended: operator's own liability"),
];

const families: BoxDefinition[] = (
  [
    ["unreg", "To unregistered persons across states"],
    ["comp", "To composition taxpayers across states"],
    ["uin", "To holders of a UIN across states"],
  ] as const
).flatMap(([key, title]) =>
  ["txval", "igst"].flatMap((column) => row(`3.2.${key}.*`, title, [column], "3b")),
);

const net = HEADS.map((head) =>
  computed(
    `4C.${head}`,
    `Net credit available, ${WORDS[head]}`,
    `[4A1.${head}] + [4A2.${head}] + [4A3.${head}] + [4A4.${head}] + [4A5.${head}] - [4B1.${head}] - [4B2.${head}]`,
    { part: "3b" },
  ),
);

const summary: BoxDefinition[] = [
  ...R3("3.1a", "Outward taxable supplies"),
  ...R3("3.1b", "Outward zero-rated supplies", ["txval", "igst", "cess"]),
  ...R3("3.1c", "Nil rated and exempted supplies", ["txval"]),
  ...R3("3.1d", "Inward supplies, reverse charge"),
  ...R3("3.1e", "Non-GST outward supplies", ["txval"]),
  ...R3("3.1.1i", "Supplies on which the operator pays"),
  ...R3("3.1.1ii", "Supplies through an operator who pays", ["txval"]),
  ...families,
  ...imported("4A1", "Credit: import of goods"),
  ...imported("4A2", "Credit: import of services"),
  ...R3("4A3", "Credit: reverse charge", HEADS),
  ...R3("4A4", "Credit: input service distributor", HEADS),
  ...R3("4A5", "Credit: all other", HEADS),
  ...R3("4B1", "Credit reversed for good", HEADS),
  ...R3("4B2", "Credit reversed, may come back", HEADS),
  ...net,
  ...R3("4D1", "Credit reclaimed", HEADS),
  ...R3("4D2", "Credit barred", HEADS),
  ...R3("5.r1", "Inward: composition, exempt, nil", ["inter", "intra"]),
  ...R3("5.r2", "Inward: non-GST", ["inter", "intra"]),
  ...HEADS.map((head) => typedIn(`5.1.interest.${head}`, `Interest, ${WORDS[head]}`, { part: "3b" })),
  ...["cgst", "sgst"].map((head) =>
    typedIn(`5.1.latefee.${head}`, `Late fee, ${WORDS[head]}`, { part: "3b" }),
  ),
];

const use = creditUse();
const each = (id: (head: string) => string) => HEADS.map((head) => `[${id(head)}]`).join(" + ");
const PAYABLE = each((head) => `6.1A.${head}.payable`);
const CASH = each((head) => `6.1A.${head}.cash`);
const REVERSE = each((head) => `6.1B.${head}.payable`);
const CHARGES = `${each((head) => `5.1.interest.${head}`)} + [5.1.latefee.cgst] + [5.1.latefee.sgst]`;

/** GSTR-1 and GSTR-3B of a period together: the register, and the summary that is paid. */
export const gstr: ReturnForm = {
  id: "in-gstr",
  name: "GSTR-1 and GSTR-3B",
  levies: ["CGST", "IGST"],
  turnover: [
    "3.1a.txval",
    "3.1b.txval",
    "3.1c.txval",
    "3.1e.txval",
    "3.1.1i.txval",
    "3.1.1ii.txval",
    "g1.4B.txval",
  ],
  from: "2017-07-01",
  to: null,
  parts: [
    { id: "3b", name: "GSTR-3B" },
    { id: "credit", name: "GSTR-3B, payment of tax and use of credit" },
    { id: "g1", name: "GSTR-1" },
  ],
  boxes: [...summary, ...use, ...outwardRegister],
  tables: [...summaryTables, ...paymentTables, ...outwardTables],
  net: {
    output: `${PAYABLE} + ${REVERSE} + ${CHARGES}`,
    input: `${PAYABLE} - (${CASH})`,
    due: `${CASH} + ${REVERSE} + ${CHARGES}`,
    shown: "cash",
    carried: HEADS.map(
      (head) =>
        `[cl.${head}] - [op.${head}] + [6.1A.${head}.negout] - [6.1A.${head}.negadj] + [6.1B.${head}.negout] - [6.1B.${head}.negadj]`,
    ).join(" + "),
  },
  amended: [
    { from: ["g1.4A", "g1.4B", "g1.6B", "g1.6C"], to: "g1.9A.b2ba" },
    { from: ["g1.5A"], to: "g1.9A.b2cla" },
    { from: ["g1.6A"], to: "g1.9A.expa" },
    { from: ["g1.9B.cdnr"], to: "g1.9C.cdnra" },
    { from: ["g1.9B.cdnur"], to: "g1.9C.cdnura" },
    { from: ["g1.7A1"], to: "g1.10A" },
    { from: ["g1.7B1"], to: "g1.10B" },
    ...["A1", "A2", "B1", "B2"].map((half) => ({ from: [`g1.11${half}`], to: `g1.11II${half}` })),
    { from: ["g1.14b"], to: "g1.14Ab" },
    { from: OPERATORS.map(([kind]) => `g1.15.${kind}`), to: "g1.15A" },
  ],
  source: "N 14/2022-CT; Circ. 170/02/2022; from memory",
};

const CLASSES = [
  ["trader", "trader", "0.5", "[cmp08.base]"],
  ["manufacturer", "manufacturer", "0.5", "[cmp08.1.value]"],
  ["restaurant", "restaurant", "2.5", "[cmp08.1.value]"],
  ["services", "other services", "3", "[cmp08.1.value]"],
] as const;

const compositionTables = [
  table(
    "3. Summary of self-assessed liability",
    "Value | Integrated tax | Central tax | State/UT tax | Cess | In all",
    [
      line("1", "Outward supplies, exempt ones included", "cmp08.1.value - cmp08.1.cgst cmp08.1.sgst - -"),
      line(
        "2",
        "Inward supplies under reverse charge, import of services included",
        inAll("cmp08.2", "value"),
      ),
      line("3", "Tax payable (1 + 2)", inAll("cmp08.3", "-"), "sum"),
      line("4", "Interest payable, if any", inAll("cmp08.4", "-")),
      line("5", "Tax and interest paid", across("cmp08.5", `- ${HEADS.join(" ")}`) + " cmp08.5", "result"),
    ],
  ),
];

function inAll(row: string, first: string): string {
  return across(row, `${first} ${HEADS.join(" ")} -`);
}

/** CMP-08 of a composition taxpayer, by class. */
export const compositionForms: ReturnForm[] = CLASSES.map(([value, name, rate, base]) => ({
  id: `in-cmp08-${value}`,
  name: `CMP-08, ${name}`,
  levies: ["CGST", "IGST"],
  turnover: ["cmp08.1.value"],
  option: ["composition", value],
  from: "2019-04-01",
  to: null,
  boxes: [
    sum("cmp08.1.value", "Outward supplies, exempt ones included", VALUE),
    sum("cmp08.base", "Of which taxable", { ...VALUE, helper: true }),
    computed("cmp08.1.cgst", "Central tax on outward supplies", `${base} * ${rate} / 100`),
    computed("cmp08.1.sgst", "State tax on outward supplies", `${base} * ${rate} / 100`),
    sum("cmp08.2.value", "Inward supplies under reverse charge", VALUE),
    ...HEADS.map((head) => sum(`cmp08.2.${head}`, `Reverse charge, ${WORDS[head]}`)),
    computed("cmp08.3.igst", "Integrated tax payable", "[cmp08.2.igst]"),
    computed("cmp08.3.cgst", "Central tax payable", "[cmp08.1.cgst] + [cmp08.2.cgst]"),
    computed("cmp08.3.sgst", "State tax payable", "[cmp08.1.sgst] + [cmp08.2.sgst]"),
    computed("cmp08.3.cess", "Cess payable", "[cmp08.2.cess]"),
    ...HEADS.map((head) => typedIn(`cmp08.4.${head}`, `Interest, ${WORDS[head]}`)),
    ...HEADS.flatMap((head) => [
      carried(`cmp08.in.${head}`, `Negative liability brought forward, ${WORDS[head]}`, `cmp08.out.${head}`, {
        helper: true,
      }),
      computed(`cmp08.net.${head}`, `Net, ${WORDS[head]}`, `[cmp08.3.${head}] - [cmp08.in.${head}]`, {
        rounding: WHOLE_NEAREST,
        helper: true,
      }),
      computed(
        `cmp08.out.${head}`,
        `Negative liability carried forward, ${WORDS[head]}`,
        `max(0, -[cmp08.net.${head}])`,
        {
          helper: true,
          doubt: "Whether the statement carries a negative quarter forward as GSTR-3B does.",
        },
      ),
      computed(`cmp08.5.${head}`, `Paid, ${WORDS[head]}`, `max(0, [cmp08.net.${head}]) + [cmp08.4.${head}]`, {
        rounding: WHOLE_NEAREST,
      }),
    ]),
    computed("cmp08.5", "Paid in all", HEADS.map((head) => `[cmp08.5.${head}]`).join(" + ")),
  ],
  tables: compositionTables,
  net: {
    output: "[cmp08.5]",
    input: "0",
    due: "[cmp08.5]",
    shown: "cmp08.5",
    carried: HEADS.map((head) => `[cmp08.out.${head}] - [cmp08.in.${head}]`).join(" + "),
    scheme: "[cmp08.1.cgst] + [cmp08.1.sgst]",
  },
  source: "CGST s.10, R.62; from memory",
}));

/** State VAT with central sales tax, for books to the end of June 2017. A summary of our own, no state's form. */
export const oldVat: ReturnForm = {
  id: "in-vat-old",
  name: "State VAT and CST",
  levies: ["SVAT", "CST"],
  turnover: ["V1", "V2", "V3", "C1"],
  from: "2005-04-01",
  to: "2017-06-30",
  boxes: [
    sum("V1", "Sales at the lower rate", VALUE),
    sum("V2", "Sales at the higher rate", VALUE),
    sum("V3", "Exempt sales", VALUE),
    sum("V4", "Output tax at the lower rate"),
    sum("V5", "Output tax at the higher rate"),
    sum("V6", "Purchases at the lower rate", VALUE),
    sum("V7", "Purchases at the higher rate", VALUE),
    sum("V8", "Input tax"),
    computed("V9", "VAT payable", "[V4] + [V5] - [V8]"),
    sum("C1", "Inter-state sales", VALUE),
    sum("C2", "Central sales tax"),
    computed("V10", "VAT and central sales tax payable", "[V9] + [C2]"),
  ],
  net: { output: "[V4] + [V5] + [C2]", input: "[V8]", due: "[V10]", shown: "V10" },
  source: "state VAT Acts, Central Sales Tax Act; from memory",
};
