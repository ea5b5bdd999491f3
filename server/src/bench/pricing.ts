import { netAndGross, priceLine } from "@fiscalon/core/tax/priceLine";
import { ratedComponents } from "@fiscalon/core/tax/ratedComponents";
import { ROUND_EACH_LINE } from "@fiscalon/core/model/rounding";
import { Packs } from "@fiscalon/core/model/packs";
import { SHIPPED } from "@fiscalon/core/packs/shipped";
import type { PriceMode } from "@fiscalon/core/model/document";
import type { BenchRow } from "./report.ts";
import { perSecond } from "./report.ts";

const LINES = 1_000_000;

/** Half up, of whole numbers. */
const share = (amount: number, part: number, whole: number) =>
  Math.floor((amount * part * 2 + whole) / (whole * 2));

interface Case {
  pack: string;
  code: string;
  mode: PriceMode;
  /** Every tax of the line by hard-wired arithmetic, without codes, rates by date or boxes. */
  plain: (amount: number) => { net: number; taxes: number[]; gross: number };
}

const CASES: Case[] = [
  {
    pack: "gb",
    code: "S20",
    mode: "exclusive",
    plain: (amount) => {
      const tax = share(amount, 20, 100);
      return { net: amount, taxes: [tax], gross: amount + tax };
    },
  },
  {
    pack: "gb",
    code: "S20",
    mode: "inclusive",
    plain: (amount) => {
      const tax = share(amount, 20, 120);
      return { net: amount - tax, taxes: [tax], gross: amount };
    },
  },
  {
    pack: "au",
    code: "WW",
    mode: "inclusive",
    plain: (amount) => {
      const [wine, gst] = [share(amount, 290, 1_419), share(amount, 129, 1_419)];
      return { net: amount - wine - gst, taxes: [wine, gst], gross: amount };
    },
  },
];

/** Lines priced in core, beside the same arithmetic in plain integers without any of its generality. */
export function pricingBench(): BenchRow[] {
  return CASES.map(({ pack: id, code: name, mode, plain }) => {
    const pack = new Packs(SHIPPED).byId(id);
    const code = pack.codes.find((one) => one.code === name);
    if (!code) throw new Error(`${id} has no code ${name}.`);
    const components = ratedComponents(code, "2026-05-01", pack.schedules);
    const ours = timed((amount) => {
      const taxes = priceLine(amount, mode, components, ROUND_EACH_LINE);
      const { net, gross } = netAndGross(amount, mode, taxes);
      return { net, taxes: taxes.map(({ tax }) => tax), gross };
    });
    const reference = timed(plain);
    if (ours.sum !== reference.sum) throw new Error(`${name} ${mode} differs from the plain integers.`);
    const levies = components.length === 1 ? "one levy" : `${components.length} stacked levies`;
    return {
      what: `lines of ${levies} priced in core, tax-${mode}`,
      ours: perSecond(LINES, ours.best),
      reference: `plain integers ${perSecond(LINES, reference.best)}`,
      ratio: ours.best / reference.best,
    };
  });
}

/** The best of three runs, and a sum over every figure, which keeps the work from being left out and must agree. */
function timed(work: Case["plain"]): { best: number; sum: number } {
  let best = Number.POSITIVE_INFINITY;
  let sum = 0;
  for (let run = 0; run < 3; run += 1) {
    const start = performance.now();
    for (let n = 0; n < LINES; n += 1) {
      const { net, taxes, gross } = work(100 + ((n * 7919) % 900_000));
      sum += net + gross;
      for (const [index, tax] of taxes.entries()) sum += tax * (index + 2);
    }
    best = Math.min(best, performance.now() - start);
  }
  return { best, sum };
}
