import type { CalendarDate } from "@fiscalon/core/calendar/date";
import type { DistanceSales, SoldInYears } from "@fiscalon/core/findings/periodRows";
import type { JurisdictionPack } from "@fiscalon/core/model/pack";
import { turnoverLimit } from "@fiscalon/core/findings/limitFindings";
import type { FilingPeriod } from "@fiscalon/core/calendar/filingPeriods";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";

/** Lines `document_id, line, day, net, levy` of the days $2 to $3 of a client $1, and what they are chosen by ($4, $5). */
interface Sold {
  client: number;
  lines: string;
  chosenBy: readonly [string, string];
}

/** Each line with its year, its place in it, and what was sold in the year up to it. */
const RUNNING = `SELECT *, cast(substr(day, 1, 4) AS INTEGER) AS year, row_number() OVER days AS place, sum(net) OVER days AS so_far
  FROM sold WINDOW days AS (PARTITION BY substr(day, 1, 4) ORDER BY day, document_id, line ROWS UNBOUNDED PRECEDING)`;

/**
 * What was sold with some codes in the calendar year of a day up to it, and in the year before, with the first document
 * that took this year's above the limit. Minor units, without tax.
 */
export function soldWithCodes(
  work: Work,
  client: number,
  codes: readonly string[],
  to: CalendarDate,
  limit: number,
): Promise<SoldInYears> {
  const lines = `SELECT document_id, line, min(tax_point) AS day, max(net) AS net, '' AS levy FROM facts
    WHERE client_id = $1 AND live = 1 AND direction = 'sale' AND tax_point BETWEEN $2 AND $3
      AND code IN (SELECT value FROM json_each($4)) AND $5 = '' GROUP BY document_id, line`;
  return soldInYears(work, { client, lines, chosenBy: [JSON.stringify(codes), ""] }, to, limit);
}

async function soldInYears(work: Work, sold: Sold, to: CalendarDate, limit: number): Promise<SoldInYears> {
  const year = yearOf(to);
  const rows = await work.rows<{ year: number; sold: number }>(
    `WITH sold AS (${sold.lines}) SELECT cast(substr(day, 1, 4) AS INTEGER) AS year, sum(net) AS sold FROM sold GROUP BY 1`,
    bindOf(sold, to),
  );
  const passing = await work.row<{ document: number; number: string }>(
    `WITH sold AS (${sold.lines}), running AS (${RUNNING})
     SELECT r.document_id AS document, d.number FROM running r JOIN documents d ON d.id = r.document_id
     WHERE r.year = $6 AND r.so_far > $7 ORDER BY r.place LIMIT 1`,
    [...bindOf(sold, to), year, limit],
  );
  const of = (one: number) => rows.filter((row) => row.year === one).reduce((sum, row) => sum + row.sold, 0);
  return { year, sold: of(year), soldBefore: of(year - 1), passedBy: passing ?? null };
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
  if (check?.kind !== "distance-sales" || registration.levies.includes(check.levy)) return null;
  const limit = turnoverLimit(check.limits, yearOf(to));
  if (!limit) return null;
  const members = [...(pack.union?.members.keys() ?? [])].filter((member) => member !== pack.country);
  const sold: Sold = {
    client: registration.clientId,
    lines: CONSUMERS,
    chosenBy: [JSON.stringify(members), JSON.stringify(check.classes)],
  };
  const years = await soldInYears(work, sold, to, limit.year);
  const lastYear = years.soldBefore > limit.yearBefore;
  if (!lastYear && years.passedBy === null) return { ...years, taxedHere: 0, first: null };
  const here = await work.row<{ count: number; document: number; line: number; number: string }>(
    `WITH sold AS (${CONSUMERS}), running AS (${RUNNING}),
       here AS (SELECT * FROM running WHERE year = $6 AND day >= $9 AND levy <> $10
         AND ($8 = 1 OR place >= (SELECT min(place) FROM running WHERE year = $6 AND so_far > $7)))
     SELECT (SELECT count(*) FROM here) AS count, h.document_id AS document, h.line, d.number
     FROM here h JOIN documents d ON d.id = h.document_id ORDER BY h.place LIMIT 1`,
    [...bindOf(sold, to), years.year, limit.year, lastYear ? 1 : 0, from, check.levy],
  );
  if (!here) return { ...years, taxedHere: 0, first: null };
  const { count, ...first } = here;
  return { ...years, taxedHere: count, first };
}

/** Lines sold to consumers in some countries ($4): goods, and services of some classes ($5). */
const CONSUMERS = `SELECT f.document_id, f.line, f.tax_point AS day, max(f.net) AS net, max(f.levy) AS levy
  FROM contacts c JOIN documents d ON d.contact_id = c.id AND d.state = 'posted'
    JOIN facts f ON f.document_id = d.id AND f.live = 1 AND f.direction = 'sale'
    JOIN lines l ON l.document_id = f.document_id AND l.no = f.line
    LEFT JOIN items i ON i.client_id = d.client_id AND i.ref = l.item
  WHERE c.client_id = $1 AND c.country IN (SELECT value FROM json_each($4))
    AND c.registered IS NOT 1 AND coalesce(c.tax_number, '') = ''
    AND NOT EXISTS (SELECT 1 FROM json_each(coalesce(c.standing, '{}')) s WHERE s.value = 'registered')
    AND f.tax_point BETWEEN $2 AND $3 AND f.treatment IN ('standard', 'reduced', 'zero')
    AND (coalesce(l.supply, i.supply, 'goods') <> 'services'
      OR coalesce(l.tax_class, i.tax_class, '') IN (SELECT value FROM json_each($5)))
  GROUP BY f.document_id, f.line`;

function yearOf(day: CalendarDate): number {
  return Number(day.slice(0, 4));
}

function bindOf({ client, chosenBy }: Sold, to: CalendarDate): unknown[] {
  return [client, `${yearOf(to) - 1}-01-01`, to, ...chosenBy];
}
