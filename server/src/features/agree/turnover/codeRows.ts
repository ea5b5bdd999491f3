import { BRIDGES } from "@fiscalon/core/agree/turnoverBridge";
import type { BridgeOf, CodeOnReturn } from "@fiscalon/core/agree/turnoverBridge";
import { groupBy } from "@fiscalon/core/groupBy";
import { boxTags, landed } from "@fiscalon/core/model/boxTags";
import type { Measures } from "@fiscalon/core/model/boxTags";
import type { ReturnForm } from "@fiscalon/core/model/returnForm";
import type { Work } from "../../../base/work.ts";
import type { RegistrationRecord } from "../../../db/models.ts";
import type { ApartRow, Span } from "../../../books/agree/turnover/apartRows.ts";
import { turnoverBoxes } from "../../../books/agree/turnover/turnoverBoxes.ts";

/**
 * Lines of codes whose value is not what the turnover boxes hold of it, largest first: `ledger` the value, `base` what the
 * boxes hold.
 */
export async function codeRows(
  work: Work,
  r: Pick<RegistrationRecord, "id">,
  { from, to }: Span,
  codes: readonly CodeOnReturn[],
  form: ReturnForm,
  of: BridgeOf,
  { offset, limit }: { offset: number; limit: number },
): Promise<ApartRow[]> {
  const wanted = JSON.stringify([...new Set(codes.map(({ code, direction }) => `${direction} ${code}`))]);
  const lines = await work.rows<Omit<ApartRow, "key" | "base" | "reason" | "suggestion">>(
    `SELECT f.document_id AS document, f.line, d.date, d.number, coalesce(c.name, '') AS party, coalesce(l.text, '') AS text,
       coalesce(l.account, '') AS account, CASE WHEN f.direction = '${BRIDGES[of].direction}' THEN f.net ELSE 0 END AS ledger,
       count(*) OVER () AS total
     FROM (SELECT document_id, line, direction, net, min(levy) FROM (
         SELECT document_id, line, levy, direction, sum(net) AS net FROM facts
         WHERE registration_id = $1 AND live = 1 AND held = 0 AND period_end BETWEEN $2 AND $3
           AND direction || ' ' || code IN (SELECT value FROM json_each($4)) GROUP BY document_id, line, levy)
       GROUP BY document_id, line) f
       JOIN documents d ON d.id = f.document_id JOIN lines l ON l.document_id = f.document_id AND l.no = f.line
       LEFT JOIN contacts c ON c.id = d.contact_id
     ORDER BY abs(f.net) DESC, f.document_id, f.line LIMIT $5 OFFSET $6`,
    [r.id, from, to, wanted, limit, offset],
  );
  const facts = await work.rows<Measures & { document: number; line: number; tags: string }>(
    `SELECT document_id AS document, line, tags, sum(net) AS net, sum(tax) AS tax, sum(recoverable) AS recoverable,
       sum(base) AS base FROM facts
     WHERE registration_id = $1 AND live = 1 AND held = 0 AND period_end BETWEEN $2 AND $3
       AND document_id IN (SELECT value FROM json_each($4)) GROUP BY document_id, line, levy, tags`,
    [r.id, from, to, JSON.stringify([...new Set(lines.map(({ document }) => document))])],
  );
  const byLine = groupBy(facts, ({ document, line }) => `${document}/${line}`);
  return lines.map((row) => {
    const own = byLine.get(`${row.document}/${row.line}`) ?? [];
    const base = own.flatMap((fact) => inBoxes(form, of, fact)).reduce((sum, amount) => sum + amount, 0);
    return { ...row, base, key: `document/${row.document}/${row.line}`, reason: "", suggestion: null };
  });
}

function inBoxes(form: ReturnForm, of: BridgeOf, fact: Measures & { tags: string }): number[] {
  const tags = boxTags(fact.tags).map((tag) => ({ ...tag, amount: landed(fact, tag) }));
  return turnoverBoxes(form, tags, of).map(({ amount }) => amount);
}
