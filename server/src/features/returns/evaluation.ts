import { addDays } from "@fiscalon/core/calendar/date";
import { filingPeriodOn } from "@fiscalon/core/calendar/filingPeriods";
import { formOn, packById } from "@fiscalon/core/jurisdictions/packs";
import { minorDigits } from "@fiscalon/core/money/currency";
import { evaluateReturn, figuresOfReturn } from "@fiscalon/core/returns/evaluateReturn";
import type {
  Adjustment,
  BoxResult,
  EvaluationContext,
  FactGroup,
  ReturnFigures,
} from "@fiscalon/core/returns/evaluateReturn";
import type { ReturnForm } from "@fiscalon/core/returns/returnForm";
import type { Database, Tx } from "../../db/database.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { adjustmentsOf, factGroups } from "./queries.ts";
import { periodRule } from "./periodRule.ts";
import { returnRecord } from "./records.ts";

/** The version of the form that a registration files for a period. */
export function formOf(r: RegistrationRecord, periodEnd: string): ReturnForm {
  return formOn(packById(r.pack), periodEnd, { levies: r.levies, options: r.options });
}

export function digitsOf(r: RegistrationRecord): number {
  return minorDigits(packById(r.pack).currency);
}

/** The boxes of these facts and adjustments on a registration's form. */
export function evaluated(
  r: RegistrationRecord,
  periodEnd: string,
  groups: readonly FactGroup[],
  adjustments: readonly Adjustment[],
  previous?: ReadonlyMap<string, number>,
): BoxResult[] {
  const context: EvaluationContext = {
    digits: digitsOf(r),
    on: periodEnd,
    schedules: packById(r.pack).schedules,
    ...(previous ? { previous } : {}),
  };
  return evaluateReturn(formOf(r, periodEnd), groups, adjustments, context);
}

/** What boxes come to on a registration's form, in minor units. */
export function figuresOf(
  r: RegistrationRecord,
  periodEnd: string,
  boxes: readonly Pick<BoxResult, "box" | "amount">[],
): ReturnFigures {
  return figuresOfReturn(formOf(r, periodEnd), boxes, digitsOf(r));
}

/** The boxes of a period as they would be declared now. */
export async function boxesNow(
  db: Database,
  r: RegistrationRecord,
  periodEnd: string,
  tx?: Tx,
): Promise<{ form: ReturnForm; boxes: BoxResult[]; factCount: number }> {
  const groups = await factGroups(db, r.id, periodEnd, tx);
  const adjustments = await adjustmentsOf(db, r.id, periodEnd, tx);
  const previous = await amountsBefore(db, r, periodEnd, tx);
  return {
    form: formOf(r, periodEnd),
    boxes: evaluated(r, periodEnd, groups, adjustments, previous),
    factCount: groups.reduce((sum, group) => sum + group.count, 0),
  };
}

/** The boxes of the period before, sealed or as they stand, for forms that carry something over. */
async function amountsBefore(
  db: Database,
  r: RegistrationRecord,
  periodEnd: string,
  tx?: Tx,
): Promise<ReadonlyMap<string, number> | undefined> {
  if (!formOf(r, periodEnd).boxes.some((box) => box.kind === "carried")) return undefined;
  const period = filingPeriodOn(periodRule(r), periodEnd);
  const before = period ? filingPeriodOn(periodRule(r), addDays(period.from, -1)) : undefined;
  if (!before) return undefined;
  const inUse = await db.row(
    "SELECT 1 FROM facts WHERE registration_id = $1 AND live = 1 AND period_end <= $2 LIMIT 1",
    [r.id, before.to],
    tx,
  );
  const sealed = (await returnRecord(db, r.id, before.to, tx))?.boxes;
  if (!inUse && !sealed) return undefined;
  const boxes = sealed ?? (await boxesNow(db, r, before.to, tx)).boxes;
  return new Map(boxes.map((box) => [box.box, box.amount]));
}
