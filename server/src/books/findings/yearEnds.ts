import type { FilingPeriod } from "@fiscalon/core/calendar/filingPeriods";
import type { YearEndRow } from "@fiscalon/core/findings/periodRows";
import { optionsOn } from "@fiscalon/core/model/registration";
import { yearOnReturn } from "@fiscalon/core/returns/yearEnd";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { formOf } from "../returns/evaluation.ts";
import { periodRule } from "../returns/periodRule.ts";
import { adjustmentsOf } from "../returns/queries.ts";

/** What the law adds back on the return of a period because a fiscal year is over. */
export async function yearEnds(
  work: Work,
  r: RegistrationRecord,
  period: FilingPeriod,
): Promise<YearEndRow[]> {
  const pack = work.packs.byId(r.pack);
  const rows: YearEndRow[] = [];
  for (const rule of pack.yearEnd ?? []) {
    const month = Number(optionsOn(pack, r, period.to)[rule.yearEnds]);
    const year = yearOnReturn(month, periodRule(r), period);
    // The choice is of the year that is over, whatever was chosen for the next.
    if (!year || optionsOn(pack, r, year.to)[rule.option[0]] !== rule.option[1]) continue;
    const form = formOf(work, r, period.to);
    for (const [levies, box] of Object.entries(rule.boxes)) {
      if (!form.boxes.some(({ id }) => id === box)) continue;
      const { deducted } = await work.one<{ deducted: number }>(
        `SELECT coalesce(sum(f.recoverable), 0) AS deducted FROM facts f
           JOIN lines l ON l.document_id = f.document_id AND l.no = f.line
           JOIN accounts a ON a.client_id = f.client_id AND a.code = l.account AND a.topic = $5
         WHERE f.registration_id = $1 AND f.live = 1 AND f.held = 0 AND f.direction = 'purchase'
           AND f.tax <> 0 AND f.recoverable = f.tax AND f.levy IN (SELECT value FROM json_each($2))
           AND f.tax_point BETWEEN $3 AND $4`,
        [r.id, JSON.stringify(levies.split("/")), year.from, year.to, rule.topic],
      );
      const adjusted = (await adjustmentsOf(work, r.id, period.to))
        .filter((one) => one.box === box)
        .reduce((sum, { amount }) => sum + amount, 0);
      rows.push({ rule, year: year.to, box, deducted, adjusted });
    }
  }
  return rows;
}
