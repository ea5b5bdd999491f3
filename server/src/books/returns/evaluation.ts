import { addDays } from "@fiscalon/core/calendar/date";
import { filingPeriodOn } from "@fiscalon/core/calendar/filingPeriods";
import type { FilingPeriod } from "@fiscalon/core/calendar/filingPeriods";
import { formOfRegistration } from "@fiscalon/core/returns/formOn";
import { minorDigits } from "@fiscalon/core/money/currency";
import { evaluateReturn } from "@fiscalon/core/returns/evaluateReturn";
import { figuresOfReturn } from "@fiscalon/core/returns/returnFigures";
import type {
  Adjustment,
  BoxResult,
  EvaluationContext,
  FactGroup,
} from "@fiscalon/core/returns/evaluateReturn";
import type { ReturnFigures } from "@fiscalon/core/returns/returnFigures";
import type { ReturnForm } from "@fiscalon/core/model/returnForm";
import type { RateSchedules } from "@fiscalon/core/model/taxCode";
import type { SchemeStep } from "@fiscalon/core/model/scheme";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { adjustmentsOf } from "./queries.ts";
import { openingBoxes } from "./openingFigures.ts";
import { periodRule } from "./periodRule.ts";
import { returnRecord } from "./records.ts";
import { schedulesOf } from "./schedules.ts";
import { contentOfPeriod } from "./schemes.ts";
import type { ReturnContent } from "./schemes.ts";

/** The version of the form that a registration files for a period. */
export function formOf({ packs }: Work, r: RegistrationRecord, periodEnd: string): ReturnForm {
  const { levies, options, changes } = r;
  return formOfRegistration(packs.byId(r.pack), { ...periodRule(r), levies, options, changes }, periodEnd);
}

export function digitsOf({ packs }: Work, r: RegistrationRecord): number {
  return minorDigits(packs.byId(r.pack).currency);
}

/** What a return is made of. */
export interface PeriodContent {
  groups: readonly FactGroup[];
  adjustments: readonly Adjustment[];
  previous?: ReadonlyMap<string, number> | undefined;
  steps?: readonly SchemeStep[];
}

/** The boxes of a period's content on a registration's form. */
export function evaluated(
  work: Work,
  schedules: RateSchedules,
  r: RegistrationRecord,
  periodEnd: string,
  { groups, adjustments, previous, steps }: PeriodContent,
): BoxResult[] {
  const context: EvaluationContext = {
    digits: digitsOf(work, r),
    on: periodEnd,
    schedules,
    ...(previous ? { previous } : {}),
    ...(steps ? { steps } : {}),
  };
  return evaluateReturn(formOf(work, r, periodEnd), groups, adjustments, context);
}

/** What boxes come to on a registration's form, in minor units. */
export function figuresOf(
  work: Work,
  r: RegistrationRecord,
  periodEnd: string,
  boxes: readonly Pick<BoxResult, "box" | "amount">[],
): ReturnFigures {
  return figuresOfReturn(formOf(work, r, periodEnd), boxes, digitsOf(work, r));
}

/** The boxes of a period as they would be declared now. */
export async function boxesNow(
  work: Work,
  r: RegistrationRecord,
  periodEnd: string,
): Promise<{ form: ReturnForm; boxes: BoxResult[]; factCount: number; content: ReturnContent }> {
  const adjustments = await adjustmentsOf(work, r.id, periodEnd);
  const form = formOf(work, r, periodEnd);
  const period = filingPeriodOn(periodRule(r), periodEnd);
  const previous = period ? await carriedInto(work, r, form, period.from) : undefined;
  const content = await contentOfPeriod(work, r, periodEnd);
  return {
    form,
    boxes: evaluated(work, await schedulesOf(work, r), r, periodEnd, { ...content, adjustments, previous }),
    factCount: content.all.reduce((sum, group) => sum + group.count, 0),
    content,
  };
}

/**
 * The boxes of the period before `from`, sealed or as they stand, where the form carries something over. Before there is
 * anything in the books: what the registration brought in.
 */
export async function carriedInto(
  work: Work,
  r: RegistrationRecord,
  form: ReturnForm,
  from: string,
): Promise<ReadonlyMap<string, number> | undefined> {
  if (!form.boxes.some((box) => box.kind === "carried")) return undefined;
  const before = await usedPeriodBefore(work, r, from);
  if (!before) return openingBoxes(form, r.opening, digitsOf(work, r));
  const sealed = (await returnRecord(work, r.id, before.to))?.boxes;
  const boxes = sealed ?? (await boxesNow(work, r, before.to)).boxes;
  return new Map(boxes.map((box) => [box.box, box.amount]));
}

/** The filing period before `from`, where the books hold something up to its end. */
export async function usedPeriodBefore(
  work: Work,
  r: RegistrationRecord,
  from: string,
): Promise<FilingPeriod | undefined> {
  const before = filingPeriodOn(periodRule(r), addDays(from, -1));
  if (!before) return undefined;
  const used = await work.row(
    `SELECT 1 FROM facts WHERE registration_id = $1 AND live = 1 AND period_end <= $2
     UNION ALL SELECT 1 FROM returns WHERE registration_id = $1 AND period_end = $2 AND boxes IS NOT NULL LIMIT 1`,
    [r.id, before.to],
  );
  return used ? before : undefined;
}
