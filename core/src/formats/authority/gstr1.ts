import type { CalendarDate } from "../../calendar/date.ts";
import { groupBy } from "../../groupBy.ts";
import { at, found } from "../../at.ts";
import { boxTags, landed } from "../../model/boxTags.ts";
import type { Measures } from "../../model/boxTags.ts";
import type { NamesByCode, SupplyNames } from "../../model/returnRegister.ts";
import { add, exactFromDecimal, exactFromInteger, exactToText } from "../../money/exact.ts";

/** What a line of an outward document did for one levy; minor units. `state`: two digits of the place of supply. */
export interface OutwardFact extends Measures {
  document: number;
  number: string;
  date: CalendarDate;
  /** Of the whole document, with tax. */
  gross: number;
  taxNumber: string;
  state: string;
  line: number;
  levy: string;
  code: string;
  rate: string | null;
  tags: string;
}

/** A row of table 12 in its list; taxes are integrated, central, state, cess. Minor units. */
export interface FiledCommodity {
  list: string;
  code: string;
  text: string;
  unit: string;
  quantity: string;
  rate: string;
  value: number;
  taxes: readonly number[];
}

/** Numbers given out without a gap; the nature begins with its number of table 13. */
export interface FiledNumbers {
  nature: string;
  from: string;
  to: string;
  total: number;
  cancelled: number;
  net: number;
}

/** What stands in the file of a table, minor units by column. */
export interface FiledTable {
  table: string;
  rows: number;
  columns: Columns;
}

/** The file with what it holds, and the tables that have to be typed on the portal. */
export interface OutwardFile {
  file: Record<string, unknown>;
  tables: FiledTable[];
  left: string[];
}

/** A document at a rate in a table. */
interface Row {
  table: string;
  rate: number;
  inter: boolean;
  first: OutwardFact;
  columns: Columns;
}

const COLUMNS = ["txval", "igst", "cgst", "sgst", "cess", "nil", "exempt", "nongst"] as const;
type Column = (typeof COLUMNS)[number];
/** Minor units by column. */
type Columns = Readonly<Record<Column, number>>;
const FILED = /^(4A|4B|5A|6A|6B|6C|7A1|7B1|8[ABCD]|9B\.cdnur|9B\.cdnr|11[AB][12])$/;
const CESS = "CESS";

/**
 * The outward register of a month or quarter as the portal of India takes it: JSON with the published field names, amounts
 * as numbers with two decimals, days as dd-mm-yyyy, empty sections left out. Amended tables, 14 and 15 are not in it.
 * @param end last day of the period
 * @source the offline utility's schema of GSTR-1, version GST3.2.3; from memory
 */
export function gstr1File(
  facts: readonly OutwardFact[],
  { gstin, home, end, names }: { gstin: string; home: string; end: CalendarDate; names: SupplyNames },
  commodities: readonly FiledCommodity[],
  issued: readonly FiledNumbers[],
): OutwardFile {
  const all = rowsOf(facts);
  const bare = all.filter(({ table, first }) => /^(4|6B|6C|9B\.cdnr)/.test(table) && first.taxNumber === "");
  const rows = all.filter((row) => FILED.test(row.table) && !bare.includes(row));
  const placed = (row: Row) => (row.inter ? row.first.state : home);
  const of = (...tables: string[]) => rows.filter(({ table }) => tables.includes(table));
  const sections: [string, unknown][] = [
    ["b2b", byParty(of("4A", "4B", "6B", "6C"), "inv", (own) => invoice(own, placed, names.registered))],
    ["b2cl", byPlace(of("5A"), placed)],
    [
      "b2cs",
      atRates(of("7A1", "7B1"), placed).map(({ pos, inter, rt, columns }) =>
        smallSale(pos, inter, rt, columns),
      ),
    ],
    ["cdnr", byParty(of("9B.cdnr"), "nt", (own) => note(own, placed, names.registered))],
    ["cdnur", documentsOf(of("9B.cdnur")).map((own) => unregisteredNote(own, placed, names.unregistered))],
    ["exp", exportsOf(of("6A"), names.exported)],
    ["nil", untaxed(rows)],
    ["at", advances(of("11A1", "11A2"), placed)],
    ["txpd", advances(of("11B1", "11B2"), placed)],
    ["hsn", summary(commodities)],
    ["doc_issue", numbers(issued)],
  ];
  const head = { gstin, fp: `${end.slice(5, 7)}${end.slice(0, 4)}`, version: "GST3.2.3", hash: "hash" };
  return {
    file: { ...head, ...Object.fromEntries(sections.filter(([, section]) => !isEmpty(section))) },
    tables: tablesOf(rows),
    left: [
      ...new Set(all.filter(({ table }) => !FILED.test(table)).map(({ table }) => `table ${table}`)),
      ...new Set(bare.map(({ first }) => `${first.number}, whose customer has no GSTIN here`)),
    ],
  };
}

