import type { PeriodRule } from "@fiscalon/core/calendar/filingPeriods";
import type { RegistrationRecord } from "../../db/models.ts";

/** What decides the filing periods of a registration, as core wants it. */
export function periodRule(r: RegistrationRecord): PeriodRule {
  return { frequency: r.frequency, anchor: r.anchor, from: r.validFrom, to: r.validTo, changes: r.changes };
}
