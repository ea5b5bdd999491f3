import { displayDate } from "../calendar/displayDate.ts";
import { addDays, addMonths, endOfMonth, endOfYear } from "../calendar/date.ts";
import type { CalendarDate } from "../calendar/date.ts";
import type { Attribution, AttributionBoxes, DeMinimisTest, SignedBox } from "../model/attribution.ts";
import { lastMonths, sumOf, together } from "./attributedTax.ts";
import type { AttributedPeriod, AttributedTax, AttributedTotals } from "./attributedTax.ts";
import type { SchemeInForce, SchemeResult, SchemeStep } from "../model/scheme.ts";
import { displayAmount } from "../money/amount.ts";
import { compare, exactFromDecimal, exactFromInteger, exactToText } from "../money/exact.ts";
import type { Exact } from "../money/exact.ts";
import { roundExact } from "../money/roundExact.ts";

export interface AttributionAround {
  /** Every filing period since the scheme began, in order of time. */
  periods: readonly AttributedPeriod[];
  scheme: SchemeInForce;
  digits: number;
}

/** What is deducted of some time: the percentage, the test that lets all be deducted, and by levy what is refused or allowed. */
interface Share {
  percent: Exact;
  words: string;
  passed: DeMinimisTest | undefined;
  levies: (AttributedTax & { refused: number; allowed: number })[];
}

/**
 * The share of tax on mixed use that the periods of a return deduct, and the adjustment of a tax year that is over. Each
 * levy's share of a period is rounded half up once.
 * @param ends last days of the periods that are on the return
 * @source SI 1995/2518 part XIV and VAT Notice 706; VATCA 2010 s.61; GST Act (SG) regs 28 to 35; VAT Act (ZA) s.17(1);
 *   ER (AE) art. 55; CGST Rules R.42
 */
export function attribution(
  rule: Attribution,
  around: AttributionAround,
  ends: ReadonlySet<CalendarDate>,
): SchemeResult {
  const steps: SchemeStep[] = [];
  let owed = 0;
  const add = (more: SchemeStep[], amount: number) => {
    steps.push(...more);
    owed += amount;
  };
  for (const period of around.periods) {
    if (!ends.has(period.to)) continue;
    const share = shareOf(rule, around, [period], instead(rule, around, period));
    add(
      [...figureSteps(rule, around, period, share), ...levySteps(rule, around, period.to, share)],
      owedBy(share),
    );
    const year = yearAdjustedOn(rule, around, period);
    if (!year) continue;
    const adjusted = yearSteps(rule, around, period.to, year);
    add(adjusted.steps, adjusted.owed);
  }
  return { steps, owed };
}

function owedBy({ levies }: Share): number {
  return levies.reduce((sum, { refused, allowed }) => sum + refused - allowed, 0);
}

type Setting = keyof NonNullable<Attribution["settings"]>;

function setting({ settings }: Attribution, { scheme }: AttributionAround, id: Setting): string | undefined {
  const answer = settings && scheme.settings[settings[id]];
  return answer === "" ? undefined : answer;
}

/** The percentage a period goes by in the place of its own. */
function instead(
  rule: Attribution,
  around: AttributionAround,
  period: AttributedPeriod,
): Pick<Share, "percent" | "words"> | undefined {
  return provisional(rule, around, period) ?? lastKnown(rule, around, period);
}

/** Of a period without turnover that of the last one that had some, where the law says so. */
function lastKnown(
  rule: Attribution,
  around: AttributionAround,
  period: AttributedPeriod,
): Pick<Share, "percent" | "words"> | undefined {
  if (!rule.idle || period.taxable + period.exempt !== 0) return undefined;
  const last = around.periods.findLast(({ to, taxable, exempt }) => to < period.to && taxable + exempt !== 0);
  if (!last) return undefined;
  const { percent } = shareOf(rule, around, [last], undefined);
  return { percent, words: `of the period to ${displayDate(last.to)}, the last that had turnover` };
}

/** That of the tax year before, where it is chosen. */
function provisional(
  rule: Attribution,
  around: AttributionAround,
  period: AttributedPeriod,
): Pick<Share, "percent" | "words"> | undefined {
  if (setting(rule, around, "rate") !== "year-before") return undefined;
  const before = around.periods.filter(
    ({ to }) => yearOf(rule, around, to) === yearBefore(rule, around, period.to),
  );
  if (before.length > 0) {
    const { percent } = shareOf(rule, around, before, undefined);
    return { percent, words: "of the tax year before" };
  }
  const typed = setting(rule, around, "percent");
  return typed === undefined
    ? undefined
    : { percent: exactFromDecimal(typed), words: "of the tax year before, as typed" };
}

/** The last day of the tax year a day lies in. */
function yearOf(rule: Attribution, around: AttributionAround, day: CalendarDate): CalendarDate {
  return endOfYear(Number(setting(rule, around, "yearEnds") ?? "12"), day);
}

function yearBefore(rule: Attribution, around: AttributionAround, day: CalendarDate): CalendarDate {
  return endOfMonth(addMonths(yearOf(rule, around, day), -12));
}

