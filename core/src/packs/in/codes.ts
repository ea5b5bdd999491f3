import type { Boxes, Component, TaxCode } from "../../model/taxCode.ts";
import { headOf } from "../shared/codeRows.ts";
import type { CodeRow } from "../shared/codeRows.ts";
import { oldCodes } from "./oldCodes.ts";
import { SLABS } from "./rates.ts";
import { SGST_STATES, UNION_TERRITORIES } from "./states.ts";
import { HEADS } from "./heads.ts";
import type { Head } from "./heads.ts";

type Levy = "CGST" | "SGST" | "UTGST" | "IGST" | "CESS";
type Row = Omit<CodeRow, "schedule"> & {
  scope?: string;
  limit?: string;
  hold?: string;
  only?: readonly string[];
};

const FAMILY = SLABS.map(({ value, percent }) => ({ value, percent }));

function code(row: Row, components: readonly Component[]): TaxCode {
  const { scope, limit, only, hold, ...head } = row;
  const family = FAMILY.filter(({ value }) => only?.includes(value) ?? true);
  return {
    ...headOf("in", head),
    components,
    ...(head.code.includes("{r}") ? { family } : {}),
    ...(scope === undefined ? {} : { scope }),
    ...(limit === undefined ? {} : { limit }),
    ...(hold === undefined ? {} : { hold }),
  };
}

/** The levies of a supply: central and state tax inside a state, integrated tax across a border. */
function taxes(boxes: (head: Head) => Component["boxes"], more: Partial<Component> = {}): Component[] {
  const levyOf = (
    levy: Levy,
    schedule: string,
    when: NonNullable<Component["when"]>,
    head: Head,
  ): Component => ({
    levy,
    rate: { kind: "percent", schedule },
    partOfLaterBases: false,
    charged: "charged",
    recoverable: "100",
    when,
    boxes: boxes(head),
    ...more,
  });
  return [
    levyOf("CGST", "in.C{r}", { scope: "local" }, HEADS.cgst),
    levyOf("SGST", "in.C{r}", { scope: "local", place: SGST_STATES }, HEADS.sgst),
    levyOf("UTGST", "in.C{r}", { scope: "local", place: UNION_TERRITORIES }, HEADS.sgst),
    levyOf("IGST", "in.I{r}", { scope: "inter" }, HEADS.igst),
  ];
}

/**
 * The taxes of goods that bear compensation cess too, on the value without tax: a share of it, or an amount a unit. The
 * attribute `cess` of the line holds which; it differs from heading to heading.
 * @source Compensation Act s.8; N 1/2017-Compensation Cess (Rate)
 */
function withCess(by: "value" | "unit", boxes: (head: Head) => Component["boxes"]): Component[] {
  return [
    ...taxes(boxes),
    {
      levy: "CESS",
      rate: {
        kind: "formula",
        formula: by === "value" ? "net * cess / 100" : "quantity * cess",
        base: "net",
      },
      partOfLaterBases: false,
      charged: "charged",
      recoverable: "100",
      boxes: boxes(HEADS.cess),
    },
  ];
}

/** Slabs whose goods bore cess, and its last day: for all but tobacco it was 21 September 2025. */
const CESS = {
  supply: "goods",
  inputs: ["cess"],
  only: ["5", "12", "18", "28", "40"],
  to: "2026-01-31",
  note: "From 22 September 2025 for tobacco and pan masala only. The attribute `cess` holds the percentage or the amount a unit.",
  source: "Compensation Act s.8; N 2/2025-Compensation Cess (Rate), from memory",
} as const;

/** Tax of each head typed in, for what no bill shows: the amount of the line is 0. */
const typedHeads = (boxes: (column: string) => string): Component[] =>
  (["IGST", "CGST", "SGST", "UTGST", "CESS"] as const).map((levy) => ({
    levy,
    rate: { kind: "typed" },
    partOfLaterBases: false,
    charged: "charged",
    recoverable: "100",
    boxes: { purchase: boxes(levy === "UTGST" ? "sgst" : levy.toLowerCase()) },
  }));

