import type { SchemeInForce } from "@fiscalon/core/model/scheme";
import type { Work } from "../../base/work.ts";
import type { Bind } from "../../db/database.ts";
import { described, SUMS } from "./queries.ts";
import type { DescribedGroup, DescribedRow, LevySpan, PeriodGroup, ReturnScope } from "./queries.ts";

/**
 * Facts of a bucket and a day that were bought for one use: what schemes ask of a fact beside its amounts, so that they
 * are worked out from sums and not from facts.
 */
export type DayGroup = DescribedGroup & {
  /** What a purchase is and its account, as `useOf` writes it. */
  use: string;
  taxPoint: string;
  ownEnd: string;
};

/** The facts of a return by day. */
export function dayGroups(work: Work, registrationId: number, scope: ReturnScope): Promise<DayGroup[]> {
  const { by, from, to } = scope;
  const isOne = from === to;
  return read(
    work,
    isOne ? `f.${by} = $2` : `f.${by} BETWEEN $2 AND $3`,
    [registrationId, from, ...(isOne ? [] : [to])],
    "facts f",
  );
}

/** What belongs to some periods by their ends, and is on returns of none of them. */
export function lateDayGroups(
  work: Work,
  registrationId: number,
  ends: readonly string[],
): Promise<DayGroup[]> {
  return read(
    work,
    `f.late = 1 AND f.own_end IN (SELECT value FROM json_each($2))
       AND f.period_end NOT IN (SELECT value FROM json_each($2))`,
    [registrationId, JSON.stringify(ends)],
    "facts f INDEXED BY facts_late",
  );
}

async function read(work: Work, where: string, bind: Bind, facts: string): Promise<DayGroup[]> {
  const rows = await work.rows<DescribedRow & Pick<DayGroup, "use" | "taxPoint" | "ownEnd">>(
    `SELECT b.*, f.treatment, f.charged, f.levy FROM (
       SELECT f.period_end AS periodEnd, f.bucket, f.use, f.tax_point AS taxPoint, f.own_end AS ownEnd, min(f.id) AS one,
         ${SUMS} FROM ${facts}
       WHERE f.registration_id = $1 AND f.live = 1 AND f.period_end IS NOT NULL AND ${where}
       GROUP BY f.period_end, f.bucket, f.use, f.tax_point, f.own_end) b JOIN facts f ON f.id = b.one`,
    bind,
  );
  return rows.map(({ use, taxPoint, ownEnd, ...row }) => ({ ...described(row), use, taxPoint, ownEnd }));
}

/** Whether a group falls in the levy and the time of a span. */
export function isInSpan({ levy, taxPoint }: DayGroup, span: LevySpan): boolean {
  return levy === span.levy && taxPoint >= span.from && (span.to === null || taxPoint <= span.to);
}

/** By the scheme that was in force for their levy on their tax point, days put together; the ordinary ones under null. */
export function byScheme(
  days: readonly DayGroup[],
  schemes: readonly (SchemeInForce & LevySpan)[],
): { scheme: string | null; group: PeriodGroup }[] {
  const sums = new Map<string, { scheme: string | null; group: PeriodGroup }>();
  for (const day of days) {
    const scheme = schemes.find((span) => isInSpan(day, span))?.scheme ?? null;
    const key = `${scheme ?? ""} ${day.bucket}`;
    const sum = sums.get(key);
    if (sum) add(sum.group, day);
    else sums.set(key, { scheme, group: plain(day) });
  }
  return [...sums.values()];
}

function add(sum: PeriodGroup, one: PeriodGroup): void {
  sum.net += one.net;
  sum.tax += one.tax;
  sum.recoverable += one.recoverable;
  sum.base += one.base;
  sum.count += one.count;
}

function plain({
  periodEnd,
  code,
  direction,
  rate,
  tags,
  credit,
  late,
  net,
  tax,
  recoverable,
  base,
  count,
}: DayGroup): PeriodGroup {
  return { periodEnd, code, direction, rate, tags, credit, late, net, tax, recoverable, base, count };
}
