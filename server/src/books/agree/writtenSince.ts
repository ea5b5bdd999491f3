import type { WrittenSince } from "@fiscalon/contract/agreements";
import type { Work } from "../../base/work.ts";
import type { Span } from "./turnover/apartRows.ts";

const LISTED = 20;

/** Documents of a span that were written or ended after a moment, and payments; the latest first. */
export async function writtenSince(
  work: Work,
  clientId: number,
  { from, to }: Span,
  moment: string,
): Promise<WrittenSince> {
  const rows = await work.rows<WrittenSince["rows"][number] & { total: number }>(
    `SELECT ref, text, date, count(*) OVER () AS total FROM (
       SELECT 'document/' || d.id AS ref, d.number || coalesce(', ' || c.name, '') AS text, d.date,
         coalesce(d.ended_at, d.created_at) AS at
       FROM documents d LEFT JOIN contacts c ON c.id = d.contact_id
       WHERE d.client_id = $1 AND d.state <> 'superseded' AND coalesce(d.ended_at, d.created_at) > $4
         AND (d.date BETWEEN $2 AND $3 OR d.ledger_date BETWEEN $2 AND $3)
       UNION ALL
       SELECT 'entry/' || e.id, e.text, e.date, e.created_at FROM entries e
       WHERE e.client_id = $1 AND e.live = 1 AND e.kind = 'payment' AND e.created_at > $4 AND e.date BETWEEN $2 AND $3)
     ORDER BY at DESC, ref LIMIT ${LISTED}`,
    [clientId, from, to, moment],
  );
  return { rows: rows.map(({ total: _total, ...row }) => row), total: rows[0]?.total ?? 0 };
}
