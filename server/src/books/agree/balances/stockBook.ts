import type { StockBookRule } from "@fiscalon/core/model/stockBook";
import type { Work } from "../../../base/work.ts";
import type { ApartTables } from "./apart.ts";

/** Why what was bought under a margin scheme and the stock book differ. */
export const STOCK_CAUSES: Readonly<Record<string, string>> = {
  unlisted: "Bought by documents, and no piece is in the stock book",
  price: "Pieces at another price than their line",
  elsewhere: "Pieces whose purchase is not in these books",
};

/** What was bought under the scheme up to day $2 by line, and pieces as they came in: not sets, nor what was split off. */
const SIDES = `bought AS MATERIALIZED (
    SELECT f.document_id AS document, f.line, sum(f.net) AS amount
    FROM lines l INDEXED BY lines_of_code CROSS JOIN facts f ON f.document_id = l.document_id AND f.line = l.no
    WHERE l.code IN (SELECT value FROM json_each($4)) AND f.client_id = $1 AND f.live = 1 AND f.release_of IS NULL AND f.direction = 'purchase' AND f.levy = $3
      AND f.code IN (SELECT value FROM json_each($4)) AND f.tax_point <= $2 GROUP BY f.document_id, f.line),
  came AS MATERIALIZED (
    SELECT p.id, p.no, p.name, p.seller, p.purchase_number AS number, p.bought_on AS date, coalesce(p.price, 0) AS price,
      p.document_id AS document, p.line, p.off_reason AS off,
      EXISTS (SELECT 1 FROM bought b WHERE b.document = p.document_id AND b.line = p.line) AS here
    FROM pieces p
    WHERE p.client_id = $1 AND p.is_set = 0 AND p.split_from IS NULL AND coalesce(p.bought_on, '') <= $2),
  listed AS (SELECT * FROM came WHERE here = 1 OR off IS NULL)`;

/** What documents and the stock book hold apart up to a day. */
export function stockTables(clientId: number, day: string, rule: StockBookRule): ApartTables {
  return {
    tables: `${SIDES},
      perLine AS (SELECT document, line, sum(price) AS amount FROM listed WHERE here = 1 GROUP BY document, line),
      apart AS (
        SELECT CASE WHEN p.amount IS NULL THEN 'unlisted' ELSE 'price' END AS cause,
          'line/' || b.document || '/' || b.line AS ref, d.date, d.number, coalesce(c.name, '') AS party,
          coalesce(l.text, '') AS text, coalesce(p.amount, 0) - b.amount AS amount
        FROM bought b JOIN documents d ON d.id = b.document LEFT JOIN contacts c ON c.id = d.contact_id
          LEFT JOIN perLine p ON p.document = b.document AND p.line = b.line
          LEFT JOIN lines l ON l.document_id = b.document AND l.no = b.line
        UNION ALL
        SELECT 'elsewhere', 'piece/' || no, coalesce(date, ''), number, seller, name, price FROM listed WHERE here = 0)`,
    bind: [clientId, day, rule.levy, JSON.stringify(rule.purchases)],
  };
}

/** What was bought under the scheme up to a day, by documents and by the stock book; none where no stock book is kept here. */
export async function stockFigures(
  work: Work,
  clientId: number,
  day: string,
  rule: StockBookRule,
): Promise<{ left: number; right: number } | null> {
  if (!(await work.row("SELECT 1 FROM pieces WHERE client_id = $1 LIMIT 1", [clientId]))) return null;
  return work.one(
    `WITH ${SIDES} SELECT (SELECT coalesce(sum(amount), 0) FROM bought) AS left,
       (SELECT coalesce(sum(price), 0) FROM listed) AS right`,
    [clientId, day, rule.levy, JSON.stringify(rule.purchases)],
  );
}
