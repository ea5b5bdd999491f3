import { at } from "../at.ts";
import { groupBy } from "../groupBy.ts";

/** A number that was given to a document; `cancelled`: it was taken out of the books again. */
export interface IssuedNumber {
  nature: string;
  number: string;
  cancelled: boolean;
}

/** Numbers without a gap between them. `net`: those that were not cancelled. */
export interface IssuedRun {
  nature: string;
  from: string;
  to: string;
  total: number;
  cancelled: number;
  net: number;
}

/**
 * The numbers of documents as runs: of each nature and series from the first to the last, a new run after each gap, so
 * that every number between is accounted for. Numbers that do not end with digits stand alone.
 * @example A/0001 to A/0148 with three cancelled: total 148, cancelled 3, net 145
 * @source GSTR-1 table 13; Form GSTR-1 instructions, from memory
 */
export function documentsIssued(numbers: readonly IssuedNumber[]): IssuedRun[] {
  const series = groupBy(numbers, ({ nature, number }) => `${nature} ${partsOf(number).series}`);
  const byNature = [...series].sort(([a], [b]) => a.localeCompare(b));
  return byNature.flatMap(([, own]) => {
    const inOrder = [...new Map(own.map((one) => [one.number, one])).values()].sort(
      (a, b) => partsOf(a.number).count - partsOf(b.number).count,
    );
    return runs(inOrder).map((run): IssuedRun => {
      const cancelled = run.filter((one) => one.cancelled).length;
      const [first, last] = [at(run, 0), at(run, run.length - 1)];
      return {
        nature: first.nature,
        from: first.number,
        to: last.number,
        total: run.length,
        cancelled,
        net: run.length - cancelled,
      };
    });
  });
}

function runs(inOrder: readonly IssuedNumber[]): IssuedNumber[][] {
  const all: IssuedNumber[][] = [];
  for (const one of inOrder) {
    const run = all.at(-1);
    const last = run?.at(-1);
    if (run && last && partsOf(one.number).count === partsOf(last.number).count + 1) run.push(one);
    else all.push([one]);
  }
  return all;
}

/** What stands before the digits at the end, and these as a number; a number without them is a series of its own. */
function partsOf(number: string): { series: string; count: number } {
  const [, series = "", digits = ""] = /^(.*?)(\d{1,12})$/.exec(number) ?? [];
  return digits === "" ? { series: number, count: 0 } : { series, count: Number(digits) };
}
