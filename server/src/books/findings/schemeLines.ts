import type { FilingPeriod } from "@fiscalon/core/calendar/filingPeriods";
import type { SchemeLineRow } from "@fiscalon/core/findings/periodRows";
import type { SchemeDefinition } from "@fiscalon/core/model/scheme";
import { schemeOn, schemesOf, takingsCodesOf } from "@fiscalon/core/model/scheme";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";

/**
 * Lines with codes that only a scheme gives a meaning, where it is not in force on their day; and what cost more than a
 * piece of a pool may.
 * @param used the codes that are on the return
 */
export async function schemeLines(
  work: Work,
  r: RegistrationRecord,
  { to }: FilingPeriod,
  used: ReadonlySet<string>,
): Promise<SchemeLineRow[]> {
  const rows: SchemeLineRow[] = [];
  for (const { id, name, rule } of schemesOf(work.packs.byId(r.pack))) {
    const codes = codesOf(rule).filter((code) => used.has(code));
    if (codes.length === 0) continue;
    const upTo = rule.kind === "margin-pool" ? rule.upTo : 0;
    const dearCodes = rule.kind === "margin-pool" ? rule.purchases : [];
    const lines = await work.rows<
      Omit<SchemeLineRow, "scheme" | "inForce" | "upTo"> & { on: string; code: string }
    >(
      `SELECT DISTINCT d.id AS document, l.no AS line, d.number, f.code, f.tax_point AS "on",
         l.net / max(1, coalesce(CAST(l.quantity AS REAL), 1)) AS price
       FROM facts f JOIN documents d ON d.id = f.document_id
         JOIN lines l ON l.document_id = f.document_id AND l.no = f.line
       WHERE f.registration_id = $1 AND f.period_end = $2 AND f.live = 1
         AND f.code IN (SELECT value FROM json_each($3)) ORDER BY d.date, d.id, l.no`,
      [r.id, to, JSON.stringify(codes)],
    );
    const spans = r.schemes.filter(({ scheme }) => scheme === id);
    for (const { document, line, number, on, code, price } of lines) {
      const inForce = schemeOn(spans, on) !== undefined;
      const dear = dearCodes.includes(code) && price > upTo;
      if (!inForce || dear)
        rows.push({
          document,
          line,
          number,
          scheme: name,
          inForce,
          price: Math.round(price),
          upTo,
        });
    }
  }
  return rows;
}

/** The codes whose tax only the scheme works out. */
function codesOf(rule: SchemeDefinition["rule"]): readonly string[] {
  if (rule.kind === "margin-pool") return [...rule.sales, ...rule.purchases];
  if (rule.kind === "retail-takings") return takingsCodesOf(rule);
  if (rule.kind === "percentage-split") return [...rule.sales.codes, ...rule.stock.codes];
  if (rule.kind === "yearly-add-back") return rule.codes;
  if (rule.kind === "resale-credit") return [...rule.sales, ...rule.lots.bought, ...rule.lots.sold];
  return rule.kind === "attribution" && !rule.byHand ? rule.residual : [];
}
