/** A report as a table, before it becomes CSV, a workbook or a PDF. Amounts are whole minor units. */
export interface ReportTable {
  title: string;
  /** What it covers: client, days, filters. */
  about: string;
  digits: number;
  columns: readonly { name: string; amount?: boolean; date?: boolean; width?: number }[];
  rows: readonly { cells: readonly (string | number)[]; total?: boolean }[];
}
