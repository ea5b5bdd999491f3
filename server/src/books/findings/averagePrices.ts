import type { FilingPeriod } from "@fiscalon/core/calendar/filingPeriods";
import type { AveragePriceRow, PeriodContext } from "@fiscalon/core/findings/periodRows";
import { groupBy } from "@fiscalon/core/groupBy";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";

interface SoldLine {
  document: number;
  line: number;
  number: string;
  code: string;
  item: string | null;
  typed: number;
  net: number;
  quantity: number;
}

/** Lines taxed on the average price of their item, with what the period's own sales of it say. */
export async function averagePrices(
  work: Work,
  r: RegistrationRecord,
  { to }: FilingPeriod,
  { pack, digits }: Pick<PeriodContext, "pack" | "digits">,
): Promise<AveragePriceRow[]> {
  const rows: AveragePriceRow[] = [];
  for (const check of pack.checks ?? []) {
    if (check.kind !== "average-price") continue;
    const { codes, attribute, wholesale, least } = check;
    const lines = await work.rows<SoldLine>(
      `SELECT f.document_id AS document, f.line, d.number, f.code, coalesce(i.name, l.item) AS item, CASE f.credit WHEN 1 THEN -l.net ELSE l.net END AS net,
         CAST(coalesce(l.attributes ->> $3, '0') AS REAL) * $4 AS typed,
         CAST(coalesce(l.quantity, '1') AS REAL) * (CASE f.credit WHEN 1 THEN -1 ELSE 1 END) AS quantity
       FROM (SELECT DISTINCT document_id, line, code, credit FROM facts
         WHERE registration_id = $1 AND live = 1 AND period_end = $2 AND direction = 'sale'
           AND code IN (SELECT value FROM json_each($5))) f
         JOIN lines l ON l.document_id = f.document_id AND l.no = f.line JOIN documents d ON d.id = f.document_id
         LEFT JOIN items i ON i.client_id = d.client_id AND i.ref = l.item
       ORDER BY f.document_id, f.line`,
      [r.id, to, `$.${attribute}`, 10 ** digits, JSON.stringify([...codes, ...wholesale])],
    );
    const byItem = groupBy(lines, ({ item }) => item);
    for (const { document, line, number, code, item, typed } of lines) {
      if (!codes.includes(code)) continue;
      const same = byItem.get(item) ?? [];
      const bulk = same.filter((one) => wholesale.includes(one.code));
      const sum = (of: readonly SoldLine[], what: "net" | "quantity") =>
        of.reduce((total, one) => total + one[what], 0);
      rows.push({
        document,
        line,
        number,
        item,
        typed,
        least,
        sold: sum(bulk, "net"),
        quantity: sum(bulk, "quantity"),
        of: sum(same, "quantity"),
      });
    }
  }
  return rows;
}
