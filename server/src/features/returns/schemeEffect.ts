import { filingPeriods } from "@fiscalon/core/calendar/filingPeriods";
import type { SchemeEffect, SchemesBody } from "@fiscalon/contract/schemeEffect";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { checkedSchemes } from "../../books/checkedSchemes.ts";
import { boxesNow, figuresOf } from "../../books/returns/evaluation.ts";
import { periodRule } from "../../books/returns/periodRule.ts";
import { isOpen, returnRecord } from "../../books/returns/records.ts";
import { lastYear, turnoverOf } from "./compareMethods.ts";

/** What other schemes of a registration would change in the periods that are open and have begun. Nothing is written. */
export async function schemeEffect(
  work: Work,
  r: RegistrationRecord,
  { schemes }: SchemesBody,
): Promise<SchemeEffect> {
  const rule = periodRule(r);
  const changed = { ...r, schemes: checkedSchemes(work.packs.byId(r.pack), r.levies, rule, schemes) };
  const periods: SchemeEffect["periods"] = [];
  for (const period of filingPeriods(rule, r.validFrom, work.today)) {
    if (!isOpen(await returnRecord(work, r.id, period.to))) continue;
    const net = async (one: RegistrationRecord) =>
      figuresOf(work, one, period.to, (await boxesNow(work, one, period.to)).boxes).net;
    periods.push({ ...period, now: await net(r), then: await net(changed) });
  }
  return { turnover: await turnoverOf(work, r, lastYear(work, r)), periods };
}
