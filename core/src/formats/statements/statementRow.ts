import type { CalendarDate } from "../../calendar/date.ts";
import type { RowProblem } from "../registers/readRow.ts";

/** A document as a list of somebody else tells it. Minor units, credit notes negative; null where it tells nothing. */
export interface StatementRow {
  /** Line of the file, or place in the list, from 1. */
  row: number;
  partyNumber: string;
  partyName: string;
  number: string;
  /** Number of the earlier document it stands in the place of; empty where it amends none. */
  original: string;
  date: CalendarDate;
  value: number | null;
  tax: number | null;
  gross: number | null;
  taxes: Readonly<Record<string, number>>;
  rate: string;
  place: string;
  /** Why it gives no credit; empty where it does. */
  ineligible: string;
  /** What else is worth knowing: amended, under reverse charge. */
  note: string;
}

/** What a file says. */
export interface StatementContent {
  /** Tax number it is made for and the last day of its month, where it says so. */
  number: string;
  periodEnd: CalendarDate | null;
  /** The day it was made. */
  drawnOn: CalendarDate | null;
  rows: StatementRow[];
  /** Rows that could not be read. */
  problems: RowProblem[];
  /** Rows that are no documents: payments, balances, totals. */
  leftOut: number;
}
