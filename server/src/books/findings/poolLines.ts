import type { FilingPeriod } from "@fiscalon/core/calendar/filingPeriods";
import type { PoolLineRow } from "@fiscalon/core/findings/periodRows";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";

/** Lines with the codes of a pool that is not in force on their day, or that cost more than a piece of it may. */
export async function poolLines(
  work: Work,
  r: RegistrationRecord,
  { to }: FilingPeriod,
): Promise<PoolLineRow[]> {
  const rows: PoolLineRow[] = [];
  for (const { id, name, rule } of work.packs.byId(r.pack).schemes ?? []) {
    if (rule.kind !== "margin-pool") continue;
    const lines = await work.rows<
      Omit<PoolLineRow, "scheme" | "inForce" | "upTo"> & { on: string; code: string }
    >(
      `SELECT DISTINCT d.id AS document, l.no AS line, d.number, f.code, f.tax_point AS "on",
         l.net / max(1, coalesce(CAST(l.quantity AS REAL), 1)) AS price
       FROM facts f JOIN documents d ON d.id = f.document_id
         JOIN lines l ON l.document_id = f.document_id AND l.no = f.line
       WHERE f.registration_id = $1 AND f.period_end = $2 AND f.live = 1
         AND f.code IN (SELECT value FROM json_each($3)) ORDER BY d.date, d.id, l.no`,
      [r.id, to, JSON.stringify([...rule.sales, ...rule.purchases])],
    );
    const spans = r.schemes.filter(({ scheme }) => scheme === id);
    for (const { document, line, number, on, code, price } of lines) {
      const inForce = spans.some((span) => span.from <= on && (span.to === null || on <= span.to));
      const dear = rule.purchases.includes(code) && price > rule.upTo;
      if (!inForce || dear)
        rows.push({
          document,
          line,
          number,
          scheme: name,
          inForce,
          price: Math.round(price),
          upTo: rule.upTo,
        });
    }
  }
  return rows;
}
