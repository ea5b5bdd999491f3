import { filingPeriods } from "@fiscalon/core/calendar/filingPeriods";
import type { SchemeInForce, SchemeResult } from "@fiscalon/core/model/scheme";
import type { YearlyAddBack } from "@fiscalon/core/model/yearlyAddBack";
import { minorDigits } from "@fiscalon/core/money/currency";
import { yearlyAddBack } from "@fiscalon/core/schemes/yearlyAddBack";
import type { AddBackPeriod, DeductedInFull } from "@fiscalon/core/schemes/yearlyAddBack";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { overSpans } from "./overSpans.ts";
import { periodRule } from "./periodRule.ts";
import { endsInScope } from "./poolOnReturn.ts";
import type { ReturnScope } from "./queries.ts";

/** What is taken back on the return of a scope of tax that was deducted in full while the year ran. */
export async function addBackOnReturn(
  work: Work,
  r: RegistrationRecord,
  scope: ReturnScope,
  rule: YearlyAddBack,
  spans: readonly SchemeInForce[],
): Promise<SchemeResult> {
  const digits = minorDigits(work.packs.byId(r.pack).currency);
  return overSpans(spans, scope, async (scheme, last) => {
    const periods = await addBackPeriods(work, r, rule, scheme.from, last);
    return yearlyAddBack(rule, { periods, scheme, digits }, endsInScope(scope, periods));
  });
}

/** The percentage of a line `l` that is taken back. */
export function shareTakenBack({ share }: YearlyAddBack): string {
  return "percent" in share ? `'${share.percent}'` : `coalesce(l.attributes ->> '$.${share.attribute}', '0')`;
}

async function addBackPeriods(
  work: Work,
  r: RegistrationRecord,
  rule: YearlyAddBack,
  from: string,
  to: string,
): Promise<AddBackPeriod[]> {
  const rows = await work.rows<DeductedInFull & { end: string }>(
    `SELECT f.period_end AS end, f.levy, ${shareTakenBack(rule)} AS percent, sum(f.recoverable) AS tax
     FROM facts f JOIN lines l ON l.document_id = f.document_id AND l.no = f.line
     WHERE f.registration_id = $1 AND f.live = 1 AND f.held = 0 AND f.period_end BETWEEN $2 AND $3
       AND f.direction = 'purchase' AND f.code IN (SELECT value FROM json_each($4))
     GROUP BY f.period_end, f.levy, percent`,
    [r.id, from, to, JSON.stringify(rule.codes)],
  );
  return filingPeriods(periodRule(r), from, to).map((period) => ({
    ...period,
    deducted: rows.filter(({ end }) => end === period.to),
  }));
}
