import { gstr1File } from "@fiscalon/core/formats/authority/gstr1";
import type { OutwardFact, OutwardFile } from "@fiscalon/core/formats/authority/gstr1";
import type { SupplyNames } from "@fiscalon/core/model/returnRegister";
import type { CommodityRow } from "@fiscalon/core/returns/commoditySummary";
import type { IssuedRun } from "@fiscalon/core/returns/documentsIssued";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { money, plain } from "./registerColumns.ts";
import type { RegisterTable } from "./registerColumns.ts";

/** The outward documents of a period as the file the portal takes. */
export async function outwardFile(
  work: Work,
  r: RegistrationRecord,
  end: string,
  names: SupplyNames,
  commodities: readonly CommodityRow[],
  issued: readonly IssuedRun[],
): Promise<OutwardFile> {
  const facts = await work.rows<OutwardFact>(
    `SELECT f.document_id AS document, d.number, d.date, d.gross, coalesce(c.tax_number, '') AS taxNumber,
       coalesce(c.region, '') AS state, f.line, f.levy, f.code, f.rate, f.net, f.tax, f.recoverable, f.base, f.tags
     FROM facts f JOIN documents d ON d.id = f.document_id LEFT JOIN contacts c ON c.id = d.contact_id
     WHERE f.registration_id = $1 AND f.period_end = $2 AND f.live = 1 AND f.held = 0 AND f.direction = 'sale'
     ORDER BY d.date, f.document_id, f.line, f.id`,
    [r.id, end],
  );
  return gstr1File(facts, { gstin: r.number ?? "", home: r.region ?? "", end, names }, commodities, issued);
}

/** What the file holds, a row for each table, and what has to be typed beside it. */
export function tablesOfFile({ tables, left }: OutwardFile): RegisterTable {
  return {
    columns: [
      plain("Table"),
      plain("Documents"),
      ...["Value", "Integrated tax", "Central tax", "State tax", "Cess"].map(money),
    ],
    rows: tables.map(({ table, rows, columns }) => [
      table,
      String(rows),
      columns.txval + columns.nil + columns.exempt + columns.nongst,
      columns.igst,
      columns.cgst,
      columns.sgst,
      columns.cess,
    ]),
    opens: tables.map(() => null),
    total: tables.length,
    missing: left.length === 0 ? null : `Not in the file, to be typed on the portal: ${left.join(", ")}.`,
  };
}