/** The periods of the tax year that is adjusted on a return, where one is. */
function yearAdjustedOn(
  rule: Attribution,
  around: AttributionAround,
  period: AttributedPeriod,
): AttributedPeriod[] | undefined {
  if (!rule.settings) return undefined;
  const onLast = setting(rule, around, "adjusted") === "last";
  const day = onLast ? addDays(period.to, 1) : period.from;
  const before = around.periods.find(({ to }) => to === addDays(day, -1));
  // A year is over where the day after one of its periods lies in another.
  if (!before || yearOf(rule, around, before.to) === yearOf(rule, around, day)) return undefined;
  const year = yearOf(rule, around, before.to);
  return around.periods.filter(({ to }) => to <= before.to && yearOf(rule, around, to) === year);
}

/** What is deducted of some periods together. */
function shareOf(
  rule: Attribution,
  around: AttributionAround,
  periods: readonly AttributedPeriod[],
  instead: Pick<Share, "percent" | "words"> | undefined,
): Share {
  const totals = together(periods);
  const own = percentOf(rule, totals, months(periods));
  const percent = instead?.percent ?? own;
  const passed = (rule.deMinimis ?? []).find((test) => {
    if (test.months === undefined) return passes(test, totals, own, months(periods));
    return passes(test, together(lastMonths(around.periods, periods, test.months)), own, test.months);
  });
  const kept = rule.private && around.scheme.settings[rule.private.setting] === rule.private.value;
  return {
    percent,
    words: instead?.words ?? "",
    passed,
    levies: totals.taxes.map((tax) => {
      if (passed) return { ...tax, refused: 0, allowed: tax.withheld };
      const deducted = roundExact(timesPercent(tax.residual, percent));
      const privately = kept
        ? roundExact(timesPercent(tax.residual, exactFromDecimal(rule.private?.percent ?? "0")))
        : 0;
      return { ...tax, refused: tax.residual - deducted + privately, allowed: 0 };
    }),
  };
}

function months(periods: readonly AttributedPeriod[]): number {
  const [first, last] = [periods[0], periods.at(-1)];
  if (!first || !last) return 1;
  let count = 1;
  while (addMonths(addDays(last.to, 1), -count) > first.from) count += 1;
  return count;
}

/** The share that is deducted, as a percentage with the law's rounding; all where nothing is exempt. */
function percentOf({ ratio, rounding, full }: Attribution, totals: AttributedTotals, count: number): Exact {
  const [over, other] =
    ratio.of === "supplies"
      ? [totals.taxable, totals.exempt]
      : [sumOf(totals, "direct"), sumOf(totals, "exempt")];
  const whole = over + other;
  if (other <= 0 || whole <= 0) return exactFromInteger(100);
  const exact: Exact = { n: BigInt(Math.max(0, over)) * 100n, d: BigInt(whole) };
  const finer = rounding?.finer && sumOf(totals, "residual") > rounding.finer.above * count;
  const rounded = rounding ? roundedTo(exact, { ...rounding, ...(finer ? rounding.finer : {}) }) : exact;
  return full !== undefined && compare(rounded, exactFromDecimal(full)) >= 0
    ? exactFromInteger(100)
    : rounded;
}

function roundedTo(
  { n, d }: Exact,
  { mode, decimals }: Pick<NonNullable<Attribution["rounding"]>, "mode" | "decimals">,
): Exact {
  const scale = 10n ** BigInt(decimals);
  const whole = (n * scale) / d;
  const rest = (n * scale) % d;
  const more = mode === "up" ? rest > 0n : mode === "half-up" ? rest * 2n >= d : false;
  return { n: whole + (more ? 1n : 0n), d: scale };
}

function timesPercent(amount: number, { n, d }: Exact): Exact {
  return { n: BigInt(amount) * n, d: d * 100n };
}

function passes(test: DeMinimisTest, totals: AttributedTotals, percent: Exact, count: number): boolean {
  const [direct, exempt, residual] = [
    sumOf(totals, "direct"),
    sumOf(totals, "exempt"),
    sumOf(totals, "residual"),
  ];
  const exemptInput = exempt + residual - roundExact(timesPercent(residual, percent));
  const input = direct + exempt + residual;
  const measure = {
    input,
    "not-taxable-input": input - direct,
    "exempt-input": exemptInput,
    "exempt-supplies": totals.exempt,
  }[test.measure];
  const [part, whole] =
    test.shareOf === "supplies" ? [totals.exempt, totals.taxable + totals.exempt] : [exemptInput, input];
  const share = timesPercent(whole, exactFromDecimal(test.share));
  return measure <= test.aMonth * count && compare(exactFromInteger(part), share) <= 0;
}

