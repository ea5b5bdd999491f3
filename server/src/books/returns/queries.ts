import type { Adjustment, FactGroup } from "@fiscalon/core/returns/evaluateReturn";
import type { LevyTotals } from "@fiscalon/core/returns/settlementPostings";
import type { Component, Direction, Treatment } from "@fiscalon/core/model/taxCode";
import type { Work } from "../../base/work.ts";

export interface PeriodGroup extends FactGroup {
  periodEnd: string;
}

export const SUMS = `sum(net) AS net, sum(tax) AS tax, sum(recoverable) AS recoverable,
  sum(base) AS base, count(*) AS count`;

/** Facts whose tax is posted to the output tax account: charged on sales, or self-assessed on purchases. */
export const ON_OUTPUT_ACCOUNT = `(direction = 'sale' OR charged = 'self-assessed')`;

/** `bucket` is a fact's code, direction, rate, tags, credit and late in one text, so that one comparison a row groups. */
export type GroupRow = Pick<PeriodGroup, "periodEnd" | "net" | "tax" | "recoverable" | "base" | "count"> & {
  bucket: string;
};

/** The live facts of a registration summed by period and everything that decides where they land, as they are kept. */
export async function factGroups(
  work: Work,
  registrationId: number,
  periodEnd: string | readonly string[],
): Promise<PeriodGroup[]> {
  const ofPeriod =
    typeof periodEnd === "string" ? "period_end = $2" : "period_end IN (SELECT value FROM json_each($2))";
  const rows = await work.rows<GroupRow>(
    `SELECT period_end AS periodEnd, bucket, net, tax, recoverable, base, count FROM fact_sums WHERE registration_id = $1 AND ${ofPeriod} AND count > 0`,
    [registrationId, typeof periodEnd === "string" ? periodEnd : JSON.stringify(periodEnd)],
  );
  return rows.map(grouped);
}

/**
 * The facts between two days. Where these are ends of filing periods, by the period they are reported in;
 * otherwise by tax point.
 */
export async function factGroupsBetween(
  work: Work,
  registrationId: number,
  from: string,
  to: string,
  byPeriod: boolean,
): Promise<PeriodGroup[]> {
  const rows = await work.rows<GroupRow>(
    byPeriod
      ? `SELECT $3 AS periodEnd, bucket, sum(net) AS net, sum(tax) AS tax, sum(recoverable) AS recoverable,
           sum(base) AS base, sum(count) AS count FROM fact_sums
         WHERE registration_id = $1 AND period_end BETWEEN $2 AND $3 AND count > 0 GROUP BY bucket`
      : `SELECT $3 AS periodEnd, bucket, ${SUMS} FROM facts
         WHERE registration_id = $1 AND live = 1 AND held = 0 AND tax_point BETWEEN $2 AND $3 GROUP BY bucket`,
    [registrationId, from, to],
  );
  return rows.map(grouped);
}

/** The late facts `which` names, SQL over `f` with the days of a stretch in $2 and $3, as groups of its last day. */
export async function lateFactGroups(
  work: Work,
  registrationId: number,
  from: string,
  to: string,
  which: string,
): Promise<DescribedGroup[]> {
  const rows = await work.rows<DescribedRow>(
    `SELECT b.*, f.treatment, f.charged, f.levy FROM (
       SELECT $3 AS periodEnd, bucket, min(f.id) AS one, ${SUMS} FROM facts f INDEXED BY facts_late
       WHERE registration_id = $1 AND live = 1 AND late = 1 AND held = 0 AND ${which} GROUP BY bucket) b JOIN facts f ON f.id = b.one`,
    [registrationId, from, to],
  );
  return rows.map(described);
}

/**
 * The facts of the own periods of a stretch of whole periods, as groups of its last day. One that is not late is reported
 * in its own period, so most are summed already; late ones are looked at one by one.
 */
export async function ownFactGroups(
  work: Work,
  registrationId: number,
  from: string,
  to: string,
): Promise<DescribedGroup[]> {
  const intime = await work.rows<DescribedRow>(
    `SELECT b.*, f.treatment, f.charged, f.levy FROM (
       SELECT $3 AS periodEnd, bucket, min(period_end) AS one, sum(net) AS net, sum(tax) AS tax,
         sum(recoverable) AS recoverable, sum(base) AS base, sum(count) AS count
       FROM fact_sums WHERE registration_id = $1 AND period_end BETWEEN $2 AND $3 AND count > 0 AND bucket ->> '$[5]' = 0
       GROUP BY bucket) b
     JOIN facts f ON f.id = (SELECT id FROM facts
       WHERE registration_id = $1 AND period_end = b.one AND live = 1 AND bucket = b.bucket LIMIT 1)`,
    [registrationId, from, to],
  );
  const late = await lateFactGroups(work, registrationId, from, to, "f.own_end BETWEEN $2 AND $3");
  return [...intime.map(described), ...late];
}

/** The facts of a return: of the periods it is of, or of a stretch of days. */
export interface ReturnScope {
  by: "period_end" | "tax_point";
  from: string;
  to: string;
}

export function scopeOfPeriod(end: string): ReturnScope {
  return { by: "period_end", from: end, to: end };
}

/** Whether a fact `f` is in a scope, its days in the parameters `from` and `to`. */
export function inScope({ by }: ReturnScope, from: string, to: string): string {
  return `f.${by} BETWEEN ${from} AND ${to}`;
}

/** A time of a levy; what else it holds is told by name. */
export interface LevySpan {
  levy: string;
  from: string;
  to: string | null;
}

