/** How many rows of a list are sent to the screen. */
export const REGISTER_ROWS = 200;

/** A list that goes with a return, as a table; amounts in minor units. */
export interface RegisterView {
  id: string;
  name: string;
  source: string;
  digits: number;
  /** What it is given out as. */
  format: "csv" | "json";
  columns: { name: string; amount: boolean }[];
  rows: (string | number)[][];
  /** How many rows it has in all; the screen gets the first of them, the file all. */
  total: number;
  /** What the amounts of each row open, by its place; null where they are sums of many lines that only the file tells. */
  opens: (string | null)[];
  /** What is missing in it, as a sentence; null where nothing is. */
  missing: string | null;
}
