import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { at } from "@fiscalon/core/at";
import {
  addDays,
  addMonths,
  dateOf,
  daysBetween,
  daysInMonth,
  endOfMonth,
  isCalendarDate,
  partsOf,
  requireDate,
  weekday,
} from "@fiscalon/core/calendar/date";
import { filingPeriodOn, filingPeriods, MONTHS_OF } from "@fiscalon/core/calendar/filingPeriods";
import type { Frequency, PeriodRule } from "@fiscalon/core/calendar/filingPeriods";
import { assignPeriod } from "@fiscalon/core/facts/assignPeriod";

/** Days since 1970 as the platform's own calendar has them, in UTC: the outside check of ours. */
const platform = (days: number) => new Date(days * 86_400_000);
const iso = (date: Date) => date.toISOString().slice(0, 10);
const anyDay = fc.integer({ min: -25_000, max: 47_000 });

describe("dates against the platform's own calendar", () => {
  test("days on, weekdays, parts, ends of months and what lies between", () => {
    fc.assert(
      fc.property(anyDay, fc.integer({ min: -4000, max: 4000 }), (day, on) => {
        const [date, later] = [platform(day), platform(day + on)];
        expect(addDays(iso(date), on)).toBe(iso(later));
        expect(daysBetween(iso(date), iso(later))).toBe(on);
        expect(weekday(iso(date))).toBe(date.getUTCDay());
        const { year, month, day: of } = partsOf(iso(date));
        expect([year, month, of]).toEqual([date.getUTCFullYear(), date.getUTCMonth() + 1, date.getUTCDate()]);
        expect(dateOf(year, month, of)).toBe(iso(date));
        const last = new Date(Date.UTC(year, month, 0));
        expect([endOfMonth(iso(date)), daysInMonth(year, month)]).toEqual([iso(last), last.getUTCDate()]);
      }),
      { numRuns: 1500 },
    );
  });

  test("months on are held back to the end of a shorter month, and never further", () => {
    fc.assert(
      fc.property(anyDay, fc.integer({ min: -60, max: 60 }), (day, months) => {
        const date = iso(platform(day));
        const { year, month, day: of } = partsOf(date);
        const first = new Date(Date.UTC(year, month - 1 + months, 1));
        const longest = daysInMonth(first.getUTCFullYear(), first.getUTCMonth() + 1);
        const expected = iso(
          new Date(Date.UTC(first.getUTCFullYear(), first.getUTCMonth(), Math.min(of, longest))),
        );
        expect(addMonths(date, months)).toBe(expected);
      }),
      { numRuns: 800 },
    );
  });

  test.each([
    ["2024-02-29", true],
    ["2026-02-29", false],
    ["2000-02-29", true],
    ["1900-02-29", false],
    ["2026-04-31", false],
    ["2026-13-01", false],
    ["2026-00-10", false],
    ["2026-1-1", false],
    ["26-01-01", false],
    ["2026-01-01T00:00", false],
    ["", false],
  ])("%s exists: %s", (text, exists) => {
    expect(isCalendarDate(text)).toBe(exists);
    if (exists) expect(requireDate(text)).toBe(text);
    else expect(() => requireDate(text, "date")).toThrow(/is not a date/);
  });

  test("parts out of range roll over", () => {
    expect([dateOf(2026, 1, 32), dateOf(2026, 14, 1), dateOf(2026, 3, 0)]).toEqual([
      "2026-02-01",
      "2027-02-01",
      "2026-02-28",
    ]);
  });
});

const frequency = fc.constantFrom(...(Object.keys(MONTHS_OF) as Frequency[]));
const monthEnd = fc.integer({ min: 0, max: 35 }).map((months) => endOfMonth(addMonths("2024-01-15", months)));
const start = fc.integer({ min: 0, max: 900 }).map((days) => addDays("2023-06-10", days));

