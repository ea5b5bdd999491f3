import { addDays, addMonths } from "@fiscalon/core/calendar/date";
import { schemeOn } from "@fiscalon/core/model/scheme";
import type { SchemeCourse } from "@fiscalon/contract/schemeView";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { attributedPeriods } from "./attributionOnReturn.ts";
import { poolPeriods } from "./poolOnReturn.ts";
import type { SchemeOnReturn } from "./schemeOnReturn.ts";

/** How far back a course goes from the end of a period, months. */
const BACK = 12;
const PERCENT = 10_000;

/**
 * How what a scheme goes by has run over the last year: the share of exempt supplies where tax is shared, the margin of a
 * pool. Null where there is nothing to look at.
 */
export async function schemeCourse(
  work: Work,
  r: RegistrationRecord,
  { definition: { rule }, spans }: SchemeOnReturn,
  end: string,
): Promise<SchemeCourse | null> {
  const span = schemeOn(spans, end);
  if (!span) return null;
  const year = addMonths(addDays(end, 1), -BACK);
  const from = year < span.from ? span.from : year;
  if (rule.kind === "attribution" && rule.ratio.taxable.length > 0) {
    const periods = await attributedPeriods(work, r, rule, from, end);
    return {
      title: "Share of exempt supplies",
      unit: "percent",
      points: periods.map(({ from: start, to, taxable, exempt }) => ({
        from: start,
        to,
        value: taxable + exempt > 0 ? Math.round((exempt * PERCENT) / (taxable + exempt)) : 0,
      })),
    };
  }
  if (rule.kind !== "margin-pool") return null;
  const periods = await poolPeriods(work, r, rule, from, end);
  return {
    title: "Margin of the pool",
    unit: "amount",
    points: periods.map(({ from: start, to, sold, bought }) => ({ from: start, to, value: sold - bought })),
  };
}
