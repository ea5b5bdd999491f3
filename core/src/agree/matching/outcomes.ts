import { at } from "../../at.ts";
import type { MatchedPair, Matching } from "./matchRows.ts";
import type { MatchRow, Piece } from "./matchRow.ts";

/** How a document stands between the two sides. */
export const OUTCOMES = {
  agreed: "Agreed",
  tolerance: "Within the tolerance",
  amount: "Value, tax, rate",
  kind: "Invoice or credit note",
  place: "Place, levy",
  number: "Number",
  date: "Date",
  party: "Registration",
  parts: "One for several",
  "only-ours": "Only ours",
  "only-theirs": "Only theirs",
  "doubled-ours": "Doubled, ours",
  "doubled-theirs": "Doubled, theirs",
  ineligible: "Not eligible",
} as const;

export type Outcome = keyof typeof OUTCOMES;

/** By the gravest of what differs. */
const BY_PIECE: readonly (readonly [Outcome, readonly Piece[]])[] = [
  ["kind", ["kind"]],
  ["amount", ["value", "tax", "rate"]],
  ["place", ["levy", "place"]],
  ["party", ["party"]],
  ["number", ["number"]],
  ["date", ["date"]],
];

/** A line of the matching: what is on each side, and how it stands. Places in the lists that were matched. */
export interface MatchLine {
  outcome: Outcome;
  ours: readonly number[];
  theirs: readonly number[];
  pair: MatchedPair | null;
  /** The row of the same side it repeats. */
  of: number | null;
}

/**
 * Every row of both sides on one line with its outcome, in an order that follows the lists.
 * @param ineligible places of rows that give no credit whatever they match, by side
 */
export function matchLines(
  ours: readonly MatchRow[],
  theirs: readonly MatchRow[],
  matching: Matching,
  ineligible: { ours: ReadonlySet<number>; theirs: ReadonlySet<number> },
): MatchLine[] {
  const alone = (outcome: Outcome, mine: number[], yours: number[], of: number | null = null): MatchLine => {
    const isOut =
      mine.some((row) => ineligible.ours.has(row)) || yours.some((row) => ineligible.theirs.has(row));
    return { outcome: isOut ? "ineligible" : outcome, ours: mine, theirs: yours, pair: null, of };
  };
  return [
    ...matching.pairs.map((pair): MatchLine => {
      const isOut =
        pair.ours.some((row) => ineligible.ours.has(row)) ||
        pair.theirs.some((row) => ineligible.theirs.has(row));
      const outcome = isOut ? "ineligible" : outcomeOf(pair, ours, theirs);
      return { outcome, ours: pair.ours, theirs: pair.theirs, pair, of: null };
    }),
    ...matching.onlyOurs.map((row) => alone("only-ours", [row], [])),
    ...matching.onlyTheirs.map((row) => alone("only-theirs", [], [row])),
    ...matching.doubledOurs.map(({ row, of }) => alone("doubled-ours", [row], [], of)),
    ...matching.doubledTheirs.map(({ row, of }) => alone("doubled-theirs", [], [row], of)),
  ];
}

function outcomeOf(pair: MatchedPair, ours: readonly MatchRow[], theirs: readonly MatchRow[]): Outcome {
  if (pair.by === "person") return "agreed";
  if (pair.ours.length + pair.theirs.length > 2) return "parts";
  const piece = BY_PIECE.find(([, pieces]) => pieces.some((one) => pair.differs.includes(one)));
  if (piece) return piece[0];
  const [one, other] = [at(ours, at(pair.ours, 0)), at(theirs, at(pair.theirs, 0))];
  return one.value === other.value && one.tax === other.tax ? "agreed" : "tolerance";
}

/** Sums of one outcome: rows of each side, and the tax and value of theirs less ours, minor units. */
export interface OutcomeSum {
  outcome: Outcome;
  ours: number;
  theirs: number;
  oursTax: number;
  theirsTax: number;
  oursValue: number;
  theirsValue: number;
}

/** The outcomes that occur with their sums. Together they hold every row of both sides once. */
export function outcomeSums(
  lines: readonly MatchLine[],
  ours: readonly MatchRow[],
  theirs: readonly MatchRow[],
): OutcomeSum[] {
  const sums = new Map<Outcome, OutcomeSum>();
  for (const { outcome, ours: mine, theirs: yours } of lines) {
    const sum = sums.get(outcome) ?? { outcome, ours: 0, theirs: 0, ...NOTHING };
    for (const row of mine) {
      const { tax, value } = at(ours, row);
      sum.ours += 1;
      sum.oursTax += tax;
      sum.oursValue += value;
    }
    for (const row of yours) {
      const { tax, value } = at(theirs, row);
      sum.theirs += 1;
      sum.theirsTax += tax;
      sum.theirsValue += value;
    }
    sums.set(outcome, sum);
  }
  return Object.keys(OUTCOMES).flatMap((outcome) => sums.get(outcome as Outcome) ?? []);
}

const NOTHING = { oursTax: 0, theirsTax: 0, oursValue: 0, theirsValue: 0 };
