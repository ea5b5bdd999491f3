import { netAndGross, priceLine } from "@fiscalon/core/tax/priceLine";
import { ratedComponents } from "@fiscalon/core/tax/ratedComponents";
import { ROUND_EACH_LINE } from "@fiscalon/core/tax/rounding";
import { gb } from "@fiscalon/core/jurisdictions/gb/pack";
import type { BenchRow } from "./report.ts";
import { perSecond } from "./report.ts";

const LINES = 500_000;

/** Lines priced in core, beside the same arithmetic in plain integers without any of its generality. */
export function pricingBench(): BenchRow[] {
  const code = gb.codes.find((one) => one.code === "S20");
  if (!code) return [];
  const components = ratedComponents(code, "2026-05-01", gb.schedules);
  return (["exclusive", "inclusive"] as const).map((mode) => {
    const ours = timed((amount) => {
      const taxes = priceLine(amount, mode, components, ROUND_EACH_LINE);
      return netAndGross(amount, mode, taxes).gross;
    });
    const plain = timed((amount) => {
      const tax =
        mode === "exclusive"
          ? Math.floor((amount * 20 * 2 + 100) / 200)
          : Math.floor((amount * 20 * 2 + 120) / 240);
      return mode === "exclusive" ? amount + tax : amount;
    });
    return {
      what: `lines priced in core, tax-${mode}`,
      ours: perSecond(LINES, ours),
      reference: `plain integers ${perSecond(LINES, plain)}`,
      ratio: ours / plain,
    };
  });
}

function timed(work: (amount: number) => number): number {
  let best = Number.POSITIVE_INFINITY;
  let sum = 0;
  for (let run = 0; run < 3; run += 1) {
    const start = performance.now();
    for (let n = 0; n < LINES; n += 1) sum += work(100 + ((n * 7919) % 900_000));
    best = Math.min(best, performance.now() - start);
  }
  if (sum < 0) throw new Error("the sum keeps the work from being optimised away");
  return best;
}
