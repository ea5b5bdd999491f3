import { groupBy } from "../../groupBy.ts";
import { isTransposed, readyRows, WEIGHTS } from "./assess.ts";
import type { ReadyRow, Reason } from "./assess.ts";
import { likeness, plainNumber } from "./documentNumber.ts";
import { apartKey, inOrder, Leftovers } from "./leftovers.ts";
import type { Edge } from "./leftovers.ts";
import type { MatchDecisions, MatchOptions, MatchRow, Piece } from "./matchRow.ts";
import { splitBills } from "./splitBills.ts";

/** Rows of both sides that are one document; several of a side where it is told in parts. Places in the lists given. */
export interface MatchedPair {
  ours: readonly number[];
  theirs: readonly number[];
  /** Of 100, the sum of the weights of its reasons. */
  score: number;
  reasons: readonly Reason[];
  differs: readonly Piece[];
  /** It needs no second look: the score is high and no other row fits as well. */
  sure: boolean;
  by: "rule" | "person";
}

/** A row that is on its side twice. */
export interface DoubledRow {
  row: number;
  /** The row it is the same as. */
  of: number;
}

/** Two lists matched: each row is in exactly one place. */
export interface Matching {
  pairs: readonly MatchedPair[];
  onlyOurs: readonly number[];
  onlyTheirs: readonly number[];
  doubledOurs: readonly DoubledRow[];
  doubledTheirs: readonly DoubledRow[];
  /** Rows whose parts were looked for without trying every sum. */
  brokenOff: number;
}

/** Told how far it is: `done` of `total` passes. */
export type MatchProgress = (done: number, total: number, what: string) => void;

/** A year and a little: two documents further apart are not one. */
const LONGEST = 400;

const PASSES: readonly {
  what: string;
  key: (row: ReadyRow) => string | null;
  accept: (edge: Edge, options: MatchOptions) => boolean;
}[] = [
  {
    what: "everything the same",
    key: (r) => (hasNumber(r) ? `${r.party}/${r.number.whole}/${r.day}/${r.row.value}/${r.row.tax}` : null),
    accept: () => true,
  },
  {
    what: "number the same, amounts within the tolerance",
    key: (r) => numbered(r, r.party),
    accept: (edge) => within(edge) && !edge.differs.includes("kind"),
  },
  {
    what: "number the same, something differs",
    key: (r) => numbered(r, r.party),
    accept: (edge) => within(edge) || sayingSame(edge) > 0,
  },
  {
    what: "number of the document it amends",
    key: (r) => (r.party === "" ? null : `${r.party}/${amendedNumber(r)}`),
    accept: (edge) => amends(edge) && gap(edge) <= LONGEST && sayingSame(edge) > 0,
  },
  {
    what: "amounts the same within days",
    key: (r) => owned(r, r.row.value, r.row.tax),
    accept: (edge, { days, numbersDiffer }) =>
      gap(edge) <= days && (numbersDiffer === true || alike(edge) || (gap(edge) <= 3 && !running(edge))),
  },
  {
    what: "running number the same",
    key: (r) => (r.party === "" || r.number.serial.length < 3 ? null : `${r.party}/${r.number.serial}`),
    accept: (edge) => gap(edge) <= LONGEST && sayingSame(edge) > 0,
  },
  {
    what: "amounts the same, number alike",
    key: (r) => owned(r, r.row.value, r.row.tax),
    accept: (edge) => gap(edge) <= LONGEST && alike(edge) && !running(edge),
  },
  {
    what: "day the same, number alike",
    key: (r) => owned(r, r.day),
    accept: (edge) => alike(edge) && (sayingSame(edge) > 1 || swapped(edge)),
  },
];

/** So many of them go by the number; what stands twice is looked for after them. */
const BY_NUMBER = 4;

const LATER_PASSES: typeof PASSES = [
  {
    what: "another registration of the person",
    key: (r) => (r.row.partyKin === "" ? null : numbered(r, r.row.partyKin)),
    accept: (edge) => gap(edge) <= LONGEST && sayingSame(edge) > 0,
  },
  {
    what: "another registration of the person, amounts the same",
    key: (r) => (r.row.partyKin === "" ? null : `${r.row.partyKin}/${r.row.value}/${r.row.tax}`),
    accept: (edge, { days }) => gap(edge) <= days && (alike(edge) || gap(edge) === 0),
  },
  {
    what: "a party of the same name",
    key: (r) => (r.name === "" ? null : numbered(r, r.name)),
    accept: (edge) => gap(edge) <= LONGEST && sayingSame(edge) > 0,
  },
  {
    what: "another party, all else the same",
    key: (r) => (r.number.whole.length < 3 ? null : `${r.number.whole}/${r.row.value}/${r.row.tax}`),
    accept: (edge, { days }) => gap(edge) <= days,
  },
  {
    what: "number the same, nothing else",
    key: (r) => numbered(r, r.party),
    accept: (edge) => gap(edge) <= 45 && edge.ours.number.whole.length >= 3,
  },
];