function isEmpty(section: unknown): boolean {
  return section === null || (Array.isArray(section) && section.length === 0);
}

/** Facts by document, table and rate of the line. */
function rowsOf(facts: readonly OutwardFact[]): Row[] {
  const lines = groupBy(facts, ({ document, line }) => `${document}/${line}`);
  const parts = [...lines.values()].flatMap((own) =>
    own.flatMap((fact) =>
      boxTags(fact.tags).flatMap((tag) => {
        const [, table, column] = /^g1\.(.+)\.([a-z]+)$/.exec(tag.box) ?? [];
        if (table === undefined || column === undefined) return [];
        return [{ table, column, amount: landed(fact, tag), fact, rate: rateOf(own) }];
      }),
    ),
  );
  const groups = groupBy(parts, ({ fact, table, rate }) => `${fact.document}\n${table}\n${rate}`);
  return [...groups.values()].map((own): Row => {
    const { table, rate, fact } = at(own, 0);
    const sum = (column: string) =>
      own.filter((one) => one.column === column).reduce((total, { amount }) => total + amount, 0);
    const columns = byColumn(sum);
    return { table, rate, inter: own.some((one) => one.fact.levy === "IGST"), first: fact, columns };
  });
}

/** The rate of a line, all its heads together; cess has its own column. */
function rateOf(facts: readonly OutwardFact[]): number {
  const rates = facts.filter(({ levy }) => levy !== CESS).map(({ rate }) => exactFromDecimal(rate ?? "0"));
  return Number(exactToText(rates.reduce(add, exactFromInteger(0)), 2));
}

const CENTS = 100;
const major = (minor: number): number => Number((minor / CENTS).toFixed(2));
const dayOf = (date: CalendarDate): string => date.split("-").reverse().join("-");

function documentsOf(rows: readonly Row[]): Row[][] {
  return [...groupBy(rows, ({ first }) => String(first.document)).values()];
}

function byParty(rows: readonly Row[], list: "inv" | "nt", entry: (own: Row[]) => object): object[] {
  return [...groupBy(rows, ({ first }) => first.taxNumber)].map(([ctin, own]) => ({
    ctin,
    [list]: documentsOf(own).map(entry),
  }));
}

function taxesOf(
  { inter, columns }: Pick<Row, "inter" | "columns">,
  sign: 1 | -1 = 1,
): Record<string, number> {
  const of = (column: Column) => major(sign * columns[column]);
  return inter
    ? { iamt: of("igst"), csamt: of("cess") }
    : { camt: of("cgst"), samt: of("sgst"), csamt: of("cess") };
}

function flat(row: Row, sign: 1 | -1 = 1) {
  return { txval: major(sign * row.columns.txval), rt: row.rate, ...taxesOf(row, sign) };
}

const items = (own: readonly Row[], sign: 1 | -1 = 1) =>
  own.map((row, index) => ({ num: index + 1, itm_det: flat(row, sign) }));

/** What a supply is called by its code: the name of the first beginning that fits; the last one, an empty one, fits all. */
function named(names: NamesByCode, { code }: OutwardFact): string {
  return found(names, ([beginning]) => code.startsWith(beginning), code)[1];
}

function invoice(own: Row[], placed: (row: Row) => string, names: NamesByCode) {
  const row = at(own, 0);
  const { first } = row;
  return {
    inum: first.number,
    idt: dayOf(first.date),
    val: major(first.gross),
    pos: placed(row),
    rchrg: row.table === "4B" ? "Y" : "N",
    inv_typ: named(names, first),
    itms: items(own),
  };
}

/** A note; its amounts are positive whatever it does. */
function noteHead(own: Row[], placed: (row: Row) => string) {
  const row = at(own, 0);
  const { first, columns } = row;
  const credit = columns.txval < 0;
  return {
    sign: credit ? (-1 as const) : (1 as const),
    head: {
      ntty: credit ? "C" : "D",
      nt_num: first.number,
      nt_dt: dayOf(first.date),
      val: major(Math.abs(first.gross)),
      pos: placed(row),
    },
  };
}

function note(own: Row[], placed: (row: Row) => string, names: NamesByCode) {
  const { sign, head } = noteHead(own, placed);
  return { ...head, rchrg: "N", inv_typ: named(names, at(own, 0).first), itms: items(own, sign) };
}

function unregisteredNote(own: Row[], placed: (row: Row) => string, names: NamesByCode) {
  const { sign, head } = noteHead(own, placed);
  return { typ: named(names, at(own, 0).first), ...head, itms: items(own, sign) };
}

