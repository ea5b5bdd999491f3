import type { FilingPeriod } from "@fiscalon/core/calendar/filingPeriods";
import type { SoldPieceRow } from "@fiscalon/core/findings/periodRows";
import { missingFields, PIECE_FIELDS } from "@fiscalon/core/model/stockBook";
import { taxInside } from "@fiscalon/core/schemes/stockBook";
import { rateOn } from "@fiscalon/core/tax/rateInForce";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import type { ClientSetup } from "../loadSetup.ts";
import { loadPieces } from "../stock/pieces.ts";

/**
 * Sales on the margin that the return of a period holds, where the stock book lacks something of their piece or does not
 * have it. Whoever keeps no stock book here keeps it elsewhere.
 */
export async function soldPieces(
  work: Work,
  { client, plain }: ClientSetup,
  r: RegistrationRecord,
  { to }: FilingPeriod,
): Promise<SoldPieceRow[]> {
  const rule = work.packs.byId(r.pack).stockBook;
  if (!rule || !(await work.row("SELECT 1 FROM pieces WHERE client_id = $1 LIMIT 1", [client.id]))) return [];
  const sold = await work.rows<{
    document: number;
    line: number;
    number: string;
    piece: string | null;
    gross: number;
    on: string;
  }>(
    `SELECT DISTINCT d.id AS document, l.no AS line, d.number, l.attributes ->> '$.piece' AS piece, l.gross,
       f.tax_point AS "on"
     FROM facts f JOIN documents d ON d.id = f.document_id JOIN lines l ON l.document_id = d.id AND l.no = f.line
     WHERE f.registration_id = $1 AND f.period_end = $2 AND f.live = 1 AND f.credit = 0
       AND f.code IN (SELECT value FROM json_each($3)) ORDER BY d.date, d.id, l.no`,
    [r.id, to, JSON.stringify(rule.sales)],
  );
  if (sold.length === 0) return [];
  const nos = sold.flatMap(({ piece }) => (piece === null ? [] : [Number(piece)]));
  const pieces = await loadPieces(work, client.id, "p.no IN (SELECT value FROM json_each($2))", [
    JSON.stringify(nos),
  ]);
  const byNo = new Map(pieces.map((piece) => [piece.no, piece]));
  return sold.flatMap(({ document, line, number, piece: no, gross, on }): SoldPieceRow[] => {
    const at = { document, line, number };
    if (no === null) return [{ ...at, piece: null, missing: [], full: 0, inside: 0 }];
    const piece = byNo.get(Number(no));
    if (!piece || piece.isSet === 1) return [];
    const missing = missingFields(rule, piece).map((field) => PIECE_FIELDS[field]);
    if (missing.length === 0) return [];
    const rate = rateOn(plain.schedules, rule.rate, on);
    const inside = taxInside(gross - (piece.price ?? 0), rate);
    return [{ ...at, piece: piece.no, missing, full: taxInside(gross, rate), inside }];
  });
}
