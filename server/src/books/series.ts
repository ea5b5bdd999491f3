import { FiscalError } from "@fiscalon/core/errors";
import { isNumbered, NUMBERED_KINDS } from "@fiscalon/contract/series";
import type { NumberedKind, SeriesView } from "@fiscalon/contract/series";
import type { Work, Writing } from "../base/work.ts";

/** Digits of the numbers of a series nobody changed. */
const USUAL_DIGITS = 4;

/** Longer figures are no numbers of a series but references of somebody else's, typed in. */
const MOST_DIGITS = 12;

interface Series {
  prefix: string;
  digits: number;
}

async function seriesOf(work: Work, clientId: number, kind: NumberedKind): Promise<Series> {
  const kept = await work.row<Series>(
    "SELECT prefix, digits FROM series WHERE client_id = $1 AND kind = $2",
    [clientId, kind],
  );
  return kept ?? { prefix: NUMBERED_KINDS[kind].prefix, digits: USUAL_DIGITS };
}

/** Numbers of a kind that belong to a series, as whole numbers; also of what was taken out or replaced. */
const NUMBERS = (kind: NumberedKind) => `
  SELECT CAST(substr(number, $2) AS INTEGER) AS n, min(date) AS date FROM ${NUMBERED_KINDS[kind].table}
  WHERE client_id = $1 AND kind = $3 AND substr(number, 1, $2 - 1) = $4 AND substr(number, $2) GLOB '[0-9]*'
    AND substr(number, $2) NOT GLOB '*[^0-9]*' AND length(number) < $2 + ${MOST_DIGITS} GROUP BY n`;

/**
 * The next free number of a kind. Called inside the transaction that posts, so that none is given twice and none is
 * left out.
 * @throws FiscalError `document/no-number` for kinds that carry the number of somebody else
 */
export async function nextInSeries(work: Writing, clientId: number, kind: string): Promise<string> {
  if (!isNumbered(kind)) {
    throw new FiscalError("document/no-number", "Type the number that stands on the document.", "number");
  }
  const { prefix, digits } = await seriesOf(work, clientId, kind);
  const row = await work.one<{ last: number | null }>(`SELECT max(n) AS last FROM (${NUMBERS(kind)})`, [
    clientId,
    prefix.length + 1,
    kind,
    prefix,
  ]);
  return prefix + String((row.last ?? 0) + 1).padStart(digits, "0");
}

/** Every series with what comes next and what is missing in it. */
export async function seriesViews(work: Work, clientId: number): Promise<SeriesView[]> {
  const views: SeriesView[] = [];
  for (const kind of Object.keys(NUMBERED_KINDS).filter(isNumbered)) {
    const { prefix, digits } = await seriesOf(work, clientId, kind);
    const bind = [clientId, prefix.length + 1, kind, prefix];
    const { used, first, last } = await work.one<{ used: number; first: number | null; last: number | null }>(
      `SELECT count(*) AS used, min(n) AS first, max(n) AS last FROM (${NUMBERS(kind)})`,
      bind,
    );
    const gaps = await work.rows<{ after: number; before: number }>(
      `SELECT n AS after, following AS before FROM
         (SELECT n, lead(n) OVER (ORDER BY n) AS following FROM (${NUMBERS(kind)})) WHERE following > n + 1 LIMIT 100`,
      bind,
    );
    const numbered = (n: number) => prefix + String(n).padStart(digits, "0");
    const missing = gaps.flatMap(({ after, before }) =>
      Array.from({ length: Math.min(20, before - after - 1) }, (_, at) => numbered(after + 1 + at)),
    );
    views.push({
      kind,
      prefix,
      digits,
      next: numbered((last ?? 0) + 1),
      used,
      missing: missing.slice(0, 20),
      missingCount: used === 0 ? 0 : (last ?? 0) - (first ?? 0) + 1 - used,
    });
  }
  return views;
}

export interface SeriesGap {
  kind: NumberedKind;
  /** The first number that is missing, and how many are. */
  first: string;
  count: number;
  after: string;
  before: string;
}

/** Gaps in the series of documents we issue, where the one after the gap is dated within the days. */
export async function seriesGaps(
  work: Work,
  clientId: number,
  from: string,
  to: string,
): Promise<SeriesGap[]> {
  const gaps: SeriesGap[] = [];
  for (const kind of Object.keys(NUMBERED_KINDS).filter(isNumbered)) {
    if (!NUMBERED_KINDS[kind].unbroken) continue;
    const { prefix, digits } = await seriesOf(work, clientId, kind);
    const rows = await work.rows<{ after: number; before: number }>(
      `SELECT earlier AS after, n AS before FROM
         (SELECT n, date, lag(n) OVER (ORDER BY n) AS earlier FROM (${NUMBERS(kind)}))
       WHERE earlier < n - 1 AND date BETWEEN $5 AND $6 ORDER BY n LIMIT 50`,
      [clientId, prefix.length + 1, kind, prefix, from, to],
    );
    const numbered = (n: number) => prefix + String(n).padStart(digits, "0");
    for (const { after, before } of rows) {
      gaps.push({
        kind,
        first: numbered(after + 1),
        count: before - after - 1,
        after: numbered(after),
        before: numbered(before),
      });
    }
  }
  return gaps;
}

export async function changeSeries(
  work: Work,
  clientId: number,
  kind: NumberedKind,
  { prefix, digits }: Series,
): Promise<void> {
  await work.write(async (work) => {
    const before = await seriesOf(work, clientId, kind);
    const { createdAt, createdBy } = work.made;
    await work.run(
      `INSERT INTO series (client_id, kind, prefix, digits, created_at, created_by) VALUES ($1, $2, $3, $4, $5, $6)
       ON CONFLICT (client_id, kind) DO UPDATE SET prefix = excluded.prefix, digits = excluded.digits`,
      [clientId, kind, prefix, digits, createdAt, createdBy],
    );
    await work.record({
      action: "change",
      entity: "series",
      id: null,
      before: { kind, ...before },
      after: { kind, prefix, digits },
    });
  });
}
