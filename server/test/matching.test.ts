import fc from "fast-check";
import { expect, test } from "vitest";
import { plainNumber } from "@fiscalon/core/agree/matching/documentNumber";
import { USUAL_MATCHING } from "@fiscalon/core/agree/matching/matchRow";
import type { MatchDecisions, MatchRow } from "@fiscalon/core/agree/matching/matchRow";
import { matchRows } from "@fiscalon/core/agree/matching/matchRows";
import type { Matching } from "@fiscalon/core/agree/matching/matchRows";
import { matchLines, outcomeSums } from "@fiscalon/core/agree/matching/outcomes";
import { lots, matchingSample } from "../dist/bench/matchingSample.js";

const NOBODY: MatchDecisions = { together: [], apart: [] };

/** By keys, so that answers over lists in another order can be laid side by side. */
function told(matching: Matching, ours: readonly MatchRow[], theirs: readonly MatchRow[]) {
  const keys = (rows: readonly MatchRow[], at: readonly number[]) =>
    at.map((one) => rows[one]?.key ?? "").sort();
  return {
    pairs: matching.pairs
      .map((pair) =>
        [keys(ours, pair.ours).join(), keys(theirs, pair.theirs).join(), pair.score, pair.sure].join("|"),
      )
      .sort(),
    ours: keys(ours, matching.onlyOurs),
    theirs: keys(theirs, matching.onlyTheirs),
    doubledOurs: keys(
      ours,
      matching.doubledOurs.map(({ row }) => row),
    ),
    doubledTheirs: keys(
      theirs,
      matching.doubledTheirs.map(({ row }) => row),
    ),
  };
}

// Lists of invented documents of which it is known what belongs together; the seeds are those of docs/performance.md.
test.each([11, 12, 13])("what is called sure is right, and hardly anything is missed (seed %i)", (seed) => {
  const sample = matchingSample(6000, seed);
  const matching = matchRows(sample.ours, sample.theirs, USUAL_MATCHING);
  const truth = new Set(sample.truth.map(({ ours, theirs }) => `${ours.join()}|${theirs.join()}`));
  const { pairs } = told(matching, sample.ours, sample.theirs);
  const right = pairs.filter((pair) => truth.has(pair.split("|").slice(0, 2).join("|")));
  const sure = pairs.filter((pair) => pair.endsWith("true"));
  const sureRight = right.filter((pair) => pair.endsWith("true"));
  expect(sure.length).toBeGreaterThan(sample.truth.length * 0.9);
  expect(sureRight.length / sure.length).toBeGreaterThanOrEqual(0.995);
  expect(right.length / sample.truth.length).toBeGreaterThanOrEqual(0.97);
  const doubled = told(matching, sample.ours, sample.theirs);
  expect(doubled.doubledTheirs.length).toBeGreaterThanOrEqual(sample.doubledTheirs.size);
});

test("a number is the same however it is written", () => {
  const written = [
    "KY/26-27/0447",
    "ky-447",
    "KY 2026 447",
    "KY/2026-27/0447",
    "KY-O447",
    "ＫＹ447",
    "KY\u200f-447",
  ];
  expect(new Set(written.map((number) => plainNumber(number).whole))).toEqual(new Set(["KY447"]));
  expect(plainNumber("2026").whole).toBe("2026");
  expect(plainNumber("KY/26-28/447").whole).not.toBe("KY447");
});

const few = fc.integer({ min: 0, max: 1_000_000 }).map((seed) => {
  const sample = matchingSample(60, seed);
  const lot = lots(seed);
  // Many documents of few parties with few amounts: as much as can be mistaken for one another.
  const crowded = (rows: MatchRow[]) =>
    rows.map((row) => ({ ...row, value: (1 + lot(6)) * 10_000, tax: 0, number: String(1 + lot(40)) }));
  return seed % 2 === 0
    ? { ours: sample.ours, theirs: sample.theirs }
    : { ours: crowded(sample.ours), theirs: crowded(sample.theirs) };
});

test("every row is in one place, its sums add up, and the order of rows changes nothing", () => {
  fc.assert(
    fc.property(few, fc.integer(), ({ ours, theirs }, seed) => {
      const matching = matchRows(ours, theirs, USUAL_MATCHING);
      const lines = matchLines(ours, theirs, matching, { ours: new Set(), theirs: new Set() });
      expect(lines.flatMap((line) => line.ours).sort((a, b) => a - b)).toEqual(ours.map((_, at) => at));
      expect(lines.flatMap((line) => line.theirs).sort((a, b) => a - b)).toEqual(theirs.map((_, at) => at));
      const sums = outcomeSums(lines, ours, theirs);
      const tax = (rows: readonly MatchRow[]) => rows.reduce((sum, row) => sum + row.tax, 0);
      expect(sums.reduce((sum, { oursTax }) => sum + oursTax, 0)).toBe(tax(ours));
      expect(sums.reduce((sum, { theirsTax }) => sum + theirsTax, 0)).toBe(tax(theirs));

      const lot = lots(seed);
      const shuffled = (rows: readonly MatchRow[]) =>
        rows
          .map((row) => ({ row, by: lot(1_000_000) }))
          .sort((a, b) => a.by - b.by)
          .map(({ row }) => row);
      const [mixedOurs, mixedTheirs] = [shuffled(ours), shuffled(theirs)];
      const mixed = matchRows(mixedOurs, mixedTheirs, USUAL_MATCHING);
      expect(told(mixed, mixedOurs, mixedTheirs)).toEqual(told(matching, ours, theirs));
    }),
    { numRuns: 60 },
  );
});

test("swapping the sides swaps the answer; what was decided stays decided", () => {
  fc.assert(
    fc.property(few, ({ ours, theirs }) => {
      const matching = matchRows(ours, theirs, USUAL_MATCHING);
      const back = told(matchRows(theirs, ours, USUAL_MATCHING), theirs, ours);
      const one = told(matching, ours, theirs);
      const turned = one.pairs.map((pair) => {
        const [mine, yours, ...rest] = pair.split("|");
        return [yours, mine, ...rest].join("|");
      });
      expect({ ...back, pairs: back.pairs }).toEqual({
        pairs: turned.sort(),
        ours: one.theirs,
        theirs: one.ours,
        doubledOurs: one.doubledTheirs,
        doubledTheirs: one.doubledOurs,
      });

      const first = matching.pairs[0];
      if (!first) return;
      const keys = (rows: readonly MatchRow[], at: readonly number[]) =>
        at.map((row) => rows[row]?.key ?? "");
      const mine = keys(ours, first.ours);
      const yours = keys(theirs, first.theirs);
      const apart = matchRows(ours, theirs, USUAL_MATCHING, {
        ...NOBODY,
        apart: mine.flatMap((our) => yours.map((their) => ({ ours: our, theirs: their }))),
      });
      expect(
        told(apart, ours, theirs).pairs.map((pair) => pair.split("|").slice(0, 2).join("|")),
      ).not.toContain(`${mine.sort().join()}|${yours.sort().join()}`);
      // Everything accepted as it stands: matching again finds the same.
      const accepted = matchRows(ours, theirs, USUAL_MATCHING, {
        ...NOBODY,
        together: matching.pairs.map((pair) => ({
          ours: keys(ours, pair.ours),
          theirs: keys(theirs, pair.theirs),
        })),
      });
      expect(accepted.pairs.map((pair) => [pair.ours, pair.theirs])).toEqual(
        matching.pairs.map((pair) => [pair.ours, pair.theirs]),
      );
      expect(accepted.onlyOurs).toEqual(matching.onlyOurs);
    }),
    { numRuns: 60 },
  );
});
