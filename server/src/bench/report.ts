import { at } from "@fiscalon/core/at";

/** One line of the report. `ratio`: our time over the time of the plain reference. */
export interface BenchRow {
  what: string;
  ours: string;
  reference: string;
  ratio: number;
}

/** Milliseconds of several runs. */
export interface Times {
  median: number;
  least: number;
  most: number;
}

/** How long something takes, run after run: its median, with the spread. */
export async function timesOf(runs: number, work: () => unknown): Promise<Times> {
  const times: number[] = [];
  for (let run = 0; run < runs; run += 1) {
    const start = performance.now();
    await work();
    times.push(performance.now() - start);
  }
  return spreadOf(times);
}

export function spreadOf(times: readonly number[]): Times {
  const sorted = [...times].sort((a, b) => a - b);
  return {
    median: at(sorted, sorted.length >> 1),
    least: at(sorted, 0),
    most: at(sorted, sorted.length - 1),
  };
}

/** A median with its spread, in milliseconds. */
export function inMs({ median, least, most }: Times): string {
  return `${median.toFixed(0)} ms (${least.toFixed(0)} to ${most.toFixed(0)})`;
}

export function perSecond(count: number, milliseconds: number): string {
  return `${Math.round((count * 1000) / milliseconds).toLocaleString("en-GB")} a second`;
}
