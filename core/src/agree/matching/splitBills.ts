import { groupBy } from "../../groupBy.ts";
import type { ReadyRow } from "./assess.ts";
import { isNear, opposite } from "./assess.ts";
import { byText, inOrder } from "./leftovers.ts";
import type { Leftovers } from "./leftovers.ts";
import type { MatchOptions } from "./matchRow.ts";

/** One row of a side that several of the other make up. */
export interface Split {
  one: ReadyRow;
  parts: readonly ReadyRow[];
  isOurs: boolean;
}

/** Days around a bill in which its parts are looked for, how many rows are tried, and how many sums. */
const WINDOW = 31;
const CANDIDATES = 14;
const MOST_SUMS = 3000;
const MOST_PARTS = 6;

/**
 * Bills that one side tells in parts: rows of one party, near in time, whose value and tax both add up.
 * @returns the splits that were taken, and for how many rows the search was broken off
 */
export function splitBills(left: Leftovers, options: MatchOptions): { splits: Split[]; brokenOff: number } {
  const all: Split[] = [];
  for (;;) {
    // Rows a better split took leave others room for another one.
    const { splits, brokenOff } = splitOnce(left, options);
    if (splits.length === 0) return { splits: all, brokenOff };
    all.push(...splits);
  }
}

function splitOnce(left: Leftovers, { tolerance }: MatchOptions): { splits: Split[]; brokenOff: number } {
  const found: Split[] = [];
  let brokenOff = 0;
  const look = (ones: readonly ReadyRow[], others: readonly ReadyRow[], isOurs: boolean) => {
    const byParty = groupBy(others, ({ party }) => party);
    for (const one of ones) {
      const near = (one.party === "" ? [] : (byParty.get(one.party) ?? []))
        .filter((part) => isPart(one, part) && !apart(one, part, isOurs))
        .sort((a, b) => Math.abs(a.day - one.day) - Math.abs(b.day - one.day) || inOrder(a, b))
        .slice(0, CANDIDATES);
      const search = new Sums(one, near, tolerance);
      const parts = search.best();
      if (search.brokenOff) brokenOff += 1;
      if (parts) found.push({ one, parts, isOurs });
    }
  };
  const apart = (one: ReadyRow, part: ReadyRow, isOurs: boolean) =>
    isOurs ? left.isApart(one, part) : left.isApart(part, one);
  look(left.ours, left.theirs, true);
  look(left.theirs, left.ours, false);
  const gone = new Set<ReadyRow>();
  const splits = found.sort(fewestFirst).filter(({ one, parts }) => {
    if (gone.has(one) || parts.some((part) => gone.has(part))) return false;
    for (const row of [one, ...parts]) gone.add(row);
    return true;
  });
  left.without(gone);
  return { splits, brokenOff };
}

function isPart(one: ReadyRow, part: ReadyRow): boolean {
  return (
    Math.abs(one.day - part.day) <= WINDOW &&
    !opposite(one.row, part.row) &&
    Math.abs(part.row.value) < Math.abs(one.row.value)
  );
}

function fewestFirst(a: Split, b: Split): number {
  const spread = ({ one, parts }: Split) => parts.reduce((sum, { day }) => sum + Math.abs(day - one.day), 0);
  return a.parts.length - b.parts.length || spread(a) - spread(b) || byText(a.one.row.key, b.one.row.key);
}

/** The fewest rows that add up, found by trying; the search ends after a bounded number of sums. */
class Sums {
  readonly #one: ReadyRow;
  readonly #near: readonly ReadyRow[];
  readonly #tolerance: number;
  #tried = 0;

  constructor(one: ReadyRow, near: readonly ReadyRow[], tolerance: number) {
    this.#one = one;
    this.#near = near;
    this.#tolerance = tolerance;
  }

  get brokenOff(): boolean {
    return this.#tried >= MOST_SUMS;
  }

  best(): ReadyRow[] | null {
    const { value, tax } = this.#one.row;
    for (let size = 2; size <= Math.min(MOST_PARTS, this.#near.length); size += 1) {
      const parts = this.#of(size, 0, value, tax);
      if (parts) return parts;
    }
    return null;
  }

  #of(size: number, from: number, value: number, tax: number): ReadyRow[] | null {
    if (size === 0) return isNear(value, 0, this.#tolerance) && isNear(tax, 0, this.#tolerance) ? [] : null;
    for (let at = from; at <= this.#near.length - size; at += 1) {
      const part = this.#near[at];
      if (!part || this.brokenOff) return null;
      this.#tried += 1;
      const rest = this.#of(size - 1, at + 1, value - part.row.value, tax - part.row.tax);
      if (rest) return [part, ...rest];
    }
    return null;
  }
}
