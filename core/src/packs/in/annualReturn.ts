import type { BoxDefinition } from "../../model/returnForm.ts";
import type { YearlyReport, YearlyRule } from "../../model/yearlyReport.ts";
import { computed, sum } from "../shared/formBoxes.ts";

const VALUE = { holds: "value" } as const;
const HEADS = { igst: "integrated tax", cgst: "central tax", sgst: "state tax", cess: "cess" } as const;
const COLUMNS = { txval: "taxable value", ...HEADS } as const;
type Column = keyof typeof COLUMNS;
const heads = Object.keys(HEADS) as Column[];
const columns = Object.keys(COLUMNS) as Column[];

const more = (column: Column) => (column === "txval" ? VALUE : {});
const row = (id: string, title: string, of: readonly Column[] = columns): BoxDefinition[] =>
  of.map((column) => sum(`9.${id}.${column}`, `${title}, ${COLUMNS[column]}`, more(column)));
const value = (id: string, title: string): BoxDefinition[] => row(id, title, ["txval"]);
const total = (
  id: string,
  title: string,
  rows: readonly string[],
  of: readonly Column[] = columns,
): BoxDefinition[] =>
  of.map((column) => {
    const formula = rows.map((one) => `[9.${one}.${column}]`).join(" + ");
    return computed(`9.${id}.${column}`, `${title}, ${COLUMNS[column]}`, formula, more(column));
  });

const TAXED = ["4A", "4B", "4C", "4D", "4E", "4F", "4G", "4I", "4J", "4KL"];
const UNTAXED = ["5A", "5B", "5C", "5C1", "5D", "5E", "5F"];
const CREDIT = ["6B", "6CD", "6E", "6F", "6G"];

const sale = (from: string, to: string, only: Partial<YearlyRule> = {}): YearlyRule => ({
  direction: "sale",
  moves: [`g1.${from}`, `9.${to}`],
  ...only,
});
const purchase = (from: string, to: string): YearlyRule => ({
  direction: "purchase",
  moves: [from, `9.${to}`],
});
/** Tables 8A to 8D of GSTR-1, column by column. */
const untaxed = (column: string, to: string): YearlyRule[] =>
  ["8A", "8B", "8C", "8D"].map((table) => ({
    direction: "sale",
    lands: `g1.${table}.${column}`,
    tags: `9.${to}.txval +n`,
  }));

const over = (table: string, of: readonly string[] = heads) =>
  of.map((head) => `[${table}.${head}]`).join(" + ");

/**
 * India, annual return of regular taxpayers (GSTR-9), tables 4 to 7, from the same facts as GSTR-1 and GSTR-3B. Credit notes
 * stand as they are, negative. What people or schemes put into a return is in no table: it shows where a table does not tie.
 * @source CGST s.44, R.80; tables as of fiscal year 2024-25, from memory
 */
export const annualReturn: YearlyReport = {
  form: {
    id: "in-gstr9",
    name: "GSTR-9, tables 4 to 7",
    levies: ["CGST", "IGST"],
    from: "2017-07-01",
    to: null,
    boxes: [
      ...row("4A", "To unregistered persons"),
      ...row("4B", "To registered persons"),
      ...row("4C", "Exports with tax paid"),
      ...row("4D", "To special economic zones with tax paid"),
      ...row("4E", "Deemed exports"),
      ...row("4F", "Advances on which tax is paid"),
      ...row("4G", "Inward supplies, reverse charge"),
      ...row("4I", "Credit notes for 4B to 4E"),
      ...row("4J", "Debit notes for 4B to 4E"),
      ...row("4KL", "Amendments for 4B to 4E"),
      ...total("4N", "Supplies and advances on which tax is payable", TAXED),
      ...value("5A", "Exports without payment of tax"),
      ...value("5B", "To special economic zones without payment of tax"),
      ...value("5C", "On which the recipient pays"),
      ...value("5C1", "On which an operator pays"),
      ...value("5D", "Exempted"),
      ...value("5E", "Nil rated"),
      ...value("5F", "Non-GST supply"),
      ...total("5N", "Turnover on which tax is not payable", UNTAXED, ["txval"]),
      ...row("6B", "Credit: inward supplies", heads),
      ...row("6CD", "Credit: reverse charge", heads),
      ...row("6E", "Credit: import of goods", heads),
      ...row("6F", "Credit: import of services", heads),
      ...row("6G", "Credit: input service distributor", heads),
      ...total("6O", "Credit availed", CREDIT, heads),
      ...row("7H", "Credit reversed", heads),
      ...heads.map((head) =>
        computed(`9.7J.${head}`, `Net credit, ${COLUMNS[head]}`, `[9.6O.${head}] - [9.7H.${head}]`),
      ),
    ],
    net: { output: "0", input: "0", due: "0", shown: "9.4N.igst" },
    source: "GSTR-9; from memory",
  },
  beside: ["in-gstr"],
  rules: [
    ...["5A", "7A1", "7B1", "9A.b2cla", "9C.cdnura", "10A", "10B"].map((from) => sale(from, "4A")),
    // Notes to unregistered persons: of exports they belong to 4B to 4E.
    sale("9B.cdnur", "4A", { treatments: ["standard", "reduced", "zero"] }),
    sale("9B.cdnur", "4I", { treatments: ["export"], credit: true }),
    sale("9B.cdnur", "4J", { treatments: ["export"], credit: false }),
    sale("4A", "4B"),
    sale("6A", "4C", { lands: "g1.6A.igst" }),
    sale("6A", "5A", { landsNot: "g1.6A.igst" }),
    sale("6B", "4D", { lands: "g1.6B.igst" }),
    sale("6B", "5B", { landsNot: "g1.6B.igst" }),
    sale("6C", "4E"),
    ...["11A1", "11A2", "11B1", "11B2", "11IIA1", "11IIA2", "11IIB1", "11IIB2"].map((from) =>
      sale(from, "4F"),
    ),
    sale("9B.cdnr", "4I", { credit: true }),
    sale("9B.cdnr", "4J", { credit: false }),
    ...["9A.b2ba", "9A.expa", "9C.cdnra"].map((from) => sale(from, "4KL")),
    { direction: "sale", lands: "g1.4B.txval", tags: "9.5C.txval +n" },
    { direction: "sale", lands: "g1.14b.txval", tags: "9.5C1.txval +n" },
    ...untaxed("exempt", "5D"),
    ...untaxed("nil", "5E"),
    ...untaxed("nongst", "5F"),
    purchase("3.1d", "4G"),
    purchase("4A5", "6B"),
    purchase("4A3", "6CD"),
    purchase("4A1", "6E"),
    purchase("4A2", "6F"),
    purchase("4A4", "6G"),
    purchase("4B1", "7H"),
    purchase("4B2", "7H"),
  ],
  ties: [
    {
      says: "Tax of table 4",
      report: over("9.4N"),
      returns: `${over("3.1a")} + ${over("3.1b", ["igst", "cess"])} + ${over("3.1d")}`,
    },
    {
      says: "Credit of table 6",
      report: over("9.6O"),
      returns: ["4A1", "4A2", "4A3", "4A4", "4A5"].map((table) => over(table)).join(" + "),
    },
    {
      says: "Reversals of table 7",
      report: over("9.7H"),
      returns: `${over("4B1")} + ${over("4B2")}`,
    },
  ],
};
