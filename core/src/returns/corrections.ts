import { displayDate } from "../calendar/displayDate.ts";
import { at } from "../at.ts";
import { addMonths } from "../calendar/date.ts";
import type { CalendarDate } from "../calendar/date.ts";
import type {
  CorrectionPlace,
  CorrectionRule,
  CorrectionTest,
  LateGroup,
  LateKind,
} from "../model/correction.ts";
import { groupBy } from "../groupBy.ts";
import { displayAmount } from "../money/amount.ts";
import { exactFromDecimal } from "../money/exact.ts";
import { lastDayOf, limitInWords } from "../model/timeLimit.ts";

/** What the rule is asked with: this return, and what is known of earlier ones. Amounts in minor units. */
export interface CorrectionContext {
  rule: CorrectionRule;
  digits: number;
  /** The end of this period, and the day its return is due. */
  end: CalendarDate;
  due: CalendarDate;
  /** When the return of an earlier period was due. */
  dueOf: (period: CalendarDate) => CalendarDate;
  /** A box of this return. */
  box: (id: string) => number;
  /** A box of an earlier return as it was filed. */
  boxOf: (period: CalendarDate, id: string) => number;
  options: Readonly<Record<string, string>>;
}

/**
 * What becomes of items of earlier periods that count together.
 * - `kind`: all of them; `error` where errors of judgement are among others.
 * - `stops`: they are not simply on this return, so somebody has to look. `tooLate`: their time is over.
 */
export interface CorrectionAnswer {
  periods: readonly CalendarDate[];
  kind: LateKind;
  count: number;
  output: number;
  input: number;
  way: CorrectionPlace;
  says: string;
  reason: string;
  source: string;
  stops: boolean;
  tooLate: boolean;
}

/** What is claimed late, or changes a price, is no error. */
const ORDINARY: readonly LateKind[] = ["late-claim", "credit-note"];

/**
 * Applies the authority's rule to everything of earlier periods on a return: claims and changes of price are ordinary
 * inside their time; deliberate errors are looked at apart; the others together, as the rule counts them.
 * @returns an answer for each set of items that counts together, in order of time
 * @source engine.md §8; the law is named in the rule
 */
export function corrections(groups: readonly LateGroup[], context: CorrectionContext): CorrectionAnswer[] {
  const { rule } = context;
  const ordinary = groups.filter(({ kind }) => isOrdinary(kind, rule));
  const deliberate = groups.filter(({ kind }) => kind === "deliberate");
  const others = groups.filter((one) => !ordinary.includes(one) && !deliberate.includes(one));
  return [
    ...ordinary.map((group) => ordinaryAnswer(group, context)),
    ...[...unitsOf(deliberate, context), ...unitsOf(others, context)].map((unit) => answer(unit, context)),
  ];
}

function isOrdinary(kind: LateKind, rule: CorrectionRule): boolean {
  return ORDINARY.includes(kind) && (kind !== "late-claim" || rule.claims !== undefined);
}

function ordinaryAnswer(group: LateGroup, context: CorrectionContext): CorrectionAnswer {
  const { rule, end, due } = context;
  const head = headOf([group]);
  const limit = group.kind === "late-claim" && rule.claims ? rule.claims.limit : rule.limit;
  const source = group.kind === "late-claim" && rule.claims ? rule.claims.source : rule.source;
  const last = lastDayOf(limit, itemOf(group, context));
  const now = "from" in limit && limit.from === "own-due" ? due : end;
  const what = group.kind === "late-claim" ? "claim" : "change of price";
  if (now <= last) {
    return {
      ...head,
      way: "on-return",
      says: `an ordinary ${what} on this return`,
      reason: `${limitInWords(limit)}, to ${displayDate(last)}`,
      source,
      stops: false,
      tooLate: false,
    };
  }
  const reasonAsked = group.kind === "late-claim" && rule.claims?.after === "reason";
  return {
    ...head,
    way: reasonAsked ? "on-return" : "amend",
    says: reasonAsked
      ? "on this return only with a reason the law accepts"
      : "too late: it can be put right no more",
    reason: `the last day was ${displayDate(last)}, ${limitInWords(limit)}`,
    source,
    stops: true,
    tooLate: true,
  };
}

/** Errors that count together: of one period or all, both ways or one, and of those inside the same months. */
function unitsOf(groups: readonly LateGroup[], context: CorrectionContext): LateGroup[][] {
  const { rule, end, dueOf } = context;
  const ages = rule.cases.flatMap(({ when }) =>
    when.months === undefined || !holdsOption(when, context) ? [] : [when.months],
  );
  const keyOf = (group: LateGroup) =>
    [
      rule.per === "period" ? group.period : "",
      rule.counts === "each-way" ? Math.sign(owedOf(group)) : "",
      ...ages.map((months) => end <= addMonths(dueOf(group.period), months)),
      end <= lastDayOf(rule.limit, itemOf(group, context)),
    ].join(" ");
  return [...groupBy(groups, keyOf).values()];
}

