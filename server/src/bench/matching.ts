import { USUAL_MATCHING } from "@fiscalon/core/agree/matching/matchRow";
import type { MatchRow } from "@fiscalon/core/agree/matching/matchRow";
import { matchRows } from "@fiscalon/core/agree/matching/matchRows";
import { matchingSample } from "./matchingSample.ts";
import type { BenchRow } from "./report.ts";

const ROWS = 100_000;
const SEED = 3;

/** 100,000 documents against as many, beside sorting both sides by party, number and date; and how much of it is right. */
export function matchingBench(): BenchRow[] {
  const { ours, theirs, truth } = matchingSample(ROWS, SEED);
  const timed = (work: () => void) => {
    const start = performance.now();
    work();
    return performance.now() - start;
  };
  const sorting = Math.min(
    ...[1, 2, 3].map(() => timed(() => [ours, theirs].forEach((side) => [...side].sort(byAll)))),
  );
  let matching = matchRows([], [], USUAL_MATCHING);
  const taken = timed(() => {
    matching = matchRows(ours, theirs, USUAL_MATCHING);
  });
  const known = new Set(
    truth.map((one) => `${[...one.ours].sort().join()}|${[...one.theirs].sort().join()}`),
  );
  const keys = (rows: readonly MatchRow[], at: readonly number[]) =>
    at.map((place) => rows[place]?.key ?? "").sort();
  const isRight = (pair: (typeof matching.pairs)[number]) =>
    known.has(`${keys(ours, pair.ours).join()}|${keys(theirs, pair.theirs).join()}`);
  const sure = matching.pairs.filter((pair) => pair.sure);
  const precision = sure.filter(isRight).length / sure.length;
  const recall = matching.pairs.filter(isRight).length / truth.length;
  const memory = process.memoryUsage().rss / 1024 / 1024;
  return [
    {
      what: `${ROWS} documents matched with as many (seed ${SEED}): of the sure pairs ${(precision * 100).toFixed(3)} % right, ${(recall * 100).toFixed(2)} % of all found, ${memory.toFixed(0)} MB`,
      ours: `${(taken / 1000).toFixed(1)} s`,
      reference: `both sides sorted ${(sorting / 1000).toFixed(1)} s`,
      ratio: taken / sorting,
    },
  ];
}

function byAll(a: MatchRow, b: MatchRow): number {
  return byText(a.partyNumber, b.partyNumber) || byText(a.number, b.number) || byText(a.date, b.date);
}

function byText(a: string, b: string): number {
  return a < b ? -1 : a > b ? 1 : 0;
}
