import type { DetailPage, DetailRow, ReportFilter, SummaryRow } from "@fiscalon/contract/reports";
import type { Bind } from "../../db/database.ts";
import type { Work } from "../../base/work.ts";

/** Facts added up by levy, code, rate and side. Credit notes count negative, as the facts do. */
export async function taxSummary(
  work: Work,
  clientId: number,
  filter: ReportFilter,
  nameOf: (code: string) => string,
): Promise<SummaryRow[]> {
  const { where, bind } = conditions(clientId, filter);
  const rows = await work.remembered("tax summary", [where, bind], (work) =>
    work.rows<Omit<SummaryRow, "name">>(
      `SELECT f.levy, f.code, f.rate, f.direction, count(*) AS lines, sum(f.net) AS net, sum(f.tax) AS tax,
         sum(f.recoverable) AS recoverable
       FROM facts f WHERE ${where} GROUP BY f.levy, f.code, f.rate, f.direction
       ORDER BY f.levy, f.direction DESC, f.code, f.rate`,
      bind,
    ),
  );
  return rows.map((row) => ({ ...row, name: nameOf(row.code) }));
}

/** One page of the facts themselves, by code and then in order of time. */
export async function taxDetails(
  work: Work,
  clientId: number,
  filter: ReportFilter,
  { order, offset, limit }: { order: "time" | "code"; offset: number; limit: number },
): Promise<DetailPage> {
  const { where, bind } = conditions(clientId, filter);
  const count = await work.one<{ total: number }>(
    `SELECT count(*) AS total FROM facts f WHERE ${where}`,
    bind,
  );
  const rows = await work.rows<DetailRow>(
    `SELECT f.id, f.document_id AS document, f.line, d.number, d.date, f.tax_point AS taxPoint, f.period_end AS reported,
       coalesce(c.name, '') AS party, coalesce(l.text, '') AS text, f.levy, f.code, f.rate, f.direction, f.net, f.tax,
       f.recoverable
     FROM facts f JOIN documents d ON d.id = f.document_id LEFT JOIN contacts c ON c.id = d.contact_id
       LEFT JOIN lines l ON l.document_id = f.document_id AND l.no = f.line
     WHERE ${where}
     ORDER BY ${order === "code" ? "f.levy, f.direction DESC, f.code, f.rate," : ""} f.tax_point, f.document_id, f.line, f.id
     LIMIT $${bind.length + 1} OFFSET $${bind.length + 2}`,
    [...bind, limit, offset],
  );
  return { total: count.total, rows };
}

/** Tax that the buyer owes, on either side; supplies that bear none because the buyer owes it elsewhere, too. */
const REVERSE_CHARGE =
  "(f.charged <> 'charged' OR f.treatment IN ('reverse-charge', 'reverse-charge-supplier'))";

function conditions(clientId: number, filter: ReportFilter): { where: string; bind: Bind & unknown[] } {
  const bind: unknown[] = [clientId, filter.from, filter.to];
  const parts = [
    "f.client_id = $1 AND f.live = 1 AND f.held = 0",
    filter.by === "period" ? "f.period_end BETWEEN $2 AND $3" : "f.tax_point BETWEEN $2 AND $3",
  ];
  const equal = (column: string, value: string | number) => {
    if (value === "" || value === 0) return;
    bind.push(value);
    parts.push(`${column} = $${bind.length}`);
  };
  equal("f.registration_id", filter.registration);
  equal("f.direction", filter.direction);
  equal("f.levy", filter.levy);
  equal("f.code", filter.code);
  if (filter.charged === "reverse") parts.push(REVERSE_CHARGE);
  else equal("f.charged", filter.charged);
  return { where: parts.join(" AND "), bind };
}