/** The times in which a scheme holds, one a levy. */
export function levySpans<Span extends Omit<LevySpan, "levy">>(
  levies: readonly string[],
  spans: readonly Span[],
): (Span & LevySpan)[] {
  return spans.flatMap((span) => levies.map((levy) => ({ ...span, levy })));
}

/**
 * The first of the spans (in a parameter of JSON) in whose levy and time a fact `f` falls: what it holds under `key`.
 * @param count how many spans there are; each is compared with constants, which costs a fact next to nothing
 */
export function inSpan(spans: string, key: string, count: number): string {
  if (count === 0) return `(${spans} ->> '$.nothing')`;
  const cases = Array.from({ length: count }, (_, index) => {
    const of = (name: string) => `(${spans} ->> '$[${index}].${name}')`;
    return `WHEN f.levy = ${of("levy")} AND f.tax_point >= ${of("from")} AND f.tax_point <= coalesce(${of("to")}, '9999-12-31') THEN ${of(key)}`;
  });
  return `(CASE ${cases.join(" ")} END)`;
}

export type DescribedGroup = PeriodGroup & {
  bucket: string;
  treatment: Treatment;
  charged: Component["charged"];
  levy: string;
};

/** Facts of a bucket, which differ in nothing but their days and amounts, and what else one of them says of all. */
export async function describedGroups(
  work: Work,
  registrationId: number,
  periodEnd: string,
): Promise<DescribedGroup[]> {
  const rows = await work.rows<DescribedRow>(
    `SELECT b.period_end AS periodEnd, b.bucket, b.net, b.tax, b.recoverable, b.base, b.count, f.treatment, f.charged, f.levy
     FROM fact_sums b JOIN facts f ON f.id = (SELECT id FROM facts
       WHERE registration_id = $1 AND period_end = $2 AND live = 1 AND bucket = b.bucket LIMIT 1)
     WHERE b.registration_id = $1 AND b.period_end = $2 AND b.count > 0`,
    [registrationId, periodEnd],
  );
  return rows.map(described);
}

export type DescribedRow = GroupRow & Pick<DescribedGroup, "treatment" | "charged" | "levy">;

export function described({ treatment, charged, levy, ...row }: DescribedRow): DescribedGroup {
  return { ...grouped(row), bucket: row.bucket, treatment, charged, levy };
}

function grouped({ bucket, ...sums }: GroupRow): PeriodGroup {
  const [code, direction, rate, tags, credit, late] = JSON.parse(bucket) as [
    string,
    Direction,
    string | null,
    string,
    number,
    number,
  ];
  return { ...sums, code, direction, rate, tags, credit: credit === 1, late: late === 1 };
}

export async function adjustmentsOf(
  work: Work,
  registrationId: number,
  periodEnd: string | null,
): Promise<(Adjustment & { periodEnd: string })[]> {
  const ofPeriod = periodEnd === null ? "" : "AND period_end = $2";
  return work.rows(
    `SELECT id, period_end AS periodEnd, box, amount, reason FROM adjustments
     WHERE registration_id = $1 ${ofPeriod} ORDER BY id`,
    periodEnd === null ? [registrationId] : [registrationId, periodEnd],
  );
}

/** Facts `f` that were taken off later returns: they count in their own period again, to be put right apart from these. */
export const SEPARATE = "f.late = 1 AND f.own_end = f.period_end";

/**
 * Facts `f` of the client of the registration $1, period by period in the order they were entered: whoever reads more of
 * them than an index holds reads their rows one after the other so, and not all over the file.
 */
export const AS_ENTERED = {
  from: "facts f INDEXED BY facts_by_client_period",
  where: "f.client_id = (SELECT client_id FROM registrations WHERE id = $1)",
};

const TOTALS = `f.levy, sum(CASE WHEN ${ON_OUTPUT_ACCOUNT} THEN f.tax ELSE 0 END) AS output, sum(f.recoverable) AS input`;

/** Output and input tax of a period by levy, as its return declares them from the running tax accounts. Minor units. */
export async function levyTotals(
  work: Work,
  registrationId: number,
  periodEnd: string,
): Promise<LevyTotals[]> {
  return work.remembered("levy totals", [registrationId, periodEnd], (work) =>
    work.rows(
      `SELECT ${TOTALS} FROM ${AS_ENTERED.from} WHERE ${AS_ENTERED.where}
         AND f.registration_id = $1 AND f.period_end = $2 AND f.live = 1 AND NOT (${SEPARATE})
       GROUP BY f.levy ORDER BY f.levy`,
      [registrationId, periodEnd],
    ),
  );
}

/** The same of what was found in a period and is put right apart from its return. */
export async function separateTotals(
  work: Work,
  registrationId: number,
  periodEnd: string,
): Promise<LevyTotals[]> {
  return work.rows(
    `SELECT ${TOTALS} FROM facts f JOIN late_answers a ON a.registration_id = f.registration_id AND a.document_id = f.document_id
     WHERE a.registration_id = $1 AND a.period_end = $2 AND a.separately = 1 AND f.live = 1 AND ${SEPARATE}
     GROUP BY f.levy ORDER BY f.levy`,
    [registrationId, periodEnd],
  );
}

/** What is owed of documents found in the period of a return `t` and put right apart from it. */
export const SEPARATELY_OWED = `coalesce((SELECT sum(CASE WHEN ${ON_OUTPUT_ACCOUNT} THEN f.tax ELSE 0 END - f.recoverable)
  FROM facts f JOIN late_answers a ON a.registration_id = f.registration_id AND a.document_id = f.document_id
  WHERE a.registration_id = t.registration_id AND a.period_end = t.period_end AND a.separately = 1 AND f.live = 1
    AND ${SEPARATE}), 0)`;
