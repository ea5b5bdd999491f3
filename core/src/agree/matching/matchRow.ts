import type { CalendarDate } from "../../calendar/date.ts";

/** One document as one of two sides tells it. Amounts in minor units; a credit note takes off and is negative. */
export interface MatchRow {
  /** Unique on its side and the same whenever the same document is told again: decisions are kept by it. */
  key: string;
  /** Who is on the other side: tax number, what all registrations of one person share (empty: nothing), name. */
  partyNumber: string;
  partyKin: string;
  partyName: string;
  number: string;
  /** Number of the earlier document it stands in the place of. */
  original?: string;
  date: CalendarDate;
  /** Without tax; with tax where a side tells no tax at all, then of both sides. */
  value: number;
  tax: number;
  /** Tax by levy, where it is told. */
  taxes: Readonly<Record<string, number>>;
  /** Per cent, as written without the sign; empty where the side tells none or several. */
  rate: string;
  /** Place of supply; empty where the side tells none. */
  place: string;
}

/** What two rows of one document can differ in. */
export const PIECES = {
  value: "value",
  tax: "tax",
  levy: "levy",
  rate: "rate",
  kind: "invoice or credit note",
  place: "place of supply",
  number: "number",
  date: "date",
  party: "registration",
} as const;

export type Piece = keyof typeof PIECES;

/** How two lists are matched. */
export interface MatchOptions {
  /** Up to so much, in minor units, two amounts are of one document without being called different. */
  tolerance: number;
  /** Days two dates of one document can lie apart where its number is not the same. */
  days: number;
  /** The score, of 100, from which a pair needs no second look. */
  sureFrom: number;
  /** Left out where the two sides number their documents in ways that have nothing to do with each other. */
  numbersDiffer?: boolean;
}

export const USUAL_MATCHING: MatchOptions = { tolerance: 100, days: 10, sureFrom: 85 };

/** What people said of rows, by keys; it wins over every rule. */
export interface MatchDecisions {
  /** Rows that are one: several of a side where one bill is told in parts. */
  together: readonly { ours: readonly string[]; theirs: readonly string[] }[];
  /** Rows that are not a pair, whatever speaks for it. */
  apart: readonly { ours: string; theirs: string }[];
}