function answer(unit: readonly LateGroup[], context: CorrectionContext): CorrectionAnswer {
  const { rule, end } = context;
  const head = headOf(unit);
  const last = lastDayOf(rule.limit, itemOf(at(unit, 0), context));
  if (end > last) {
    return {
      ...head,
      way: "amend",
      says: "too late: it can be put right no more",
      reason: `the last day was ${displayDate(last)}, ${limitInWords(rule.limit)}`,
      source: rule.source,
      stops: true,
      tooLate: true,
    };
  }
  const failed: string[] = [];
  for (const one of rule.cases) {
    const checks = tested(one.when, unit, context);
    const missed = checks.find(({ holds }) => !holds);
    if (missed) {
      if (missed.says !== "") failed.push(missed.says);
      continue;
    }
    const passed = checks.map(({ says }) => says).filter((says) => says !== "");
    const reason = [...new Set(passed.length > 0 ? passed : failed)].join("; ");
    const { way, says, source = rule.source } = one;
    return { ...head, way, says, reason, source, stops: way !== "on-return", tooLate: false };
  }
  throw new RangeError("The last case of a rule for corrections must have no test.");
}

interface Check {
  holds: boolean;
  /** With figures, as it holds or fails; empty where it only chooses the case. */
  says: string;
}

function tested(when: CorrectionTest, unit: readonly LateGroup[], context: CorrectionContext): Check[] {
  const { digits, end, dueOf, box, boxOf } = context;
  const shown = (amount: number) => displayAmount(amount, digits);
  const owed = unit.reduce((sum, group) => sum + owedOf(group), 0);
  const error = Math.abs(owed);
  const { kinds, upTo, below, share, months, values } = when;
  const checks: Check[] = [
    { holds: holdsOption(when, context), says: "" },
    { holds: kinds === undefined || unit.every(({ kind }) => kinds.includes(kind)), says: "" },
    { holds: when.owed === undefined || (when.owed === "by" ? owed >= 0 : owed < 0), says: "" },
  ];
  if (upTo !== undefined) {
    const holds = error <= upTo;
    checks.push({ holds, says: `${shown(error)} is ${holds ? "within" : "above"} ${shown(upTo)}` });
  }
  if (below !== undefined) {
    const holds = error < below;
    checks.push({ holds, says: `${shown(error)} is ${holds ? "" : "not "}below ${shown(below)}` });
  }
  if (share) {
    const most = shareOf(share.percent, box(share.box), digits);
    const { ceiling = Number.POSITIVE_INFINITY } = share;
    const inShare = within(error, share.percent, box(share.box));
    const up = `${share.percent} % of box ${share.box} (${most})`;
    const and = share.ceiling === undefined ? "" : ` and ${shown(share.ceiling)}`;
    const missed = inShare ? shown(ceiling) : up;
    const holds = inShare && error <= ceiling;
    checks.push({ holds, says: `${shown(error)} is ${holds ? `within ${up}${and}` : `above ${missed}`}` });
  }
  if (months !== undefined) {
    const due = unit.map(({ period }) => dueOf(period)).sort()[0] ?? end;
    const holds = end <= addMonths(due, months);
    checks.push({
      holds,
      says: `the return was due on ${displayDate(due)}, ${holds ? "not more than" : "more than"} ${months} months before`,
    });
  }
  if (values) {
    for (const [period, groups] of groupBy(unit, (group) => group.period)) {
      const wrong = groups.reduce((sum, group) => sum + group.values, 0);
      const used = boxOf(period, values.box) === 0 && values.orBox ? values.orBox : values.box;
      const holds = within(wrong, values.percent, boxOf(period, used));
      checks.push({
        holds,
        says: `values of ${shown(wrong)} in the period to ${displayDate(period)} are ${holds ? "within" : "above"} ${values.percent} % of box ${used} (${shareOf(values.percent, boxOf(period, used), digits)})`,
      });
    }
  }
  return checks;
}

function holdsOption({ option }: CorrectionTest, { options }: CorrectionContext): boolean {
  return option === undefined || options[option[0]] === option[1];
}

function within(amount: number, percent: string, of: number): boolean {
  const share = exactFromDecimal(percent);
  return BigInt(amount) * share.d * 100n <= BigInt(Math.abs(of)) * share.n;
}

/** A percentage of a box for a sentence, cut to the minor unit: what is above the figure shown is above the share. */
function shareOf(percent: string, of: number, digits: number): string {
  const share = exactFromDecimal(percent);
  return displayAmount(Number((BigInt(Math.abs(of)) * share.n) / (share.d * 100n)), digits);
}

function owedOf({ output, input }: LateGroup): number {
  return output - input;
}

function headOf(unit: readonly LateGroup[]) {
  const sum = (of: (group: LateGroup) => number) => unit.reduce((total, group) => total + of(group), 0);
  const kinds = new Set(unit.map(({ kind }) => kind));
  return {
    periods: [...new Set(unit.map(({ period }) => period))].sort(),
    kind: kinds.size === 1 ? at(unit, 0).kind : ("error" as const),
    count: sum(({ count }) => count),
    output: sum(({ output }) => output),
    input: sum(({ input }) => input),
  };
}

function itemOf(group: LateGroup, { dueOf }: CorrectionContext) {
  return { period: group.period, due: dueOf(group.period), document: group.oldest };
}
