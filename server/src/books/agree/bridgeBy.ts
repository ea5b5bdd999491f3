import type { BridgeOf } from "@fiscalon/core/agree/turnoverBridge";
import { BRIDGES } from "@fiscalon/core/agree/turnoverBridge";
import type { BridgeBy, BridgeByPage, BridgeByRow } from "@fiscalon/contract/bridge";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { amountOn, valueOnce } from "./apartRows.ts";
import type { Span } from "./apartRows.ts";

/** What a line's fact says, once a line. */
const OF_FACT = (column: "treatment" | "rate") =>
  `(SELECT f.${column} FROM facts f WHERE f.document_id = v.document AND f.line = v.line AND f.live = 1
     ORDER BY f.levy LIMIT 1)`;

/** By what a side can be put together, as SQL over a value \`v\`. */
const KEYS: Record<BridgeBy, string> = {
  month: "v.month",
  account: `(SELECT a.code || ' ' || a.name FROM accounts a WHERE a.id = coalesce(v.account, (
    SELECT p.account_id FROM entries e JOIN postings p ON p.entry_id = e.id
    WHERE e.document_id = v.document AND e.live = 1 AND p.line = v.line AND p.levy IS NULL LIMIT 1)))`,
  party: `(SELECT c.name FROM documents d JOIN contacts c ON c.id = d.contact_id WHERE d.id = v.document)`,
  treatment: OF_FACT("treatment"),
  rate: OF_FACT("rate"),
};

/** Everything posted to accounts of a side in the days, and everything of it on the returns of them. */
const values = (of: BridgeOf) => `v AS (
    SELECT e.document_id AS document, p.line, e.id AS entry, substr(p.date, 1, 7) AS month, p.account_id AS account,
      ${amountOn(of)} AS ledger, 0 AS base
    FROM accounts a JOIN postings p ON p.client_id = $1 AND p.live = 1 AND p.account_id = a.id AND p.date BETWEEN $2 AND $3
      JOIN entries e ON e.id = p.entry_id
    WHERE a.client_id = $1 AND a.type = '${BRIDGES[of].accounts}'
    UNION ALL
    SELECT document_id, line, NULL, substr(point, 1, 7), NULL, 0, net FROM ${valueOnce(of)})`;

/** A side put together by month, account, party, treatment or rate: what the books have of it, and the returns. */
export async function bridgeBy(
  work: Work,
  r: Pick<RegistrationRecord, "id" | "clientId">,
  { from, to }: Span,
  of: BridgeOf,
  by: BridgeBy,
): Promise<BridgeByRow[]> {
  return work.rows(
    `WITH ${values(of)} SELECT coalesce(${KEYS[by]}, '') AS key, sum(ledger) AS ledger, sum(base) AS base, count(*) AS rows
     FROM v GROUP BY 1 ORDER BY ${by === "month" ? "1" : "abs(sum(ledger)) + abs(sum(base)) DESC, 1"}`,
    [r.clientId, from, to, r.id],
  );
}

/** The lines of one of them, those furthest apart first. */
export async function bridgeByLines(
  work: Work,
  r: Pick<RegistrationRecord, "id" | "clientId">,
  { from, to }: Span,
  of: BridgeOf,
  ask: { by: BridgeBy; key: string; offset: number; limit: number },
): Promise<BridgeByPage> {
  const rows = await work.rows<BridgeByPage["rows"][number] & { total: number }>(
    `WITH ${values(of)}, w AS (
       SELECT document, line, max(entry) AS entry, sum(ledger) AS ledger, sum(base) AS base FROM v
       WHERE coalesce(${KEYS[ask.by]}, '') = $5 GROUP BY document, line, CASE WHEN document IS NULL THEN entry END)
     SELECT CASE WHEN w.document IS NULL THEN 'entry/' || w.entry WHEN w.line IS NULL THEN 'document/' || w.document
         ELSE 'line/' || w.document || '/' || w.line END AS ref,
       coalesce(d.date, e.date) AS date, coalesce(d.number, '') AS number, coalesce(c.name, '') AS party,
       coalesce(l.text, e.text, '') AS text, w.ledger, w.base, count(*) OVER () AS total
     FROM w LEFT JOIN documents d ON d.id = w.document LEFT JOIN contacts c ON c.id = d.contact_id
       LEFT JOIN entries e ON e.id = w.entry LEFT JOIN lines l ON l.document_id = w.document AND l.no = w.line
     ORDER BY abs(w.base - w.ledger) DESC, abs(w.ledger) DESC, 1 LIMIT $6 OFFSET $7`,
    [r.clientId, from, to, r.id, ask.key, ask.limit, ask.offset],
  );
  return { total: rows[0]?.total ?? 0, rows: rows.map(({ total: _total, ...row }) => row) };
}
