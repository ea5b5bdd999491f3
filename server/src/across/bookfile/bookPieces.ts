import { valueAt } from "@fiscalon/core/at";
import { FiscalError } from "@fiscalon/core/errors";
import { formatAmount, parseAmount } from "@fiscalon/core/money/amount";
import type { BookFile } from "@fiscalon/contract/book";
import type { BookPiece } from "@fiscalon/contract/stockBook";
import type { Work, Writing } from "../../base/work.ts";
import { inField } from "../../base/errors.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { insertPiece } from "../../books/stock/insertPiece.ts";
import { loadPieces } from "../../books/stock/pieces.ts";
import { refuseWrongSales } from "../../books/stock/sellPieces.ts";
import { placedAt, pointerTo } from "./pointers.ts";
import type { PlacedRows, RowsOf } from "./pointers.ts";

/** The stock book, with pointers to the documents its pieces were bought on or taken off with. */
export async function piecesOfBook(
  work: Work,
  { client, plain }: ClientSetup,
  rowsOf: RowsOf,
): Promise<Pick<BookFile, "pieces">> {
  const stored = await loadPieces(work, client.id, "1", []);
  if (stored.length === 0) return {};
  const numbers = new Map(stored.map(({ id, no }) => [id, no]));
  const pieces = stored.map((piece): BookPiece => {
    const { no, name, identifier, kind, boughtOn, price, purchaseNumber, seller, sellerAddress } = piece;
    const bought = pointerTo(rowsOf, "documents", piece.document);
    const journal = pointerTo(rowsOf, "documents", piece.endedDocument);
    return {
      no,
      name,
      identifier,
      kind,
      boughtOn,
      price: price === null ? null : formatAmount(price, plain.digits),
      purchaseNumber,
      seller,
      sellerAddress,
      ...(bought === null ? {} : { bought: { document: bought, line: piece.line ?? 1 } }),
      ...(piece.offReason === null ? {} : { offReason: piece.offReason }),
      ...(piece.note === "" ? {} : { note: piece.note }),
      ...(piece.isSet === 1 ? { isSet: true } : {}),
      ...(piece.partOf === null ? {} : { partOf: valueAt(numbers, piece.partOf) }),
      ...(piece.splitFrom === null ? {} : { splitFrom: valueAt(numbers, piece.splitFrom) }),
      ...(piece.ended === null
        ? {}
        : {
            ended: {
              kind: piece.ended,
              on: piece.endedOn ?? "",
              reason: piece.endedReason ?? "",
              ...(journal === null ? {} : { document: journal }),
            },
          }),
    };
  });
  return { pieces };
}

/** Writes the stock book once its documents are there, and refuses sales it does not know. */
export async function addPieces(
  work: Writing,
  { client, plain }: ClientSetup,
  { pieces = [] }: BookFile,
  placed: PlacedRows,
): Promise<void> {
  const ids = new Map<number, number>();
  for (const [index, piece] of pieces.entries()) {
    const path = `pieces[${index}]`;
    if (ids.has(piece.no))
      throw new FiscalError("book/double-id", `The number ${piece.no} is used twice.`, `${path}.no`);
    const { bought, ended } = piece;
    const document = (pointer: string | undefined, field: string) =>
      pointer === undefined ? null : placedAt(placed, pointer, `${path}.${field}`).id;
    const id = await inField(path, async () =>
      insertPiece(work, client.id, {
        no: piece.no,
        name: piece.name,
        identifier: piece.identifier,
        kind: piece.kind,
        boughtOn: piece.boughtOn,
        price: piece.price === null ? null : parseAmount(piece.price, plain.digits),
        purchaseNumber: piece.purchaseNumber,
        seller: piece.seller,
        sellerAddress: piece.sellerAddress,
        document: document(bought?.document, "bought.document"),
        line: bought?.line ?? null,
        offReason: piece.offReason ?? null,
        note: piece.note ?? "",
        isSet: piece.isSet ? 1 : 0,
        ended: ended?.kind ?? null,
        endedOn: ended?.on ?? null,
        endedReason: ended?.reason ?? null,
        endedDocument: document(ended?.document, "ended.document"),
      }),
    );
    ids.set(piece.no, id);
  }
  for (const [index, { no, partOf, splitFrom }] of pieces.entries()) {
    if (partOf === undefined && splitFrom === undefined) continue;
    const other = (named: number | undefined, field: string) => {
      const id = named === undefined ? null : ids.get(named);
      if (id !== undefined) return id;
      throw new FiscalError(
        "book/unknown-id",
        `The file has no piece ${named}.`,
        `pieces[${index}].${field}`,
      );
    };
    await work.run("UPDATE pieces SET part_of = $2, split_from = $3 WHERE id = $1", [
      valueAt(ids, no),
      other(partOf, "partOf"),
      other(splitFrom, "splitFrom"),
    ]);
  }
  await refuseWrongSales(work, client.id);
}