function byPlace(rows: readonly Row[], placed: (row: Row) => string): object[] {
  return [...groupBy(rows, placed)].map(([pos, own]) => ({
    pos,
    inv: documentsOf(own).map((document) => {
      const { first } = at(document, 0);
      return { inum: first.number, idt: dayOf(first.date), val: major(first.gross), itms: items(document) };
    }),
  }));
}

function exportsOf(rows: readonly Row[], names: NamesByCode): object[] {
  const ways = groupBy(rows, ({ first }) => named(names, first));
  return [...ways].map(([exp_typ, own]) => ({
    exp_typ,
    inv: documentsOf(own).map((document) => {
      const { first } = at(document, 0);
      return {
        inum: first.number,
        idt: dayOf(first.date),
        val: major(first.gross),
        itms: document.map((row) => flat(row)),
      };
    }),
  }));
}

/** Rows summed by place and rate. */
function atRates(rows: readonly Row[], placed: (row: Row) => string) {
  const groups = groupBy(rows, (row) => `${row.inter ? 1 : 0}\n${placed(row)}\n${row.rate}`);
  return [...groups.values()].map((own) => {
    const row = at(own, 0);
    return { pos: placed(row), inter: row.inter, rt: row.rate, columns: together(own) };
  });
}

function together(rows: readonly Row[]): Columns {
  return byColumn((column) => rows.reduce((sum, row) => sum + row.columns[column], 0));
}

function byColumn(of: (column: Column) => number): Columns {
  return Object.fromEntries(COLUMNS.map((column) => [column, of(column)])) as Record<Column, number>;
}

function smallSale(pos: string, inter: boolean, rt: number, columns: Columns) {
  return {
    sply_ty: inter ? "INTER" : "INTRA",
    pos,
    typ: "OE",
    txval: major(columns.txval),
    rt,
    ...taxesOf({ inter, columns }),
  };
}

const EIGHT: readonly (readonly [kind: string, table: string])[] = [
  ["INTRB2B", "8A"],
  ["INTRB2C", "8C"],
  ["INTRAB2B", "8B"],
  ["INTRAB2C", "8D"],
];

function untaxed(rows: readonly Row[]): object | null {
  if (!rows.some(({ table }) => table.startsWith("8"))) return null;
  return {
    inv: EIGHT.map(([sply_ty, table]) => {
      const columns = together(rows.filter((row) => row.table === table));
      const of = (column: Column) => major(columns[column]);
      return { sply_ty, nil_amt: of("nil"), expt_amt: of("exempt"), ngsup_amt: of("nongst") };
    }),
  };
}

function advances(rows: readonly Row[], placed: (row: Row) => string): object[] {
  const places = groupBy(atRates(rows, placed), ({ pos, inter }) => `${inter ? 1 : 0}${pos}`);
  return [...places.values()].map((own) => {
    const { pos, inter } = at(own, 0);
    return {
      pos,
      sply_ty: inter ? "INTER" : "INTRA",
      itms: own.map(({ rt, columns }) => ({
        rt,
        ad_amt: major(columns.txval),
        ...taxesOf({ inter, columns }),
      })),
    };
  });
}

const DESCRIPTION = 30;

function summary(rows: readonly FiledCommodity[]): object | null {
  if (rows.length === 0) return null;
  const list = (name: string) =>
    rows
      .filter((row) => row.list === name)
      .map(({ code, text, unit, quantity, rate, value, taxes: [iamt, camt, samt, csamt] }, index) => ({
        num: index + 1,
        hsn_sc: code,
        desc: text.slice(0, DESCRIPTION).toUpperCase(),
        uqc: unit,
        qty: unit === "NA" ? 0 : Number(quantity),
        rt: Number(rate),
        txval: major(value),
        iamt: major(iamt as number),
        camt: major(camt as number),
        samt: major(samt as number),
        csamt: major(csamt as number),
      }));
  const lists = { hsn_b2b: list("B2B"), hsn_b2c: list("B2C") };
  return Object.fromEntries(Object.entries(lists).filter(([, own]) => own.length > 0));
}

/** Natures are named with their number in front. */
function numbers(runs: readonly FiledNumbers[]): object | null {
  if (runs.length === 0) return null;
  const natures = groupBy(runs, ({ nature }) => nature);
  return {
    doc_det: [...natures].map(([nature, own]) => ({
      doc_num: Number.parseInt(nature, 10),
      doc_typ: nature.replace(/^\d+ /, ""),
      docs: own.map(({ from, to, total, cancelled, net }, index) => ({
        num: index + 1,
        from,
        to,
        totnum: total,
        cancel: cancelled,
        net_issue: net,
      })),
    })),
  };
}

function tablesOf(rows: readonly Row[]): FiledTable[] {
  return [...groupBy(rows, ({ table }) => table)]
    .map(([table, own]) => ({ table, rows: documentsOf(own).length, columns: together(own) }))
    .sort((a, b) => a.table.localeCompare(b.table, "en", { numeric: true }));
}
