import { FiscalError } from "@fiscalon/core/errors";
import type { Work, Writing } from "../../base/work.ts";
import { SALE_LINE, shownNo } from "./pieces.ts";

/**
 * Pieces that were bought or taken off with a document follow its corrected version. What it now says they cost holds for
 * those that cost what it said before and are not sold.
 */
export async function movePieces(work: Writing, clientId: number, from: number, to: number): Promise<void> {
  await work.run(
    `UPDATE pieces AS p SET document_id = $3, price = CASE
         WHEN p.price IS (SELECT l.net FROM lines l WHERE l.document_id = $2 AND l.no = p.line) AND ${SALE_LINE} IS NULL
         THEN coalesce((SELECT l.net FROM lines l WHERE l.document_id = $3 AND l.no = p.line), p.price) ELSE p.price END
     WHERE p.client_id = $1 AND p.document_id = $2`,
    [clientId, from, to],
  );
  await work.run("UPDATE pieces SET ended_document = $3 WHERE client_id = $1 AND ended_document = $2", [
    clientId,
    from,
    to,
  ]);
}

/** Refuses to take out purchases that pieces of the stock book come from. */
export async function refuseBought(
  work: Work,
  clientId: number,
  documents: readonly number[],
): Promise<void> {
  const piece = await work.row<{ no: number; number: string }>(
    `SELECT p.no, d.number FROM pieces p JOIN documents d ON d.id = coalesce(p.document_id, p.ended_document)
     WHERE p.client_id = $1 AND d.id IN (SELECT value FROM json_each($2)) LIMIT 1`,
    [clientId, JSON.stringify(documents)],
  );
  if (!piece) return;
  throw new FiscalError(
    "stock/bought",
    `Piece ${shownNo(piece.no)} of the stock book comes from ${piece.number}. Remove it from the book, or put it back in stock, before.`,
    "documents",
  );
}
