import { FiscalError } from "@fiscalon/core/errors";
import { isNumbered, NUMBERED_KINDS } from "@fiscalon/contract/series";
import type { NumberedKind, SeriesView } from "@fiscalon/contract/series";
import type { Work, Writing } from "../base/work.ts";
import { serialOf } from "../db/serialSql.ts";

/** Digits of the numbers of a series nobody changed. */
const USUAL_DIGITS = 4;

/** Longer figures are no numbers of a series but references of somebody else's, typed in. */
const MOST_DIGITS = 12;
const MOST = 10 ** MOST_DIGITS - 1;

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

/** A series of a client: where its numbers are found, with the parameters $1 to $3 of that. */
interface Numbers {
  /** `n`, the number as a whole number, and the `date` of a document or payment; also of what was taken out or replaced. */
  from: string;
  bind: (string | number)[];
}

function numbersOf(clientId: number, kind: NumberedKind, prefix: string): Numbers {
  const { stem, n } = serialOf("number");
  const { table } = NUMBERED_KINDS[kind];
  const [begins] = /^.*?(?=[0-9]*$)/.exec(prefix) ?? [""];
  const found = `FROM ${table} INDEXED BY ${table}_in_series WHERE client_id = $1 AND kind = $2 AND ${stem} = $3`;
  if (begins === prefix)
    return {
      from: `(SELECT ${n} AS n, date ${found} AND ${n} BETWEEN 1 AND ${MOST})`,
      bind: [clientId, kind, prefix],
    };
  // Its own last figures are not part of the number.
  return {
    from: `(SELECT CAST(substr(number, $4) AS INTEGER) AS n, date ${found} AND substr(number, 1, $4 - 1) = $5
      AND length(number) BETWEEN $4 AND $4 - 1 + ${MOST_DIGITS})`,
    bind: [clientId, kind, begins, prefix.length + 1, prefix],
  };
}

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
  const { from, bind } = numbersOf(clientId, kind, prefix);
  const last = await work.row<{ n: number }>(`SELECT n FROM ${from} ORDER BY n DESC LIMIT 1`, bind);
  return prefix + String((last?.n ?? 0) + 1).padStart(digits, "0");
}

/** Every series with what comes next and what is missing in it. */
export function seriesViews(work: Work, clientId: number): Promise<SeriesView[]> {
  return work.remembered("series", clientId, (work) => viewed(work, clientId));
}

async function viewed(work: Work, clientId: number): Promise<SeriesView[]> {
  const views: SeriesView[] = [];
  for (const kind of Object.keys(NUMBERED_KINDS).filter(isNumbered)) {
    const { prefix, digits } = await seriesOf(work, clientId, kind);
    const { from, bind } = numbersOf(clientId, kind, prefix);
    const { used, first, last } = await work.one<{ used: number; first: number | null; last: number | null }>(
      `SELECT count(*) AS used, min(n) AS first, max(n) AS last FROM (SELECT n FROM ${from} GROUP BY n)`,
      bind,
    );
    const gaps = await work.rows<{ after: number; before: number }>(
      `SELECT n AS after, following AS before FROM
         (SELECT n, lead(n) OVER (ORDER BY n) AS following FROM (SELECT n FROM ${from} GROUP BY n))
       WHERE following > n + 1 LIMIT 100`,
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
    const numbers = numbersOf(clientId, kind, prefix);
    const days = [`$${numbers.bind.length + 1}`, `$${numbers.bind.length + 2}`] as const;
    const rows = await work.rows<{ after: number; before: number }>(
      `SELECT earlier AS after, n AS before FROM
         (SELECT n, date, lag(n) OVER (ORDER BY n) AS earlier
          FROM (SELECT n, min(date) AS date FROM ${numbers.from} GROUP BY n))
       WHERE earlier < n - 1 AND date BETWEEN ${days[0]} AND ${days[1]} ORDER BY n`,
      [...numbers.bind, from, to],
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
