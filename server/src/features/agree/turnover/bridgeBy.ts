import { at } from "@fiscalon/core/at";
import { BRIDGES } from "@fiscalon/core/agree/turnoverBridge";
import type { BridgeOf } from "@fiscalon/core/agree/turnoverBridge";
import { boxTags } from "@fiscalon/core/model/boxTags";
import type { BoxTag, Measure } from "@fiscalon/core/model/boxTags";
import type { BridgeBy, BridgeByPage, BridgeByRow } from "@fiscalon/contract/bridge";
import { amountOn, valueOnce } from "../../../books/agree/turnover/apartRows.ts";
import type { Span } from "../../../books/agree/turnover/apartRows.ts";
import { formOf } from "../../../books/returns/evaluation.ts";
import type { Work } from "../../../base/work.ts";
import type { RegistrationRecord } from "../../../db/models.ts";
import { requireWhole } from "../../../books/agree/turnover/bridge.ts";
import { turnoverBoxes } from "../../../books/agree/turnover/turnoverBoxes.ts";

/** What a line's fact says, once a line. */
const OF_FACT = (column: "treatment" | "rate") =>
  `(SELECT f.${column} FROM facts f WHERE f.document_id = w.document AND f.line = w.line AND f.live = 1
     ORDER BY f.levy LIMIT 1)`;

/** By what a side can be put together, as SQL over a line \`w\`. */
const KEYS: Record<BridgeBy, string> = {
  month: "w.month",
  account: `(SELECT a.code || ' ' || a.name FROM accounts a WHERE a.id = coalesce(w.account, (
    SELECT p.account_id FROM entries e JOIN postings p ON p.entry_id = e.id
    WHERE e.document_id = w.document AND e.live = 1 AND p.line = w.line AND p.levy IS NULL LIMIT 1)))`,
  party: `(SELECT c.name FROM documents d JOIN contacts c ON c.id = d.contact_id WHERE d.id = w.document)`,
  treatment: OF_FACT("treatment"),
  rate: OF_FACT("rate"),
};

/** What the turnover boxes hold of a fact \`f\`, by the weights of its period and tags in $5. */
const IN_BOXES = `SELECT f.document_id, f.line, substr(f.tax_point, 1, 7),
      CAST(round(f.net * t.net + f.tax * t.tax + f.recoverable * t.recoverable + f.base * t.base) AS INTEGER)
    FROM facts f JOIN weights t ON t.period = f.period_end AND t.tags = f.tags
    WHERE f.registration_id = $4 AND f.live = 1 AND f.held = 0 AND f.period_end BETWEEN $2 AND $3`;

/** What the side's accounts hold of every line or entry in the days, and the turnover boxes of their returns. */
const lines = (of: BridgeOf, hasBoxes: boolean) => `
  weights AS MATERIALIZED (
    SELECT value ->> 0 AS period, value ->> 1 AS tags, value ->> 2 AS net, value ->> 3 AS tax, value ->> 4 AS recoverable,
      value ->> 5 AS base FROM json_each($5)),
  boxed(document, line, month, amount) AS (
    ${hasBoxes ? IN_BOXES : `SELECT document_id, line, substr(point, 1, 7), net FROM ${valueOnce(of)}`}),
  v AS (
    SELECT e.document_id AS document, p.line, e.id AS entry, substr(p.date, 1, 7) AS month, p.account_id AS account,
      ${amountOn(of)} AS ledger, 0 AS base
    FROM accounts a CROSS JOIN postings p ON p.client_id = $1 AND p.live = 1 AND p.account_id = a.id AND p.date BETWEEN $2 AND $3
      JOIN entries e ON e.id = p.entry_id
    WHERE a.client_id = $1 AND a.type = '${BRIDGES[of].accounts}'
    UNION ALL
    SELECT document, line, NULL, month, NULL, 0, amount FROM boxed),
  w AS (
    SELECT document, line, month, max(entry) AS entry, max(account) AS account, sum(ledger) AS ledger, sum(base) AS base
    FROM v GROUP BY document, line, month, CASE WHEN document IS NULL THEN entry END)`;