/**
 * Matches two lists of documents, pass by pass, each on what the former left; near-linear, and the same whatever the
 * order of the rows. Swapping the sides swaps the answer.
 * Source: engine.md 10 (common practice, no source).
 */
export function matchRows(
  ours: readonly MatchRow[],
  theirs: readonly MatchRow[],
  options: MatchOptions,
  decisions: MatchDecisions = { together: [], apart: [] },
  progress: MatchProgress = () => undefined,
): Matching {
  const apart = new Set(decisions.apart.map((one) => apartKey(one.ours, one.theirs)));
  const pairs: MatchedPair[] = [];
  const [left, right] = [readyRows(ours), readyRows(theirs)];
  const paired = new Set<ReadyRow>();
  for (const pair of byPeople(left, right, decisions)) {
    pairs.push(pair.pair);
    for (const row of pair.rows) paired.add(row);
  }
  const rest = new Leftovers(
    left.filter((row) => !paired.has(row)),
    right.filter((row) => !paired.has(row)),
    options,
    apart,
  );
  const total = PASSES.length + LATER_PASSES.length;
  let done = 0;
  const run = (passes: typeof PASSES) => {
    for (const { what, key, accept } of passes) {
      progress(done, total, what);
      done += 1;
      rest.pass(
        key,
        (edge) => accept(edge, options),
        ({ ours: one, theirs: other, score, reasons, differs }, sure) => {
          paired.add(one).add(other);
          pairs.push({ ours: [one.at], theirs: [other.at], score, reasons, differs, sure, by: "rule" });
        },
      );
    }
  };
  run(PASSES.slice(0, BY_NUMBER));
  const doubled = new Doubled(rest);
  doubled.find(left, right, paired, againOfPair);
  run(PASSES.slice(BY_NUMBER, BY_NUMBER + 1));
  progress(done, total, "one bill in parts");
  const { splits, brokenOff } = splitBills(rest, options);
  for (const { one, parts, isOurs } of splits) {
    const several = parts.map(({ at }) => at).sort((a, b) => a - b);
    const [mine, yours] = isOurs ? [[one.at], several] : [several, [one.at]];
    pairs.push({ ours: mine, theirs: yours, ...SPLIT, sure: false, by: "rule" });
    for (const row of [one, ...parts]) paired.add(row);
  }
  run(PASSES.slice(BY_NUMBER + 1));
  run(LATER_PASSES);
  progress(total, total, "told twice");
  doubled.find(left, right, paired, againAlike);
  return {
    pairs: pairs.sort((a, b) => (a.ours[0] ?? 0) - (b.ours[0] ?? 0)),
    onlyOurs: rest.ours.map(({ at }) => at).sort((a, b) => a - b),
    onlyTheirs: rest.theirs.map(({ at }) => at).sort((a, b) => a - b),
    doubledOurs: doubled.ours,
    doubledTheirs: doubled.theirs,
    brokenOff,
  };
}

const SPLIT_REASONS: Reason[] = ["same registration", "same value", "same tax"];
const SPLIT = {
  score: SPLIT_REASONS.reduce((sum, reason) => sum + WEIGHTS[reason], 0),
  reasons: SPLIT_REASONS,
  differs: [] as Piece[],
};

/** What people said is one document, where its rows are still there. */
function byPeople(
  left: readonly ReadyRow[],
  right: readonly ReadyRow[],
  { together }: MatchDecisions,
): { pair: MatchedPair; rows: ReadyRow[] }[] {
  if (together.length === 0) return [];
  const [ours, theirs] = [left, right].map((rows) => new Map(rows.map((row) => [row.row.key, row])));
  return together.flatMap((one) => {
    const mine = one.ours.flatMap((key) => ours?.get(key) ?? []);
    const yours = one.theirs.flatMap((key) => theirs?.get(key) ?? []);
    if (mine.length < one.ours.length || yours.length < one.theirs.length) return [];
    const pair: MatchedPair = {
      ours: mine.map(({ at }) => at),
      theirs: yours.map(({ at }) => at),
      score: 100,
      reasons: [],
      differs: [],
      sure: true,
      by: "person",
    };
    return [{ pair, rows: [...mine, ...yours] }];
  });
}

/** Rows that stand on their side a second time. */
class Doubled {
  readonly #rest: Leftovers;
  readonly ours: DoubledRow[] = [];
  readonly theirs: DoubledRow[] = [];

