import Holidays from "date-holidays";
import { partsOf } from "@fiscalon/core/calendar/date";
import { dueDate, dueRuleFor, payDate, workingDay } from "@fiscalon/core/calendar/dueDate";
import type { DueRule, FreeDays } from "@fiscalon/core/calendar/dueDate";
import { rhythmOn } from "@fiscalon/core/calendar/filingPeriods";
import { optionsOn } from "@fiscalon/core/model/registration";
import type { HolidayCalendar } from "@fiscalon/core/model/pack";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { periodRule } from "./periodRule.ts";

const WEEKEND = [0, 6];

/** When the return is due, and by when the money must be there. */
export function dueDates(
  { packs }: Pick<Work, "packs">,
  r: RegistrationRecord,
  periodEnd: string,
): { due: string; payBy: string } {
  const pack = packs.byId(r.pack);
  const rule = dueRuleOf({ packs }, r, periodEnd);
  if (!rule) return { due: periodEnd, payBy: periodEnd };
  const day = dueDate(rule, periodEnd);
  const free = freeDays(pack.holidays, day);
  const due = workingDay(day, rule.shift, free);
  const payDay = payDate(rule, periodEnd);
  if (payDay === day && rule.payShift === undefined) return { due, payBy: due };
  return { due, payBy: workingDay(payDay, rule.payShift ?? rule.shift, freeDays(pack.holidays, payDay)) };
}

/** Further days that belong to a period: of statements and deposits beside the return, in order of time. */
export function furtherDays(
  { packs }: Pick<Work, "packs">,
  r: RegistrationRecord,
  periodEnd: string,
): { name: string; due: string; source: string }[] {
  const pack = packs.byId(r.pack);
  const options = optionsOn(pack, r, periodEnd);
  const { frequency } = rhythmOn(periodRule(r), periodEnd);
  return (pack.furtherDays ?? [])
    .filter(({ frequencies }) => frequencies?.includes(frequency) ?? true)
    .filter(({ option }) => option === undefined || options[option[0]] === option[1])
    .map(({ name, months, day, shift, source }) => {
      const on = dueDate({ months, day, shift, source }, periodEnd);
      return { name, due: workingDay(on, shift, freeDays(pack.holidays, on)), source };
    })
    .sort((a, b) => (a.due < b.due ? -1 : 1));
}

/** The day by rules of its own that something is due which belongs to months up to a day. */
export function dueDayBy(
  { packs, r }: { packs: Work["packs"]; r: RegistrationRecord },
  rules: readonly DueRule[],
  to: string,
): string {
  const pack = packs.byId(r.pack);
  const { frequency } = rhythmOn(periodRule(r), to);
  const rule = dueRuleFor(rules, {
    periodEnd: to,
    frequency,
    levies: r.levies,
    options: optionsOn(pack, r, to),
  });
  if (!rule) return to;
  const day = dueDate(rule, to);
  return workingDay(day, rule.shift, freeDays(pack.holidays, day));
}

/** The rule that says when the return of a period is due. */
export function dueRuleOf(
  { packs }: Pick<Work, "packs">,
  r: RegistrationRecord,
  periodEnd: string,
): DueRule | undefined {
  const pack = packs.byId(r.pack);
  return dueRuleFor(pack.due, {
    periodEnd,
    frequency: rhythmOn(periodRule(r), periodEnd).frequency,
    levies: r.levies,
    options: optionsOn(pack, r, periodEnd),
    region: r.region ?? undefined,
  });
}

/** Weekends and holidays around a day; a shift may reach into the next year. */
function freeDays(calendar: HolidayCalendar, day: string): FreeDays {
  const { year } = partsOf(day);
  const other = calendar.weekendUntil;
  return {
    weekend: other && day <= other.day ? other.weekdays : WEEKEND,
    holidays: new Set([...holidaysOf(calendar, year), ...holidaysOf(calendar, year + 1)]),
  };
}

const years = new Map<string, ReadonlySet<string>>();

function holidaysOf(calendar: HolidayCalendar, year: number): ReadonlySet<string> {
  const key = `${JSON.stringify(calendar)} ${year}`;
  const known = years.get(key);
  if (known) return known;
  const regions = calendar.regions ?? [undefined];
  const days = new Set(regions.flatMap((region) => daysIn(calendar, region, year)));
  years.set(key, days);
  return days;
}

/** Public and bank holidays of a year; one that falls on a weekend also counts on the day it is observed. */
function daysIn(calendar: HolidayCalendar, region: string | undefined, year: number): string[] {
  const holidays =
    region === undefined ? new Holidays(calendar.country) : new Holidays(calendar.country, region);
  for (const rule of calendar.extra ?? []) holidays.setHoliday(rule, { name: rule, type: "public" });
  return holidays
    .getHolidays(year)
    .filter((day) => day.type === "public" || day.type === "bank")
    .map((day) => day.date.slice(0, 10));
}
