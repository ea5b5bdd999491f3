import { displayDate } from "../calendar/displayDate.ts";
import { addDays } from "../calendar/date.ts";
import type { CalendarDate } from "../calendar/date.ts";
import { FiscalError } from "../errors.ts";
import type { CodeAtRate, RateChangeRule, RateMove } from "../model/rateChange.ts";
import type { RateSchedules, SupplyKind, TaxCode } from "../model/taxCode.ts";

/** A day from which a rate is another one. */
export interface RateChange {
  schedule: string;
  on: CalendarDate;
  before: string;
  after: string;
}

/** The change of a code's rates nearest to a day, `days` before or after it at most. */
export function rateChangeNear(
  { components }: Pick<TaxCode, "components">,
  schedules: RateSchedules,
  day: CalendarDate,
  days: number,
): RateChange | undefined {
  const [from, to] = [addDays(day, -days), addDays(day, days)];
  for (const { rate } of components) {
    if (rate.kind !== "percent") continue;
    const rows = [...(schedules[rate.schedule] ?? [])].sort((a, b) => (a.from < b.from ? -1 : 1));
    for (const [index, row] of rows.entries()) {
      const last = rows[index - 1];
      if (!last || last.rate === row.rate || row.from < from || row.from > to) continue;
      return { schedule: rate.schedule, on: row.from, before: last.rate, after: row.rate };
    }
  }
  return undefined;
}

/** A day close to a supply on which its code may have been another one: which, before it or from it on. */
export interface MoveNear {
  on: CalendarDate;
  own: CodeAtRate;
  /** Whether the supply's own code is that of before the day. */
  isOld: boolean;
  others: readonly CodeAtRate[];
}

/** The moves between codes that a supply with a code may be touched by, `days` before or after its day at most. */
export function moveNear(
  code: string,
  moves: readonly RateMove[],
  day: CalendarDate,
  days: number,
): MoveNear | undefined {
  const [from, to] = [addDays(day, -days), addDays(day, days)];
  const near = moves.filter(({ on }) => from <= on && on <= to);
  const left =
    near.find(({ before, on }) => before.code === code && day < on) ??
    near.find(({ before }) => before.code === code);
  const came = near.flatMap(({ on, before, after }) =>
    after.filter((one) => one.code === code).map((own) => ({ on, own, other: before })),
  );
  const [first] = came;
  if (left && (day < left.on || !first))
    return { on: left.on, own: left.before, isOld: true, others: left.after };
  if (!first || day < first.on) return undefined;
  return { on: first.on, own: first.own, isOld: false, others: came.map(({ other }) => other) };
}

/** Which rule of a law is about a supply. */
export function rateChangeRule(
  rules: readonly RateChangeRule[] | undefined,
  supply: SupplyKind | "",
): RateChangeRule | undefined {
  return rules?.find((rule) => rule.supply === undefined || rule.supply === supply);
}

/** A part of a supply with the day whose rate it bears, and why. Amounts in minor units. */
export interface RatePart {
  amount: number;
  rateOn: CalendarDate;
  why: string;
}

/**
 * The parts of a supply on both sides of a change of rate.
 * @param amount the price of the line; `delivered` and `paid`: how much of it before the change, all in minor units
 * @returns the part at the old rate and the part at the new one; only one where nothing is left for the other
 * @throws FiscalError `tax/rate-parts` where more is delivered or paid than there is
 */
export function rateParts(
  rule: RateChangeRule,
  { on, before, after }: RateChange,
  supply: { amount: number; invoiced: CalendarDate; delivered: number; paid: number },
): RatePart[] {
  const { amount, invoiced, delivered, paid } = supply;
  for (const [field, part] of Object.entries({ delivered, paid })) {
    if (part >= 0 && part <= amount) continue;
    throw new FiscalError(
      "tax/rate-parts",
      "Before the change at most the whole price can be delivered or paid. Type it without a sign.",
      field,
    );
  }
  const share = invoiced < on ? rule.invoicedBefore : rule.invoicedAfter;
  const old = {
    all: amount,
    delivered,
    paid,
    higher: Math.max(delivered, paid),
    lower: Math.min(delivered, paid),
  }[share];
  const why = `${rule.says} (${rule.source})`;
  return [
    { amount: old, rateOn: addDays(on, -1), why: `${before} %, the rate before ${displayDate(on)}: ${why}` },
    { amount: amount - old, rateOn: on, why: `${after} %, the rate from ${displayDate(on)}: ${why}` },
  ].filter((part) => part.amount !== 0);
}
