import { missingFields, PIECE_FIELDS } from "@fiscalon/core/model/stockBook";
import type { StockBookRule } from "@fiscalon/core/model/stockBook";
import type { PieceRow } from "@fiscalon/contract/stockBook";
import { SALE_LINE, SALES } from "../../books/stock/pieces.ts";
import type { StoredPiece } from "../../books/stock/pieces.ts";

const SOLD_WITH = `LEFT JOIN lines l ON l.id = s.line LEFT JOIN documents d ON d.id = l.document_id
  LEFT JOIN contacts c ON c.id = d.contact_id`;
/** All pieces with their sales. */
export const FROM = `FROM pieces p LEFT JOIN (${SALES}) s ON s.piece = (p.no || '') ${SOLD_WITH}`;
/** The same for a few of them: the sale of each is looked up. */
export const ONE_BY_ONE = `FROM (SELECT p.*, ${SALE_LINE} AS sale FROM pieces p) p
  LEFT JOIN (SELECT id AS line, id AS piece FROM lines) s ON s.line = p.sale ${SOLD_WITH}`;
/** Tax on the sale: what the line is more than its value. */
export const TAX = "(l.gross - l.net)";

export type Row = StoredPiece & {
  soldOn: string | null;
  sold: number | null;
  tax: number | null;
  code: string | null;
  buyer: string | null;
};

export const ROW = `p.id, p.no, p.name, p.identifier, p.kind, p.bought_on AS boughtOn, p.price,
  p.purchase_number AS purchaseNumber, p.seller, p.seller_address AS sellerAddress, p.off_reason AS offReason,
  p.is_set AS isSet, p.ended, d.date AS soldOn, l.gross AS sold, l.code, ${TAX} AS tax,
  c.name AS buyer, (SELECT x.no FROM pieces x WHERE x.id = p.part_of) AS partOf`;

export function pieceRow(rule: StockBookRule, row: Row): PieceRow {
  const { no, name, identifier, kind, boughtOn, price, seller, offReason, partOf } = row;
  const sold = row.soldOn !== null;
  const onMargin = sold && row.code !== null && rule.sales.includes(row.code);
  return {
    no,
    name,
    identifier,
    kind,
    boughtOn,
    price,
    seller,
    state: partOf !== null ? "part" : (row.ended ?? (sold ? "sold" : "in-stock")),
    offReason,
    missing:
      offReason !== null || row.isSet === 1
        ? []
        : missingFields(rule, row).map((field) => PIECE_FIELDS[field]),
    isSet: row.isSet === 1,
    partOf,
    soldOn: row.soldOn,
    sold: row.sold,
    margin: onMargin && row.sold !== null && price !== null ? row.sold - price : null,
    tax: row.tax ?? (sold ? 0 : null),
    buyer: row.buyer ?? "",
  };
}
