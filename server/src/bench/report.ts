/** One line of the report. `ratio`: our time over the time of the plain reference. */
export interface BenchRow {
  what: string;
  ours: string;
  reference: string;
  ratio: number;
}

/** The best of `runs` times, in milliseconds: what the machine can do when nothing else disturbs it. */
export async function bestTime(runs: number, work: () => unknown): Promise<number> {
  let best = Number.POSITIVE_INFINITY;
  for (let run = 0; run < runs; run += 1) {
    const start = performance.now();
    await work();
    best = Math.min(best, performance.now() - start);
  }
  return best;
}

export function perSecond(count: number, milliseconds: number): string {
  return `${Math.round((count * 1000) / milliseconds).toLocaleString("en-GB")} a second`;
}