/** A side put together by month, account, party, treatment or rate: what the books have of it, and the boxes. */
export async function bridgeBy(
  work: Work,
  r: RegistrationRecord,
  span: Span,
  of: BridgeOf,
  by: BridgeBy,
): Promise<BridgeByRow[]> {
  const { hasBoxes, weights } = await weightsOf(work, r, span, of);
  return work.rows(
    `WITH ${lines(of, hasBoxes)}
     SELECT coalesce(${KEYS[by]}, '') AS key, sum(ledger) AS ledger, sum(base) AS base, count(*) AS rows
     FROM w WHERE ledger <> 0 OR base <> 0
     GROUP BY 1 ORDER BY ${by === "month" ? "1" : "abs(sum(ledger)) + abs(sum(base)) DESC, 1"}`,
    [r.clientId, span.from, span.to, r.id, weights],
  );
}

/** The lines of one of them, those furthest apart first. */
export async function bridgeByLines(
  work: Work,
  r: RegistrationRecord,
  span: Span,
  of: BridgeOf,
  ask: { by: BridgeBy; key: string; offset: number; limit: number },
): Promise<BridgeByPage> {
  const { hasBoxes, weights } = await weightsOf(work, r, span, of);
  const rows = await work.rows<BridgeByPage["rows"][number] & { total: number }>(
    `WITH ${lines(of, hasBoxes)}
     SELECT CASE WHEN w.document IS NULL THEN 'entry/' || w.entry WHEN w.line IS NULL THEN 'document/' || w.document
         ELSE 'line/' || w.document || '/' || w.line END AS ref,
       coalesce(d.date, e.date) AS date, coalesce(d.number, '') AS number, coalesce(c.name, '') AS party,
       coalesce(l.text, e.text, '') AS text, w.ledger, w.base, count(*) OVER () AS total
     FROM w LEFT JOIN documents d ON d.id = w.document LEFT JOIN contacts c ON c.id = d.contact_id
       LEFT JOIN entries e ON e.id = w.entry LEFT JOIN lines l ON l.document_id = w.document AND l.no = w.line
     WHERE (w.ledger <> 0 OR w.base <> 0) AND coalesce(${KEYS[ask.by]}, '') = $6
     ORDER BY abs(w.base - w.ledger) DESC, abs(w.ledger) DESC, 1 LIMIT $7 OFFSET $8`,
    [r.clientId, span.from, span.to, r.id, weights, ask.key, ask.limit, ask.offset],
  );
  return { total: rows[0]?.total ?? 0, rows: rows.map(({ total: _total, ...row }) => row) };
}

/** How often each amount of a fact is in the turnover boxes, by the period and the tags of the fact, as JSON. */
async function weightsOf(
  work: Work,
  r: RegistrationRecord,
  span: Span,
  of: BridgeOf,
): Promise<{ hasBoxes: boolean; weights: string }> {
  const forms = new Map(requireWhole(r, span).map(({ to }) => [to, formOf(work, r, to)]));
  const hasBoxes = [...forms.values()].some((form) => form[of] !== undefined);
  if (!hasBoxes) return { hasBoxes, weights: "[]" };
  const used = await work.rows<{ period: string; tags: string }>(
    `SELECT DISTINCT f.period_end AS period, f.tags FROM facts f WHERE f.id IN (
       SELECT min(id) FROM facts WHERE registration_id = $1 AND live = 1 AND period_end BETWEEN $2 AND $3
       GROUP BY period_end, bucket)`,
    [r.id, span.from, span.to],
  );
  const weights = used.flatMap(({ period, tags }) => {
    const form = forms.get(period);
    const landing = form ? turnoverBoxes(form, boxTags(tags), of) : [];
    return landing.length === 0 ? [] : [[period, tags, ...weigh(landing)]];
  });
  return { hasBoxes, weights: JSON.stringify(weights) };
}

/** Which of net, tax, recoverable tax and base a measure counts, in this order. */
const COUNTS: Record<Measure, readonly [number, number, number, number]> = {
  n: [1, 0, 0, 0],
  t: [0, 1, 0, 0],
  r: [0, 0, 1, 0],
  u: [0, 1, -1, 0],
  g: [1, 1, 0, 0],
  b: [0, 0, 0, 1],
};

function weigh(tags: readonly BoxTag[]): number[] {
  return [0, 1, 2, 3].map((part) =>
    tags.reduce(
      (sum, { sign, measure, times }) =>
        sum + at(COUNTS[measure], part) * sign * (Number(times.n) / Number(times.d)),
      0,
    ),
  );
}
