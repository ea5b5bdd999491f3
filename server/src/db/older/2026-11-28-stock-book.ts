import type { Migration } from "../migration.ts";

/**
 * The pieces of a stock book. Their sale is the line of a document that names the piece, and stands nowhere else.
 * `part_of`: the set a piece was joined into; `split_from`: the lot it came out of.
 */
export const stockBook: Migration = {
  name: "2026-11-28-stock-book",
  statements: [
    `CREATE TABLE pieces (
      id INTEGER PRIMARY KEY, client_id INTEGER NOT NULL REFERENCES clients(id), no INTEGER NOT NULL,
      name TEXT NOT NULL, identifier TEXT NOT NULL, kind TEXT NOT NULL, bought_on TEXT, price INTEGER,
      purchase_number TEXT NOT NULL, seller TEXT NOT NULL, seller_address TEXT NOT NULL,
      document_id INTEGER REFERENCES documents(id), line INTEGER,
      off_reason TEXT, note TEXT NOT NULL, is_set INTEGER NOT NULL DEFAULT 0,
      part_of INTEGER REFERENCES pieces(id), split_from INTEGER REFERENCES pieces(id),
      ended TEXT, ended_on TEXT, ended_reason TEXT, ended_document INTEGER REFERENCES documents(id),
      created_at TEXT NOT NULL, created_by INTEGER NOT NULL REFERENCES people(id), UNIQUE (client_id, no))`,
    "CREATE INDEX pieces_of_document ON pieces (document_id, line) WHERE document_id IS NOT NULL",
    "CREATE INDEX parts_of_sets ON pieces (part_of) WHERE part_of IS NOT NULL",
    `CREATE INDEX lines_of_pieces ON lines (attributes ->> '$.piece', document_id)
      WHERE attributes ->> '$.piece' IS NOT NULL`,
    `CREATE INDEX lines_spent_on_pieces ON lines (attributes ->> '$.pieceCost', document_id)
      WHERE attributes ->> '$.pieceCost' IS NOT NULL`,
  ],
};
