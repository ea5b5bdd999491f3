import { addDays, daysIn } from "./quarters.ts";
import type { Quarter } from "./quarters.ts";
import type { Random } from "./random.ts";

export type Line = Record<string, unknown>;
export type Document = Record<string, unknown> & { kind: string; number: string; date: string };

/** A kind of business that is done again and again. */
export interface Deal {
  kind: string;
  /** How its numbers begin; quarter and count follow. */
  number: string;
  perQuarter: [number, number];
  /** Ids of the contacts it is done with; none for takings. */
  parties?: readonly string[];
  lines: (random: Random, quarter: number) => Line[];
  more?: Record<string, unknown>;
}

/** The documents of all deals in all quarters, up to today, in order of date. */
export function dealsDone(
  quarters: readonly Quarter[],
  deals: readonly Deal[],
  random: Random,
  today: string,
): Document[] {
  return quarters
    .flatMap((quarter, index) => deals.flatMap((deal) => dealDone(deal, quarter, index, random)))
    .filter(({ date }) => date <= today)
    .sort((a, b) => (a.date < b.date ? -1 : a.date > b.date ? 1 : 0));
}

function dealDone(deal: Deal, quarter: Quarter, index: number, random: Random): Document[] {
  return Array.from({ length: random.whole(...deal.perQuarter) }, (_, n) => ({
    kind: deal.kind,
    number: `${deal.number}${index + 1}${String(n + 1).padStart(3, "0")}`,
    date: addDays(quarter.from, random.whole(0, daysIn(quarter) - 1)),
    ...(deal.parties ? { contact: random.pick(deal.parties) } : {}),
    prices: "exclusive",
    lines: deal.lines(random, index),
    ...deal.more,
  }));
}

/** A book file's head and body. */
export function bookOf(client: object, body: object): object {
  return { format: "fiscalon-book", version: 1, client, ...body };
}

/** One line with a code: text, amount between two bounds, code, account. */
export function line(
  random: Random,
  text: string,
  [from, to]: [number, number],
  code: string | undefined,
  account: string,
  more: Line = {},
): Line {
  return { text, amount: random.amount(from, to), ...(code ? { code } : {}), account, ...more };
}