/** A supply without tax: one row, whatever the scope. */
const untaxed = (boxes: Component["boxes"]): Component[] => [
  {
    levy: "IGST",
    rate: { kind: "none" },
    partOfLaterBases: false,
    charged: "charged",
    recoverable: "100",
    boxes,
  },
];

/** The tags of a head in a table: its tax, and by the head that carries it the value. */
const into = (head: Head, ...tables: string[]): string =>
  tables
    .map((table) => `${head.carriesValue ? `${table}.txval +n, ` : ""}${table}.${head.column} +t`)
    .join(", ");

const NOT_REGISTERED = ["unregistered", "composition", "uin"];
const STATE = "{there}";

/** Which table of GSTR-1 a taxable supply stands in, with its row of GSTR-3B (section 4.1: first hit wins). */
function outward(head: Head): Boxes {
  // Table 3.2 has no column for cess.
  const listed = (row: string) => (head.column === "cess" ? [] : [`3.2.${row}.${STATE}`]);
  const unregistered = (table: string) => into(head, `g1.${table}`, "3.1a", ...listed("unreg"));
  const special = (party: string, row: string) => ({
    when: { party, scope: "inter" },
    tags: into(head, "g1.4A", "3.1a", ...listed(row)),
  });
  return [
    {
      when: { note: "credit", party: ["registered", "sez", "composition", "uin"] },
      tags: into(head, "g1.9B.cdnr", "3.1a"),
    },
    { when: { note: "credit", scope: "inter", originalSize: "over" }, tags: unregistered("9B.cdnur") },
    { when: { note: "credit", scope: "inter" }, tags: unregistered("7B1") },
    { when: { note: "credit" }, tags: into(head, "g1.7A1", "3.1a") },
    special("composition", "comp"),
    special("uin", "uin"),
    { when: { party: ["registered", "sez", "composition", "uin"] }, tags: into(head, "g1.4A", "3.1a") },
    { when: { scope: "local" }, tags: into(head, "g1.7A1", "3.1a") },
    { when: { size: "over" }, tags: unregistered("5A") },
    { tags: unregistered("7B1") },
  ];
}

/** Table 8 by scope and customer; `row` is the row of GSTR-3B. */
function tableEight(key: string, row: string): Boxes {
  const tags = (table: string) => `g1.${table}.${key} +n, ${row}.txval +n`;
  return [
    { when: { scope: "inter", party: NOT_REGISTERED }, tags: tags("8C") },
    { when: { scope: "local", party: NOT_REGISTERED }, tags: tags("8D") },
    { when: { scope: "inter" }, tags: tags("8A") },
    { tags: tags("8B") },
  ];
}

/** The four kinds of table 15: with or without a registered supplier behind, to a registered customer or not. */
const operators = (head: Head): Boxes => [
  {
    when: { "@supplier": "URP", party: NOT_REGISTERED },
    tags: into(head, "g1.15.urp2c", "3.1.1i"),
  },
  { when: { "@supplier": "URP" }, tags: into(head, "g1.15.urp2b", "3.1.1i") },
  { when: { party: NOT_REGISTERED }, tags: into(head, "g1.15.b2c", "3.1.1i") },
  { tags: into(head, "g1.15.b2b", "3.1.1i") },
];

const creditOr = (table: string, credit: string, head: Head, row: string): Boxes => [
  { when: { note: "credit" }, tags: into(head, `g1.${credit}`, row) },
  { tags: into(head, `g1.${table}`, row) },
];

const IGST_ONLY = (components: Component[]) => components.filter(({ levy }) => levy === "IGST");
const zeroRated = (table: string, credit: string) =>
  untaxed({
    sale: [
      { when: { note: "credit" }, tags: `g1.${credit}.txval +n, 3.1b.txval +n` },
      { tags: `g1.${table}.txval +n, 3.1b.txval +n` },
    ],
  });