/** Where nothing serves both: what the test compares, over its time. */
function windowSteps(
  { deMinimis = [] }: Attribution,
  around: AttributionAround,
  period: AttributedPeriod,
  { passed }: Share,
): SchemeStep[] {
  const show = (amount: number) => displayAmount(amount, around.digits);
  return deMinimis.map((test, index) => {
    const totals = together(lastMonths(around.periods, [period], test.months ?? 1));
    const [direct, exempt] = [sumOf(totals, "direct"), sumOf(totals, "exempt")];
    const whole = direct + exempt;
    const percent = whole <= 0 ? "0" : exactToText({ n: BigInt(exempt) * 100n, d: BigInt(whole) }, 2);
    return {
      id: `window-${index}-${period.to}`,
      words:
        passed === test
          ? `Deducted in full: ${test.says}.`
          : `Not deducted in full, for it is not so that ${test.says}.`,
      arithmetic: `${show(exempt)} of ${show(whole)} = ${percent} %`,
      amount: exempt,
    };
  });
}

function figureSteps(
  rule: Attribution,
  around: AttributionAround,
  period: AttributedPeriod,
  share: Share,
): SchemeStep[] {
  const { to, taxable, exempt } = period;
  const show = (amount: number) => displayAmount(amount, around.digits);
  const step = (id: string, words: string, amount: number, arithmetic = show(amount)): SchemeStep => ({
    id: `${id}-${to}`,
    words,
    arithmetic,
    amount,
  });
  if (rule.residual.length === 0) return windowSteps(rule, around, period, share);
  const totals = together([period]);
  const parts =
    rule.ratio.of === "supplies"
      ? `${show(taxable)} of ${show(taxable + exempt)}`
      : `${show(sumOf(totals, "direct"))} of ${show(sumOf(totals, "direct") + sumOf(totals, "exempt"))}`;
  const percent = exactToText(share.percent, 4);
  const shown = Number(percent) === 100 ? "100" : percent;
  return [
    step("taxable-supplies", "Taxable supplies, without tax.", taxable),
    step("exempt-supplies", "Exempt supplies.", exempt),
    step(
      "residual",
      `Tax on mixed use, of which ${shown} % is deducted${share.words === "" ? "" : `: the percentage ${share.words}`}.`,
      sumOf(totals, "residual"),
      share.words === "" ? `${parts}: ${shown} %` : `${shown} %`,
    ),
    ...(share.passed
      ? [
          step(
            "de-minimis",
            `Little enough is exempt, all is deducted: ${share.passed.says}.`,
            sumOf(totals, "exempt"),
          ),
        ]
      : []),
  ];
}

function levySteps(
  { boxes }: Attribution,
  { digits }: AttributionAround,
  end: CalendarDate,
  { levies, percent }: Share,
): SchemeStep[] {
  const show = (amount: number) => displayAmount(amount, digits);
  return levies.flatMap(({ levy, residual, refused, allowed }) => {
    const of = boxes[levy];
    if (!of) return [];
    return [
      ...signed(of.refused, refused, {
        id: `refused-${levy}-${end}`,
        words: `${levy} on mixed use that is not deducted.`,
        arithmetic: `${show(residual)} less ${exactToText(percent, 4)} % of it = ${show(refused)}`,
      }),
      ...signed(of.allowed, allowed, {
        id: `allowed-${levy}-${end}`,
        words: `${levy} on what serves exempt supplies, deducted after all.`,
        arithmetic: show(allowed),
      }),
    ];
  });
}

function signed(
  { box, sign }: SignedBox,
  amount: number,
  step: Pick<SchemeStep, "id" | "words" | "arithmetic">,
): SchemeStep[] {
  return amount === 0 ? [] : [{ ...step, box, amount: sign * amount }];
}

/** The tax year worked out as a whole, less what its periods deducted. */
function yearSteps(
  rule: Attribution,
  around: AttributionAround,
  end: CalendarDate,
  periods: readonly AttributedPeriod[],
): SchemeResult {
  const show = (amount: number) => displayAmount(amount, around.digits);
  const year = shareOf(rule, around, periods, undefined);
  const each = periods.map((period) => shareOf(rule, around, [period], instead(rule, around, period)));
  const steps: SchemeStep[] = [];
  let owed = 0;
  for (const { levy, residual, refused, allowed } of year.levies) {
    const deducted = residual - refused + allowed;
    const before = each
      .flatMap(({ levies }) => levies.filter((one) => one.levy === levy))
      .reduce((sum, one) => sum + one.residual - one.refused + one.allowed, 0);
    const difference = deducted - before;
    const of: AttributionBoxes | undefined = rule.boxes[levy];
    if (!of || difference === 0) continue;
    const last = periods.at(-1)?.to ?? end;
    steps.push(
      ...signed(difference > 0 ? of.more : of.less, Math.abs(difference), {
        id: `year-${levy}-${end}`,
        words: `Adjustment of the tax year to ${displayDate(last)}: ${year.passed ? `all is deducted, ${year.passed.says}` : `${exactToText(year.percent, 4)} % of mixed use`}.`,
        arithmetic: `${show(deducted)} of the year − ${show(before)} of its returns = ${show(difference)}`,
      }),
    );
    owed -= difference;
  }
  return { steps, owed };
}
