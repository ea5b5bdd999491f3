import type { SheetCell } from "@fiscalon/core/formats/registers/sheetColumns";
import type { Work } from "../../../base/work.ts";
import type { ClientSetup } from "../../../books/loadSetup.ts";
import type { ReportTable } from "../../../exports/reportTable.ts";
import { sheetRows } from "./pivot.ts";
import { sheetView } from "./sheets.ts";

/** No limit, as the database writes it. */
const ALL = -1;
const EVERY_ROW = {
  rows: "",
  columns: "",
  figure: "accounts",
  search: "",
  row: null,
  column: null,
  offset: 0,
  limit: ALL,
};

/** The comparison as a table: both values, the columns that part them, then every row with the two values it adds. */
export async function sheetTable(work: Work, setup: ClientSetup, id: number): Promise<ReportTable> {
  const view = await sheetView(work, setup, id);
  const { rows } = await sheetRows(work, setup.client.id, id, EVERY_ROW);
  const { columns, mapping, accounts, returns, causes, unused, untold } = view;
  const blank = columns.map(() => "");
  const line = (what: string, amount: number) => ({ cells: [what, ...blank, amount, ""], total: true });
  const value = (cells: readonly SheetCell[], places: readonly number[]) =>
    places.reduce((sum, at) => sum + (typeof cells[at] === "number" ? cells[at] : 0), 0);
  return {
    title: `Register, ${view.name}`,
    about: `${setup.client.name}. In the accounts: ${named(mapping.accounts)}; on the return: ${named(mapping.returns)}.`,
    digits: view.digits,
    columns: [
      { name: "What", width: 90 },
      ...columns.map(({ name, kind }) => ({
        name,
        ...(kind === "amount" ? { amount: true } : { date: kind === "date", width: 70 }),
      })),
      { name: "In the accounts", amount: true },
      { name: "On the return", amount: true },
    ],
    rows: [
      line("Value in the accounts", accounts),
      ...causes.map(({ name, amount }) => line(name, amount)),
      line("Value on the return", returns),
      ...(untold === null ? [] : [line("Told, and not in the register", untold)]),
      ...unused.map(({ name, sum }) => line(`Not used: ${name}`, sum)),
      ...rows.map(({ no, cells }) => ({
        cells: [
          `Row ${no}`,
          ...cells.map((cell) => cell ?? ""),
          value(cells, mapping.accounts),
          value(cells, mapping.returns),
        ],
      })),
    ],
  };

  function named(places: readonly number[]): string {
    return places.map((at) => columns[at]?.name ?? "").join(" + ") || "nothing";
  }
}
