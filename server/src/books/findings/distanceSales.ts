import type { DistanceSales } from "@fiscalon/core/findings/periodRows";
import { turnoverLimit } from "@fiscalon/core/findings/limitFindings";
import type { FilingPeriod } from "@fiscalon/core/calendar/filingPeriods";
import type { JurisdictionPack } from "@fiscalon/core/model/pack";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";

interface SoldRow {
  document: number;
  line: number;
  number: string;
  day: string;
  net: number;
  levy: string;
}

/**
 * What consumers in other members of the union bought in the year of a period and the one before: goods, what is not said
 * to be a service, and services of the classes that follow the consumer. Null where the law of the registration has no
 * such limit, or the registration is that for the other members' tax.
 */
export async function distanceSales(
  work: Work,
  registration: RegistrationRecord,
  pack: JurisdictionPack,
  { from, to }: FilingPeriod,
): Promise<DistanceSales | null> {
  const check = pack.checks?.find((one) => one.kind === "distance-sales");
  const year = Number(to.slice(0, 4));
  const limit = check?.kind === "distance-sales" ? turnoverLimit(check.limits, year) : undefined;
  if (check?.kind !== "distance-sales" || !limit || registration.levies.includes(check.levy)) return null;
  const members = [...(pack.union?.members.keys() ?? [])].filter((member) => member !== pack.country);
  const rows = await work.rows<SoldRow>(
    `SELECT f.document_id AS document, f.line, d.number, f.tax_point AS day, max(f.net) AS net, max(f.levy) AS levy
     FROM contacts c JOIN documents d ON d.contact_id = c.id AND d.state = 'posted'
       JOIN facts f ON f.document_id = d.id AND f.live = 1 AND f.direction = 'sale'
       JOIN lines l ON l.document_id = f.document_id AND l.no = f.line
       LEFT JOIN items i ON i.client_id = d.client_id AND i.ref = l.item
     WHERE c.client_id = $1 AND c.country IN (SELECT value FROM json_each($2))
       AND c.registered IS NOT 1 AND coalesce(c.tax_number, '') = ''
       AND NOT EXISTS (SELECT 1 FROM json_each(coalesce(c.standing, '{}')) s WHERE s.value = 'registered')
       AND f.tax_point BETWEEN $3 AND $4 AND f.treatment IN ('standard', 'reduced', 'zero')
       AND (coalesce(l.supply, i.supply, 'goods') <> 'services'
         OR coalesce(l.tax_class, i.tax_class, '') IN (SELECT value FROM json_each($5)))
     GROUP BY f.document_id, f.line ORDER BY day, f.document_id, f.line`,
    [registration.clientId, JSON.stringify(members), `${year - 1}-01-01`, to, JSON.stringify(check.classes)],
  );
  const inYear = (of: number) => rows.filter(({ day }) => Number(day.slice(0, 4)) === of);
  const sum = (of: readonly SoldRow[]) => of.reduce((total, { net }) => total + net, 0);
  const now = inYear(year);
  const soldBefore = sum(inYear(year - 1));
  const passing = now.findIndex((_, index) => sum(now.slice(0, index + 1)) > limit.year);
  const start = soldBefore > limit.yearBefore ? 0 : passing;
  const above = start < 0 ? [] : now.slice(start);
  const passedBy = passing < 0 ? undefined : now[passing];
  return {
    year,
    sold: sum(now),
    soldBefore,
    passedBy: passedBy ? { document: passedBy.document, number: passedBy.number } : null,
    taxedHere: above
      .filter(({ day, levy }) => levy !== check.levy && day >= from)
      .map(({ document, line, number }) => ({ document, line, number })),
  };
}
