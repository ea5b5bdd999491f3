import { found } from "@fiscalon/core/at";
import { askedOf } from "@fiscalon/core/model/stockBook";
import { taxInside } from "@fiscalon/core/schemes/stockBook";
import { rateOn } from "@fiscalon/core/tax/rateInForce";
import type { PieceView } from "@fiscalon/contract/stockBook";
import type { Work } from "../../base/work.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { loadPieces, pieceWithNo, SALE_LINE } from "../../books/stock/pieces.ts";
import { requireRule } from "../../books/stock/requireRule.ts";
import { ONE_BY_ONE, pieceRow, ROW } from "./pieceRow.ts";
import type { Row } from "./pieceRow.ts";

/** A piece with both of its sides, its papers' numbers, and what was spent on it beside. */
export async function pieceView(work: Work, setup: ClientSetup, no: number): Promise<PieceView> {
  const { rule } = requireRule(work, setup);
  const client = setup.client.id;
  const piece = await pieceWithNo(work, client, no);
  const row = found(
    await work.rows<Row>(`SELECT ${ROW} ${ONE_BY_ONE} WHERE p.client_id = $1 AND p.no = $2`, [client, no]),
    () => true,
    `piece ${no}`,
  );
  const shown = pieceRow(rule, row);
  const sale = await work.row<{ document: number; line: number; number: string; code: string }>(
    `SELECT d.id AS document, l.no AS line, d.number, l.code FROM pieces p JOIN lines l ON l.id = ${SALE_LINE}
     JOIN documents d ON d.id = l.document_id WHERE p.client_id = $1 AND p.no = $2`,
    [client, no],
  );
  const bought =
    piece.document === null
      ? null
      : await work.row<{ number: string }>("SELECT number FROM documents WHERE id = $1", [piece.document]);
  const parts = await loadPieces(work, client, "p.part_of = $2 OR p.split_from = $2", [piece.id]);
  const lot = piece.splitFrom === null ? [] : await loadPieces(work, client, "p.id = $2", [piece.splitFrom]);
  const rate = rateOn(setup.plain.schedules, rule.rate, row.soldOn ?? work.today);
  const whole = row.sold ?? piece.price ?? 0;
  return {
    ...shown,
    purchaseNumber: piece.purchaseNumber,
    sellerAddress: piece.sellerAddress,
    note: piece.note,
    bought:
      piece.document === null
        ? null
        : { document: piece.document, line: piece.line ?? 1, number: bought?.number ?? "" },
    sale: sale ? { ...sale, onMargin: rule.sales.includes(sale.code) } : null,
    asked: askedOf(rule, piece.kind).length,
    rate,
    consequence:
      shown.missing.length === 0
        ? null
        : { full: taxInside(whole, rate), inside: taxInside(whole - (piece.price ?? 0), rate) },
    parts: parts.map((part) => ({ no: part.no, name: part.name, price: part.price })),
    splitFrom: lot[0]?.no ?? null,
    ended:
      piece.ended === null
        ? null
        : { kind: piece.ended, on: piece.endedOn ?? "", reason: piece.endedReason ?? "" },
    beside: await work.rows(
      `SELECT d.id AS document, l.no AS line, d.number, l.text, l.net, l.gross - l.net AS tax
       FROM lines l CROSS JOIN documents d ON d.id = l.document_id
       WHERE d.client_id = $1 AND d.state = 'posted' AND l.attributes ->> '$.pieceCost' IS NOT NULL
         AND l.attributes ->> '$.pieceCost' = $2 ORDER BY d.date, d.id`,
      [client, String(no)],
    ),
  };
}
