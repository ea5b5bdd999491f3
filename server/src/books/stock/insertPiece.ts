import type { Writing } from "../../base/work.ts";
import type { StoredPiece } from "./pieces.ts";

type Ends = "isSet" | "partOf" | "splitFrom" | "ended" | "endedOn" | "endedReason" | "endedDocument";
export type NewPiece = Omit<StoredPiece, "id" | Ends> & Partial<Pick<StoredPiece, Ends>>;

/** Writes a piece; gives its id. */
export async function insertPiece(work: Writing, clientId: number, piece: NewPiece): Promise<number> {
  const { createdAt, createdBy } = work.made;
  await work.run(
    `INSERT INTO pieces (client_id, no, name, identifier, kind, bought_on, price, purchase_number, seller,
       seller_address, document_id, line, off_reason, note, is_set, part_of, split_from, ended, ended_on, ended_reason,
       ended_document, created_at, created_by)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15, $16, $17, $18, $19, $20, $21, $22, $23)`,
    [
      clientId,
      piece.no,
      piece.name,
      piece.identifier,
      piece.kind,
      piece.boughtOn || null,
      piece.price,
      piece.purchaseNumber,
      piece.seller,
      piece.sellerAddress,
      piece.document,
      piece.line,
      piece.offReason,
      piece.note,
      piece.isSet ?? 0,
      piece.partOf ?? null,
      piece.splitFrom ?? null,
      piece.ended ?? null,
      piece.endedOn ?? null,
      piece.endedReason ?? null,
      piece.endedDocument ?? null,
      createdAt,
      createdBy,
    ],
  );
  const { id } = await work.one<{ id: number }>("SELECT id FROM pieces WHERE client_id = $1 AND no = $2", [
    clientId,
    piece.no,
  ]);
  return id;
}