/** A registration: its first rhythm, changes of it in order of time, and perhaps an end. */
const anyRule: fc.Arbitrary<PeriodRule> = fc
  .record({
    frequency,
    anchor: monthEnd,
    from: start,
    ends: fc.option(fc.integer({ min: 0, max: 1500 }), { nil: null }),
    changes: fc.array(fc.record({ after: fc.integer({ min: 1, max: 500 }), frequency, anchor: monthEnd }), {
      maxLength: 3,
    }),
  })
  .map(({ ends, changes, from, ...rest }) => {
    let last = from;
    const dated = changes.map(({ after, ...change }) => {
      last = addDays(last, after);
      return { from: last, ...change };
    });
    return { ...rest, from, changes: dated, to: ends === null ? null : addDays(last, ends) };
  });

describe("filing periods", () => {
  test("follow each other without gap or overlap, from the first day of the registration to its last", () => {
    fc.assert(
      fc.property(anyRule, (rule) => {
        const until = rule.to ?? addMonths(rule.from, 60);
        const periods = filingPeriods(rule, rule.from, until);
        expect(at(periods, 0).from).toBe(rule.from);
        periods.forEach(({ from, to }, index) => {
          expect(from <= to).toBe(true);
          const next = periods[index + 1];
          if (next) expect(next.from).toBe(addDays(to, 1));
          else expect(to >= until).toBe(true);
        });
        if (rule.to !== null) expect(periods.at(-1)?.to).toBe(rule.to);
      }),
      { numRuns: 500 },
    );
  });

  test("end with a month of the rhythm, a change of it, or the registration; a whole one is as long as its rhythm", () => {
    fc.assert(
      fc.property(anyRule, (rule) => {
        const cuts = new Set([rule.to, ...(rule.changes ?? []).map(({ from }) => addDays(from, -1))]);
        const begins = new Set([rule.from, ...(rule.changes ?? []).map(({ from }) => from)]);
        for (const { from, to } of filingPeriods(rule, rule.from, rule.to ?? addMonths(rule.from, 48))) {
          if (cuts.has(to)) continue;
          expect(to).toBe(endOfMonth(to));
          const now = (rule.changes ?? []).findLast((change) => change.from <= from) ?? rule;
          const months = MONTHS_OF[now.frequency];
          const [end, anchor] = [partsOf(to), partsOf(now.anchor)];
          expect((end.year * 12 + end.month - anchor.year * 12 - anchor.month) % months === 0).toBe(true);
          if (!begins.has(from))
            expect(from).toBe(addDays(endOfMonth(addMonths(dateOf(end.year, end.month, 1), -months)), 1));
        }
      }),
      { numRuns: 500 },
    );
  });

  test("of a day holds that day; outside the registration there is none", () => {
    fc.assert(
      fc.property(anyRule, fc.integer({ min: -200, max: 2500 }), (rule, days) => {
        const day = addDays(rule.from, days);
        const period = filingPeriodOn(rule, day);
        const inForce = days >= 0 && (rule.to === null || day <= rule.to);
        expect(period !== undefined).toBe(inForce);
        if (period) {
          expect(period.from <= day && day <= period.to).toBe(true);
          expect(filingPeriodOn(rule, period.from)).toEqual(period);
          expect(filingPeriodOn(rule, period.to)).toEqual(period);
        }
      }),
      { numRuns: 800 },
    );
  });

  test("a fact is reported in its own period, or where that is sealed in the next that is not, and says so", () => {
    fc.assert(
      fc.property(anyRule, fc.nat(1500), fc.array(fc.nat(12), { maxLength: 8 }), (rule, days, picks) => {
        const day = addDays(rule.from, days);
        const periods = filingPeriods(rule, rule.from, addMonths(day, 60));
        const sealed = new Set(picks.flatMap((pick) => periods[pick]?.to ?? []));
        const assigned = assignPeriod(rule, day, sealed);
        const own = filingPeriodOn(rule, day);
        if (!assigned) {
          const open = periods.filter(
            ({ from, to }) => own !== undefined && from >= own.from && !sealed.has(to),
          );
          expect(own === undefined || open.length === 0).toBe(true);
          return;
        }
        expect(assigned.own).toEqual(own);
        expect(sealed.has(assigned.reported.to)).toBe(false);
        expect(assigned.late).toBe(assigned.reported.to !== assigned.own.to);
        const between = periods.filter(
          ({ from, to }) => from >= assigned.own.from && to < assigned.reported.from,
        );
        for (const { to } of between) expect(sealed.has(to)).toBe(true);
      }),
      { numRuns: 500 },
    );
  });
});
