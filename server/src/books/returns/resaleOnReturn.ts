import { filingPeriods } from "@fiscalon/core/calendar/filingPeriods";
import { parseAmount } from "@fiscalon/core/money/amount";
import type { ResaleCredit } from "@fiscalon/core/model/resaleCredit";
import type { SchemeInForce, SchemeResult } from "@fiscalon/core/model/scheme";
import { minorDigits } from "@fiscalon/core/money/currency";
import { resaleCredit } from "@fiscalon/core/schemes/resaleCredit";
import type { ResalePeriod } from "@fiscalon/core/schemes/resaleCredit";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { overSpans } from "./overSpans.ts";
import { periodRule } from "./periodRule.ts";
import { endsInScope } from "./poolOnReturn.ts";
import type { ReturnScope } from "./queries.ts";

/** What credits on second-hand goods put on the return of a scope, with what earlier periods leave in the pool. */
export async function resaleOnReturn(
  work: Work,
  r: RegistrationRecord,
  scope: ReturnScope,
  rule: ResaleCredit,
  spans: readonly SchemeInForce[],
): Promise<SchemeResult> {
  const digits = minorDigits(work.packs.byId(r.pack).currency);
  return overSpans(spans, scope, async (scheme, last) => {
    const span = { from: scheme.from, to: last, since: scope.from, digits };
    const periods = await resalePeriods(work, r, rule, span);
    return resaleCredit(rule, { periods, scheme, digits }, endsInScope(scope, periods));
  });
}

/** Lots bought and parts of them sold, period by period; pieces sold, with what they cost, of periods that end since a day. */
async function resalePeriods(
  work: Work,
  r: RegistrationRecord,
  { levy, sales, lots }: ResaleCredit,
  { from, to, since, digits }: { from: string; to: string; since: string; digits: number },
): Promise<ResalePeriod[]> {
  const bind = [r.id, from, to, levy];
  const facts = `facts f WHERE f.registration_id = $1 AND f.live = 1 AND f.held = 0 AND f.period_end BETWEEN $2 AND $3
    AND f.levy = $4 AND f.code IN (SELECT value FROM json_each($5))`;
  const pieces = await work.rows<{
    end: string;
    document: number;
    line: number;
    number: string;
    cost: string;
    tax: number;
  }>(
    `SELECT s.end, s.document, s.line, d.number, coalesce(l.attributes ->> '$.cost', '') AS cost, s.tax FROM (
       SELECT f.period_end AS end, f.document_id AS document, f.line, sum(f.tax) AS tax
       FROM ${facts} AND f.period_end >= $6 GROUP BY f.period_end, f.document_id, f.line) s
     JOIN documents d ON d.id = s.document JOIN lines l ON l.document_id = s.document AND l.no = s.line
     ORDER BY d.date, s.document, s.line`,
    [...bind, JSON.stringify(sales), since],
  );
  const sums = await work.rows<{ end: string; gross: number; tax: number; bought: number }>(
    `SELECT f.period_end AS end, sum(f.net + f.tax) AS gross, sum(f.tax) AS tax, f.direction = 'purchase' AS bought
     FROM ${facts} GROUP BY f.period_end, f.direction`,
    [...bind, JSON.stringify([...lots.bought, ...lots.sold])],
  );
  return filingPeriods(periodRule(r), from, to).map((period) => {
    const own = sums.filter(({ end }) => end === period.to);
    return {
      ...period,
      pieces: pieces
        .filter(({ end }) => end === period.to)
        .map(({ cost, ...piece }) => ({ ...piece, cost: cost === "" ? 0 : parseAmount(cost, digits) })),
      bought: own.filter(({ bought }) => bought === 1).reduce((sum, { gross }) => sum + gross, 0),
      sold: own.filter(({ bought }) => bought === 0).reduce((sum, { tax }) => sum + tax, 0),
    };
  });
}
