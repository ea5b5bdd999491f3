import type { PieceEnd, PieceRecord, StockBookRule } from "@fiscalon/core/model/stockBook";
import { notFound } from "../../base/errors.ts";
import type { Work } from "../../base/work.ts";
import { inKinds } from "../../db/kindSql.ts";
import { kindOf } from "@fiscalon/core/model/documentKinds";
import type { ClientSetup } from "../loadSetup.ts";

/** A piece as it is kept. */
export interface StoredPiece extends PieceRecord {
  id: number;
  no: number;
  document: number | null;
  line: number | null;
  offReason: string | null;
  note: string;
  isSet: number;
  partOf: number | null;
  splitFrom: number | null;
  ended: PieceEnd | null;
  endedOn: string | null;
  endedReason: string | null;
  endedDocument: number | null;
}

const COLUMNS = `p.id, p.no, p.name, p.identifier, p.kind, p.bought_on AS boughtOn, p.price,
  p.purchase_number AS purchaseNumber, p.seller, p.seller_address AS sellerAddress, p.document_id AS document, p.line,
  p.off_reason AS offReason, p.note, p.is_set AS isSet, p.part_of AS partOf, p.split_from AS splitFrom, p.ended,
  p.ended_on AS endedOn, p.ended_reason AS endedReason, p.ended_document AS endedDocument`;

const SELLS = inKinds("d.kind", (_, kind) => kindOf(kind).sign > 0);
const ON_SALES = inKinds("d.kind", (_, kind) => kindOf(kind).direction === "sale");
const SOLD = `sum(CASE WHEN ${SELLS} THEN 1 ELSE -1 END)`;

/**
 * The sale of each piece of client $1 that is sold: what was sold and not taken back by a credit note, as
 * `piece` (its number as text) and `line`.
 */
export const SALES = `SELECT l.attributes ->> '$.piece' AS piece, max(CASE WHEN ${SELLS} THEN l.id END) AS line
  FROM lines l CROSS JOIN documents d ON d.id = l.document_id
  WHERE l.attributes ->> '$.piece' IS NOT NULL AND d.client_id = $1 AND d.state = 'posted' AND ${ON_SALES}
  GROUP BY l.attributes ->> '$.piece' HAVING ${SOLD} > 0`;

/** The line that sold piece `p` of client $1, where one did: the same for a few pieces. */
export const SALE_LINE = `(SELECT CASE WHEN ${SOLD} > 0 THEN max(CASE WHEN ${SELLS} THEN l.id END) END
  FROM lines l CROSS JOIN documents d ON d.id = l.document_id
  WHERE l.attributes ->> '$.piece' IS NOT NULL AND l.attributes ->> '$.piece' = (p.no || '')
    AND d.client_id = $1 AND d.state = 'posted' AND ${ON_SALES})`;

/** The stock book rule of a client: that of the first of its registrations whose jurisdiction has one. */
export function stockRule(
  { packs }: Pick<Work, "packs">,
  { registrations, client }: Pick<ClientSetup, "registrations" | "client">,
): { rule: StockBookRule; pack: string } | undefined {
  for (const { pack } of registrations) {
    const rule = packs.byId(pack).stockBook;
    if (rule) return { rule, pack };
  }
  const home = packs.ofCountry(client.country);
  return home?.stockBook ? { rule: home.stockBook, pack: home.id } : undefined;
}

export async function loadPieces(
  work: Work,
  clientId: number,
  condition: string,
  bind: readonly unknown[],
): Promise<StoredPiece[]> {
  return work.rows<StoredPiece>(
    `SELECT ${COLUMNS} FROM pieces p WHERE p.client_id = $1 AND (${condition}) ORDER BY p.no`,
    [clientId, ...bind],
  );
}

/** One piece by its number. */
export async function pieceWithNo(work: Work, clientId: number, no: number): Promise<StoredPiece> {
  const [piece] = await loadPieces(work, clientId, "p.no = $2", [no]);
  if (!piece) throw notFound(`Piece ${shownNo(no)}`);
  return piece;
}

export async function nextPieceNo(work: Work, clientId: number): Promise<number> {
  const { last } = await work.one<{ last: number }>(
    "SELECT coalesce(max(no), 0) AS last FROM pieces WHERE client_id = $1",
    [clientId],
  );
  return last + 1;
}

/** A number as the book writes it. */
export function shownNo(no: number): string {
  return String(no).padStart(4, "0");
}

/** The line that sold a piece, where one did. */
export async function saleOf(
  work: Work,
  clientId: number,
  no: number,
  except = 0,
): Promise<{ document: number; line: number; number: string } | undefined> {
  const rows = await work.rows<{ document: number; line: number; number: string; sign: number }>(
    `SELECT d.id AS document, l.no AS line, d.number,
       CASE WHEN ${SELLS} THEN 1 ELSE -1 END AS sign
     FROM lines l CROSS JOIN documents d ON d.id = l.document_id
     WHERE l.attributes ->> '$.piece' IS NOT NULL AND l.attributes ->> '$.piece' = $2 AND d.client_id = $1
       AND d.state = 'posted' AND d.id <> $3 AND ${ON_SALES}
     ORDER BY d.id`,
    [clientId, String(no), except],
  );
  const sold = rows.reduce((sum, { sign }) => sum + sign, 0);
  return sold > 0 ? rows.filter(({ sign }) => sign > 0).at(-1) : undefined;
}
