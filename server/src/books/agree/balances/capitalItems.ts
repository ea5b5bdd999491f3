import type { CapitalItems } from "@fiscalon/core/model/capitalItem";
import type { Work } from "../../../base/work.ts";
import type { ApartTables } from "./apart.ts";

/** Why purchases of capital goods and the list of capital items differ. */
export const CAPITAL_CAUSES: Readonly<Record<string, string>> = {
  unlisted: "Bought, and on no list",
  net: "On the list at another value",
  elsewhere: "Items whose purchase is not in these books",
};

/** Purchases of registration $1 with the codes of $3, from the value $4 on, up to day $2; and the items by what they name. */
const SIDES = `bought AS MATERIALIZED (
    SELECT document, line, number, date, max(net) AS net FROM (
      SELECT f.document_id AS document, f.line, d.number, d.date, f.levy, sum(f.net) AS net
      FROM facts f JOIN documents d ON d.id = f.document_id
      WHERE f.registration_id = $1 AND f.live = 1 AND f.direction = 'purchase' AND f.release_of IS NULL
        AND f.tax_point <= $2 AND f.code IN (SELECT value FROM json_each($3)) GROUP BY f.document_id, f.line, f.levy)
    GROUP BY document, line HAVING max(net) >= $4),
  invoices AS MATERIALIZED (
    SELECT number, min(document) AS document, min(date) AS date, sum(net) AS net FROM bought GROUP BY number),
  items AS MATERIALIZED (
    SELECT i.no, i.name, i.first_use AS date, i.net, i.evidence,
      i.evidence IN (SELECT number FROM invoices) AS here
    FROM capital_items i WHERE i.registration_id = $1),
  listed AS (SELECT * FROM items WHERE here = 1 OR date <= $2)`;

/** What purchases and the list of capital items hold apart up to a day. */
export function capitalTables(registration: number, day: string, rule: CapitalItems): ApartTables {
  return {
    tables: `${SIDES},
      perInvoice AS (SELECT evidence AS number, sum(net) AS net FROM listed WHERE here = 1 GROUP BY evidence),
      apart AS (
        SELECT CASE WHEN p.net IS NULL THEN 'unlisted' ELSE 'net' END AS cause, 'document/' || i.document AS ref, i.date,
          i.number, coalesce(c.name, '') AS party, '' AS text, coalesce(p.net, 0) - i.net AS amount
        FROM invoices i JOIN documents d ON d.id = i.document LEFT JOIN contacts c ON c.id = d.contact_id
          LEFT JOIN perInvoice p ON p.number = i.number
        UNION ALL
        SELECT 'elsewhere', NULL, date, evidence, '', name, net FROM listed WHERE here = 0)`,
    bind: bindOf(registration, day, rule),
  };
}

/** Capital goods up to a day by purchases and by the list; none where no item is listed. */
export async function capitalFigures(
  work: Work,
  registration: number,
  day: string,
  rule: CapitalItems,
): Promise<{ left: number; right: number } | null> {
  const item = await work.row("SELECT 1 FROM capital_items WHERE registration_id = $1 LIMIT 1", [
    registration,
  ]);
  if (!item || rule.suggested.length === 0) return null;
  return work.one(
    `WITH ${SIDES} SELECT (SELECT coalesce(sum(net), 0) FROM invoices) AS left,
       (SELECT coalesce(sum(net), 0) FROM listed) AS right`,
    bindOf(registration, day, rule),
  );
}

function bindOf(registration: number, day: string, { suggested, kinds }: CapitalItems): (string | number)[] {
  return [registration, day, JSON.stringify(suggested), Math.min(...kinds.map(({ from }) => from))];
}