const margin = (head: Head): Boxes => {
  const [taxable] = [outward(head)];
  return typeof taxable === "string"
    ? taxable
    : taxable.map((route) => ({ ...route, tags: route.tags.replaceAll("txval +n", "txval +b") }));
};
const onMargin = (components: Component[]): Component[] =>
  components.map((component) => ({
    ...component,
    rate: {
      kind: "formula",
      formula: `max(0, net - cost) * {${component.levy === "IGST" ? "in.I{r}" : "in.C{r}"}} / 100`,
      base: "max(0, net - cost)",
    },
  }));

/** Tax the recipient owes, shown by the supplier: the value times the rate, nothing charged. */
const shownOnly = (head: Head): Boxes => {
  const parts = head.column === "igst" ? "100" : "200";
  return `${head.carriesValue ? "g1.4B.txval +n, " : ""}g1.4B.${head.column} +{p}/${parts}n`;
};

const bought =
  (table: string, measure: "r" | "t", ...more: string[]) =>
  (head: Head) => ({
    purchase: [table, ...more].map((one) => `${one}.${head.column} +${measure}`).join(", "),
  });
const selfAssessed =
  (table: string, measure: "r" | "t", ...more: string[]) =>
  (head: Head) => ({
    purchase: [
      into(head, "3.1d"),
      ...[table, ...more].map((one) => `${one}.${head.column} +${measure}`),
      `${head.carriesValue ? "cmp08.2.value +n, " : ""}cmp08.2.${head.column} +t`,
    ].join(", "),
  });
const SELF = { charged: "self-assessed" } as const;
const COST = { recoverable: "0" } as const;

// prettier-ignore
const sales: TaxCode[] = [
  code({ code: "S{r}", name: "Taxable {r}", direction: "sale", treatment: "standard", limit: "in.B2CL", source: "CGST s.9, IGST s.5" }, taxes((head) => ({ sale: outward(head) }))),
  code({ code: "S{r}C", name: "Taxable {r} with cess by value", direction: "sale", treatment: "standard", limit: "in.B2CL", ...CESS }, withCess("value", (head) => ({ sale: outward(head) }))),
  code({ code: "S{r}U", name: "Taxable {r} with cess by unit", direction: "sale", treatment: "standard", limit: "in.B2CL", ...CESS }, withCess("unit", (head) => ({ sale: outward(head) }))),
  code({ code: "NIL", name: "Nil rated", direction: "sale", treatment: "zero", source: "tariff 0" }, untaxed({ sale: tableEight("nil", "3.1c") })),
  code({ code: "EX", name: "Exempt by notification", direction: "sale", treatment: "exempt", source: "CGST s.11" }, untaxed({ sale: tableEight("exempt", "3.1c") })),
  code({ code: "NG", name: "Non-GST supply", direction: "sale", treatment: "out-of-scope", note: "Petrol, diesel, crude, gas, ATF, liquor.", source: "CGST s.9(2)" }, untaxed({ sale: tableEight("nongst", "3.1e") })),
  code({ code: "OS", name: "Neither goods nor services", direction: "both", treatment: "out-of-scope", source: "CGST Sch. III" }, untaxed({})),
  code({ code: "TCS", name: "Income tax collected at source", direction: "sale", treatment: "out-of-scope", note: "Charged beside the price, to the account of what is collected; no part of the value that bears GST.", source: "Income-tax Act 1961 s.206C; corrigendum to Circ. 76/50/2018" }, []),
  code({ code: "EXL", name: "Export under LUT or bond", direction: "sale", treatment: "export", scope: "inter", source: "IGST s.16(3)" }, zeroRated("6A", "9B.cdnur")),
  code({ code: "EXW{r}", name: "Export with IGST paid, {r}", direction: "sale", treatment: "export", scope: "inter", source: "IGST s.16(4)" }, IGST_ONLY(taxes((head) => ({ sale: creditOr("6A", "9B.cdnur", head, "3.1b") })))),
  code({ code: "SZL", name: "To a special economic zone without IGST", direction: "sale", treatment: "export", scope: "inter", source: "IGST s.16" }, zeroRated("6B", "9B.cdnr")),
  code({ code: "SZW{r}", name: "To a special economic zone with IGST, {r}", direction: "sale", treatment: "export", scope: "inter", source: "IGST s.16" }, IGST_ONLY(taxes((head) => ({ sale: creditOr("6B", "9B.cdnr", head, "3.1b") })))),
  code({ code: "DE{r}", name: "Deemed export, {r}", direction: "sale", treatment: "standard", source: "CGST s.147" }, taxes((head) => ({ sale: creditOr("6C", "9B.cdnr", head, "3.1a") }))),
  code({ code: "SRC{r}", name: "Reverse charge, supplier, {r}", direction: "sale", treatment: "reverse-charge-supplier", source: "CGST s.9(3)" }, taxes((head) => ({ sale: shownOnly(head) }), { charged: "declared-only" })),
  code({ code: "ECO5", name: "Through an operator who pays the tax", direction: "sale", treatment: "out-of-scope", source: "CGST s.9(5)" }, untaxed({ sale: "g1.14b.txval +n, 3.1.1ii.txval +n" })),
  code({ code: "EO{r}", name: "Operator's own liability, {r}", direction: "sale", treatment: "standard", source: "CGST s.9(5)" }, taxes((head) => ({ sale: operators(head) }))),
  code({ code: "MAR{r}", name: "Used goods on margin, {r}", direction: "sale", treatment: "margin", amountIs: "gross", supply: "goods", inputs: ["cost"], limit: "in.B2CL", note: "The line's attribute `cost` holds the purchase price.", source: "CGST Rules R.32(5)" }, onMargin(taxes((head) => ({ sale: margin(head) })))),
  code({ code: "ADV{r}", name: "Advance for services, {r}", direction: "sale", treatment: "standard", supply: "services", note: "Tax-inclusive; a credit note when the advance is adjusted.", source: "CGST s.13" }, taxes((head) => ({ sale: advances(head) }))),
  code({ code: "CS", name: "Composition: taxable bill of supply", direction: "sale", treatment: "out-of-scope", source: "CGST s.10" }, untaxed({ sale: "cmp08.1.value +n, cmp08.base +n" })),
  code({ code: "CX", name: "Composition: exempt bill of supply", direction: "sale", treatment: "exempt", source: "CGST s.10" }, untaxed({ sale: "cmp08.1.value +n" })),
];

