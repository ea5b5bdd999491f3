import { filingPeriodOn } from "@fiscalon/core/calendar/filingPeriods";
import type { FilingPeriod } from "@fiscalon/core/calendar/filingPeriods";
import type { SchemeDefinition, SchemeInForce } from "@fiscalon/core/model/scheme";
import { sameThroughout } from "@fiscalon/core/schemes/turnoverRate";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { periodRule } from "./periodRule.ts";
import { describedGroups } from "./queries.ts";
import type { DescribedGroup, ReturnScope } from "./queries.ts";
import { schedulesOf } from "./schedules.ts";

/** A period that is summed as a whole, with what is on its return. */
export interface WholePeriod {
  period: FilingPeriod;
  groups: readonly DescribedGroup[];
}

/**
 * The filing period a scope is, where a scheme that taxes turnover holds for all that is on its return and nothing it asks
 * for changes inside: then facts are summed as the boxes are, without a look at each.
 */
export async function wholePeriod(
  work: Work,
  r: RegistrationRecord,
  scope: ReturnScope,
  { rule, levies }: SchemeDefinition,
  spans: readonly SchemeInForce[],
): Promise<WholePeriod | undefined> {
  if (rule.kind !== "turnover-rate" || scope.by !== "period_end" || scope.from !== scope.to) return undefined;
  const period = filingPeriodOn(periodRule(r), scope.to);
  if (!period || !r.levies.every((levy) => levies.includes(levy))) return undefined;
  const around = { schemes: spans, registered: r.validFrom, schedules: await schedulesOf(work, r) };
  if (!sameThroughout(rule, around, period)) return undefined;
  // What is late is of another period than its return.
  const late = await work.row(
    `SELECT 1 FROM facts INDEXED BY facts_late WHERE registration_id = $1 AND late = 1 AND live = 1
       AND (own_end = $2 OR period_end = $2) LIMIT 1`,
    [r.id, scope.to],
  );
  return late ? undefined : { period, groups: await describedGroups(work, r.id, scope.to) };
}
