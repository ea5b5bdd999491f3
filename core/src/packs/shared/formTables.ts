import type { FormRow, FormTable } from "../../model/returnForm.ts";

/** A table of a form. @param columns their titles, divided by a stroke */
export function table(title: string, columns: string, rows: readonly FormRow[], heading?: string): FormTable {
  const titles = columns.split("|").map((one) => one.trim());
  return { ...(heading === undefined ? {} : { heading }), title, columns: titles, rows };
}

/** A row of it. @param cells ids of boxes by column, divided by spaces; a dash where there is no field */
export function line(number: string, title: string, cells: string, level?: FormRow["level"]): FormRow {
  const ids = cells.split(" ").map((id) => (id === "-" ? null : id));
  return { number, title, cells: ids, ...(level === undefined ? {} : { level }) };
}

/** A heading between rows. */
export function heading(number: string, title: string): FormRow {
  return { number, title, cells: [] };
}

/** Cells of one row whose boxes are named after it. @param columns divided by spaces; a dash where there is no field */
export function across(row: string, columns: string): string {
  return columns
    .split(" ")
    .map((column) => (column === "-" ? "-" : `${row}.${column}`))
    .join(" ");
}
