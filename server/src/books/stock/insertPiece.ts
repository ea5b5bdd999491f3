import type { Writing } from "../../base/work.ts";
import type { StoredPiece } from "./pieces.ts";

type Ends = "isSet" | "partOf" | "splitFrom" | "ended" | "endedOn" | "endedReason" | "endedDocument";
export type NewPiece = Omit<StoredPiece, "id" | Ends> & Partial<Pick<StoredPiece, Ends>>;

/** A piece by itself that has not left the book. */
const BY_ITSELF: Pick<StoredPiece, Ends> = {
  isSet: 0,
  partOf: null,
  splitFrom: null,
  ended: null,
  endedOn: null,
  endedReason: null,
  endedDocument: null,
};

/** Writes a piece; gives its id. */
export async function insertPiece(work: Writing, clientId: number, made: NewPiece): Promise<number> {
  const { createdAt, createdBy } = work.made;
  const piece: Omit<StoredPiece, "id"> = { ...BY_ITSELF, ...made };
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
      piece.isSet,
      piece.partOf,
      piece.splitFrom,
      piece.ended,
      piece.endedOn,
      piece.endedReason,
      piece.endedDocument,
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
