import type { DetailRow, ReportKind, SummaryRow } from "@fiscalon/contract/reports";
import type { ReportTable } from "../../exports/reportTable.ts";

type Row = ReportTable["rows"][number];
interface Amounts {
  net: number;
  tax: number;
  recoverable: number;
}

export const REPORT_TITLES: Record<ReportKind, string> = {
  summary: "Tax summary",
  "by-code": "Tax transactions by code",
  details: "Tax transactions",
};

const AMOUNTS = [
  { name: "Net", amount: true },
  { name: "Tax", amount: true },
  { name: "Deducted", amount: true },
];
const amountsOf = ({ net, tax, recoverable }: Amounts) => [net, tax, recoverable];
const rateOf = (rate: string | null) => rate ?? "";

/** Codes and rates with their sums, and a total of each levy, sales and purchases apart. */
export function summaryTable(rows: readonly SummaryRow[]): Pick<ReportTable, "columns" | "rows"> {
  const lines = groups(rows, sideOf).flatMap(([side, own]): Row[] => [
    ...own.map((row) => ({
      cells: [
        row.levy,
        row.direction,
        row.code,
        row.name,
        rateOf(row.rate),
        String(row.lines),
        ...amountsOf(row),
      ],
    })),
    { total: true, cells: [`Total ${side}`, "", "", "", "", String(sum(own, "lines")), ...totals(own)] },
  ]);
  return {
    columns: [
      { name: "Levy", width: 70 },
      { name: "Side", width: 55 },
      { name: "Code", width: 50 },
      { name: "Name", width: 190 },
      { name: "Rate", width: 45 },
      { name: "Lines", width: 45 },
      ...AMOUNTS,
    ],
    rows: lines,
  };
}

const DETAIL_COLUMNS = [
  { name: "Tax point", date: true, width: 62 },
  { name: "Number", width: 75 },
  { name: "Party", width: 125 },
  { name: "Text", width: 140 },
  { name: "Side", width: 48 },
  { name: "Levy", width: 50 },
  { name: "Code", width: 45 },
  { name: "Rate", width: 40 },
  { name: "Reported in", date: true, width: 62 },
  ...AMOUNTS,
];

const detailCells = (row: DetailRow) => [
  row.taxPoint,
  row.number,
  row.party,
  row.text,
  row.direction,
  row.levy,
  row.code,
  rateOf(row.rate),
  row.reported ?? "",
  ...amountsOf(row),
];

const sideOf = ({ levy, direction }: Pick<SummaryRow, "levy" | "direction">) => `${levy} ${direction}s`;

/** Every line in order of time, with a total of each levy and side at the end. */
export function detailTable(rows: readonly DetailRow[]): Pick<ReportTable, "columns" | "rows"> {
  const ends = groups(rows, sideOf).map(([side, own]) => totalRow(`Total ${side}`, own));
  return { columns: DETAIL_COLUMNS, rows: [...rows.map((row) => ({ cells: detailCells(row) })), ...ends] };
}

/** Every line under its code, each code with its total. */
export function byCodeTable(rows: readonly DetailRow[]): Pick<ReportTable, "columns" | "rows"> {
  const keyOf = ({ levy, direction, code, rate }: DetailRow) =>
    [levy, direction, code, rate === null ? "" : `${rate} %`].filter(Boolean).join(" ");
  return {
    columns: DETAIL_COLUMNS,
    rows: groups(rows, keyOf).flatMap(([key, own]): Row[] => [
      ...own.map((row) => ({ cells: detailCells(row) })),
      totalRow(key, own),
    ]),
  };
}

function totalRow(name: string, rows: readonly DetailRow[]): Row {
  return { total: true, cells: ["", name, "", "", "", "", "", "", "", ...totals(rows)] };
}

function totals(rows: readonly Amounts[]): number[] {
  return [sum(rows, "net"), sum(rows, "tax"), sum(rows, "recoverable")];
}

function sum<K extends string>(rows: readonly Record<K, number>[], key: K): number {
  return rows.reduce((total, row) => total + row[key], 0);
}

function groups<T>(rows: readonly T[], keyOf: (row: T) => string): [string, T[]][] {
  const found = new Map<string, T[]>();
  for (const row of rows) {
    const key = keyOf(row);
    const group = found.get(key);
    if (group) group.push(row);
    else found.set(key, [row]);
  }
  return [...found];
}
