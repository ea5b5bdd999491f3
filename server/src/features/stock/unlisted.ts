import type { StockBookRule } from "@fiscalon/core/model/stockBook";
import type { UnlistedLine } from "@fiscalon/contract/stockBook";
import type { Work } from "../../base/work.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { inKinds } from "../../db/kindSql.ts";
import { kindOf } from "@fiscalon/core/model/documentKinds";
import { requireRule } from "../../books/stock/requireRule.ts";

/** Lines with a code are fewer than documents of all years. */
const WITH_CODE = "lines l INDEXED BY lines_of_code CROSS JOIN documents d ON d.id = l.document_id";
const UNLISTED = `d.client_id = $1 AND d.state = 'posted' AND d.opening = 0
  AND ${inKinds("d.kind", (_, kind) => kindOf(kind).direction === "purchase" && kindOf(kind).sign > 0)}
  AND l.code IN (SELECT value FROM json_each($2)) AND l.net > 0
  AND NOT EXISTS (SELECT 1 FROM pieces p WHERE p.document_id = d.id AND p.line = l.no)`;

/** How many lines these are. */
export async function unlistedCount(
  work: Work,
  { client }: ClientSetup,
  rule: StockBookRule,
): Promise<number> {
  const { count } = await work.one<{ count: number }>(
    `SELECT count(*) AS count FROM ${WITH_CODE} WHERE ${UNLISTED}`,
    [client.id, JSON.stringify(rule.purchases)],
  );
  return count;
}

/** Purchase lines with the code of the scheme that no piece comes from. */
export async function unlistedLines(work: Work, setup: ClientSetup): Promise<UnlistedLine[]> {
  const { rule } = requireRule(work, setup);
  return work.rows<UnlistedLine>(
    `SELECT d.id AS document, l.no AS line, d.number, d.date, coalesce(c.name, '') AS party, l.text, l.net
     FROM ${WITH_CODE} LEFT JOIN contacts c ON c.id = d.contact_id
     WHERE ${UNLISTED}
     ORDER BY d.date, d.id, l.no LIMIT 1000`,
    [setup.client.id, JSON.stringify(rule.purchases)],
  );
}