function advances(head: Head): Boxes {
  const table = head.column === "igst" ? "2" : "1";
  const adjusted = into(head, `g1.11B${table}`).replaceAll("+", "-");
  return [
    { when: { note: "credit" }, tags: `${adjusted}, ${into(head, "3.1a")}` },
    { tags: into(head, `g1.11A${table}`, "3.1a") },
  ];
}

const inward = (row: string): Boxes => [
  { when: { scope: "local" }, tags: `${row}.intra +n` },
  { tags: `${row}.inter +n` },
];

// prettier-ignore
const purchases: TaxCode[] = [
  code({ code: "P{r}", name: "Creditable {r}", direction: "purchase", treatment: "standard", source: "CGST s.16" }, taxes(bought("4A5", "r"))),
  code({ code: "P{r}C", name: "Creditable {r} with cess by value", direction: "purchase", treatment: "standard", ...CESS }, withCess("value", bought("4A5", "r"))),
  code({ code: "P{r}U", name: "Creditable {r} with cess by unit", direction: "purchase", treatment: "standard", ...CESS }, withCess("unit", bought("4A5", "r"))),
  code({ code: "PC{r}", name: "Capital goods {r}", direction: "purchase", treatment: "standard", source: "CGST s.16, R.43" }, taxes(bought("4A5", "r"))),
  code({ code: "PM{r}", name: "Common use {r}", direction: "purchase", treatment: "standard", note: "The share that is reversed (R.42) is typed in 4B1.", source: "CGST Rules R.42" }, taxes(bought("4A5", "r"))),
  code({ code: "PX{r}", name: "Only for exempt supplies {r}", direction: "purchase", treatment: "blocked", source: "CGST s.17(2)" }, taxes(bought("4A5", "t", "4B1"), COST)),
  code({ code: "PN{r}", name: "Only private {r}", direction: "purchase", treatment: "blocked", source: "CGST s.17(1)" }, taxes(bought("4A5", "t", "4B1"), COST)),
  code({ code: "PB{r}", name: "Blocked {r}", direction: "purchase", treatment: "blocked", source: "CGST s.17(5)" }, taxes(bought("4A5", "t", "4B1"), COST)),
  code({ code: "PH{r}", name: "Not in the authority's statement yet {r}", direction: "purchase", treatment: "standard", hold: "furnished", note: "On no return until the supplier furnished it; then credit like any other.", source: "CGST s.16(2)(aa)" }, taxes(bought("4A5", "r"))),
  code({ code: "PD{r}", name: "In the statement, not yet claimable {r}", direction: "purchase", treatment: "blocked", source: "CGST s.16(2)(b)" }, taxes(bought("4A5", "t", "4B2"), COST)),
  code({ code: "PT{r}", name: "Barred {r}", direction: "purchase", treatment: "blocked", source: "CGST s.16(4)" }, taxes(bought("4D2", "t"), COST)),
  code({ code: "PE", name: "From a composition supplier, exempt, nil", direction: "purchase", treatment: "exempt", source: "CGST s.10" }, untaxed({ purchase: inward("5.r1") })),
  code({ code: "PG", name: "Non-GST purchase", direction: "purchase", treatment: "out-of-scope", source: "CGST s.9(2)" }, untaxed({ purchase: inward("5.r2") })),
  code({ code: "PU", name: "From an unregistered supplier", direction: "purchase", treatment: "out-of-scope", source: "CGST s.9(4)" }, untaxed({})),
  code({ code: "R{r}", name: "Reverse charge {r}", direction: "purchase", treatment: "reverse-charge", source: "CGST s.9(3)" }, taxes(selfAssessed("4A3", "r"), SELF)),
  code({ code: "RM{r}", name: "Reverse charge, common use {r}", direction: "purchase", treatment: "reverse-charge", source: "CGST s.9(3), R.42" }, taxes(selfAssessed("4A3", "r"), SELF)),
  code({ code: "RB{r}", name: "Reverse charge, blocked {r}", direction: "purchase", treatment: "reverse-charge", source: "CGST s.9(3), s.17(5)" }, taxes(selfAssessed("4A3", "t", "4B1"), { ...SELF, ...COST })),
  code({ code: "RI{r}", name: "Import of services {r}", direction: "purchase", treatment: "reverse-charge", supply: "services", scope: "inter", source: "IGST s.5(3)" }, IGST_ONLY(taxes(selfAssessed("4A2", "r"), SELF))),
  code({ code: "IG{r}", name: "Import of goods {r}", direction: "purchase", treatment: "import", supply: "goods", scope: "inter", note: "The amount is the assessable value with customs duties; the tax is paid to customs.", source: "IGST s.5(1)" }, IGST_ONLY(taxes(bought("4A1", "r")))),
  code({ code: "CP{r}", name: "Purchase of a composition taxpayer {r}", direction: "purchase", treatment: "blocked", source: "CGST s.10(4)" }, taxes(() => ({}), COST)),
  code({ code: "ISD", name: "Credit from the input service distributor", direction: "purchase", treatment: "adjustment", note: "Type the tax of each head; the amount is 0.", source: "CGST s.20" }, typedHeads((head) => `4A4.${head} +r`)),
  code({ code: "REV", name: "Credit reversed that may come back", direction: "purchase", treatment: "adjustment", note: "An expense of 0 with the tax of each head negative, paid through the account that bears it: bills unpaid for 180 days (R.37), a supplier who did not file (R.37A).", source: "CGST Rules R.37, R.37A" }, typedHeads((head) => `4B2.${head} -r`)),
  code({ code: "RCL", name: "Reversed credit taken again", direction: "purchase", treatment: "adjustment", note: "An expense of 0 with the tax of each head, paid through the account that bore the reversal.", source: "CGST Rules R.37(3); Circ. 170/02/2022" }, typedHeads((head) => `4A5.${head} +r, 4D1.${head} +r`)),
];

/** The codes of India: GST, and the state VAT and central sales tax of books before July 2017. */
export const codes: TaxCode[] = [...sales, ...purchases, ...oldCodes];