  constructor(rest: Leftovers) {
    this.#rest = rest;
  }

  find(
    left: readonly ReadyRow[],
    right: readonly ReadyRow[],
    paired: ReadonlySet<ReadyRow>,
    { hint, key, fits, ofPairs }: Sameness,
  ): void {
    const gone = new Set<ReadyRow>();
    const look = (all: readonly ReadyRow[], free: readonly ReadyRow[], into: DoubledRow[]) => {
      const isFree = new Set(free);
      const hints = new Set(free.map(hint));
      const groups = groupBy(
        all.filter((row) => hints.has(hint(row)) && (isFree.has(row) || paired.has(row))),
        key,
      );
      for (const [name, group] of groups) {
        if (name === "" || group.length === 1) continue;
        const sorted = [...group].sort((a, b) => rank(a, paired) - rank(b, paired) || inOrder(a, b));
        for (const [at, row] of sorted.entries()) {
          const before = sorted
            .slice(0, at)
            .find((one) => !gone.has(one) && (!ofPairs || paired.has(one)) && fits(one, row));
          if (!before || paired.has(row)) continue;
          gone.add(row);
          into.push({ row: row.at, of: before.at });
        }
      }
    };
    look(left, this.#rest.ours, this.ours);
    look(right, this.#rest.theirs, this.theirs);
    this.#rest.without(gone);
  }
}

function rank(row: ReadyRow, paired: ReadonlySet<ReadyRow>): number {
  return paired.has(row) ? 0 : 1;
}

interface Sameness {
  /** What two rows that are the same have in common at least; quick to compare. */
  hint: (row: ReadyRow) => string | number;
  /** Empty: the row is never a second one. */
  key: (row: ReadyRow) => string;
  fits: (one: ReadyRow, other: ReadyRow) => boolean;
  /** Only a row that is paired already counts as the first one. */
  ofPairs: boolean;
}

const againOfPair: Sameness = {
  ofPairs: true,
  hint: ({ number }) => number.whole,
  key: (r) => (hasNumber(r) ? `${r.party}/${r.number.whole}/${r.row.value}/${r.row.tax}` : ""),
  fits: (one, other) => Math.abs(one.day - other.day) <= LONGEST,
};
const againAlike: Sameness = {
  ofPairs: false,
  hint: ({ row }) => row.value,
  key: (r) => owned(r, r.row.value, r.row.tax) ?? "",
  fits: (one, other) => {
    const like = likeness(one.number, other.number);
    const near = Math.abs(one.day - other.day);
    return (
      like === "same" ||
      (near <= 3 && (like === "serial" || like === "part" || (like === "typo" && near === 0)))
    );
  },
};

function amendedNumber({ row, number }: ReadyRow): string {
  return row.original === undefined || row.original === "" ? number.whole : plainNumber(row.original).whole;
}

function amends({ ours, theirs }: Edge): boolean {
  return [ours, theirs].some(({ row }) => (row.original ?? "") !== "");
}

function hasNumber({ party, number }: ReadyRow): boolean {
  return party !== "" && number.whole !== "";
}

/** A key of a party and the number; null where one of them is missing. */
function numbered({ number }: ReadyRow, party: string): string | null {
  return party === "" || number.whole === "" ? null : `${party}/${number.whole}`;
}

/** A key of a party and figures; null where nobody is named. */
function owned({ party }: ReadyRow, figure: number, other = 0): string | null {
  return party === "" ? null : `${party}/${figure}/${other}`;
}

function gap({ ours, theirs }: Edge): number {
  return Math.abs(ours.day - theirs.day);
}

function within({ differs, ours, theirs }: Edge): boolean {
  return !differs.includes("value") && !differs.includes("tax") && Math.abs(ours.day - theirs.day) <= LONGEST;
}

/** How many of day, value and tax are the same. */
function sayingSame({ differs }: Edge): number {
  return (["date", "value", "tax"] as const).filter((piece) => !differs.includes(piece)).length;
}

function alike({ ours, theirs }: Edge): boolean {
  return likeness(ours.number, theirs.number) !== "none";
}

/** Neighbours in a series: two bills of the same amount, not one with a slip. */
function running({ ours, theirs }: Edge): boolean {
  const [one, other] = [Number(ours.number.serial), Number(theirs.number.serial)];
  return ours.day !== theirs.day && one !== other && Math.abs(one - other) <= 20;
}

function swapped({ ours, theirs }: Edge): boolean {
  return isTransposed(ours.row.value, theirs.row.value) || isTransposed(ours.row.tax, theirs.row.tax);
}
