import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { at } from "@fiscalon/core/at";
import { FiscalError } from "@fiscalon/core/errors";
import { parseAmount } from "@fiscalon/core/money/amount";
import { sharedByValue } from "@fiscalon/core/schemes/stockBook";
import type { JoinBody, SplitBody } from "@fiscalon/contract/stockBook";
import type { Work, Writing } from "../../base/work.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { endDocument, lockOf } from "../../books/documents/endDocument.ts";
import { loadDocuments } from "../../books/documents/loadDocuments.ts";
import { insertPiece } from "../../books/stock/insertPiece.ts";
import { loadPieces, nextPieceNo, pieceWithNo, shownNo } from "../../books/stock/pieces.ts";
import type { StoredPiece } from "../../books/stock/pieces.ts";
import { inStock, notedEnd } from "./service.ts";

/** Takes an end back: a lot that was split becomes whole, a set falls apart, a loss is put back into stock. */
export async function backInStock(work: Work, clientId: number, no: number): Promise<void> {
  await work.write(async (work) => {
    const setup = await loadSetup(work, clientId);
    const piece = await pieceWithNo(work, clientId, no);
    if (piece.isSet === 1) await dissolve(work, clientId, piece);
    else if (piece.ended === "split") await unsplit(work, clientId, piece);
    else if (piece.ended !== null) await undoLoss(work, setup, piece);
    else
      throw new FiscalError(
        "stock/ended",
        `Nothing was done to piece ${shownNo(no)} that could be taken back.`,
        "piece",
      );
    await work.record({
      action: "change",
      entity: "piece",
      id: piece.id,
      before: piece,
      after: { back: true },
    });
  });
}

async function dissolve(work: Writing, clientId: number, set: StoredPiece): Promise<void> {
  await inStock(work, clientId, set.no);
  await work.run("UPDATE pieces SET part_of = NULL WHERE part_of = $1", [set.id]);
  await work.run("DELETE FROM pieces WHERE id = $1", [set.id]);
}

async function unsplit(work: Writing, clientId: number, lot: StoredPiece): Promise<void> {
  const parts = await loadPieces(work, clientId, "p.split_from = $2", [lot.id]);
  for (const part of parts) await inStock(work, clientId, part.no);
  await work.run("DELETE FROM pieces WHERE split_from = $1", [lot.id]);
  await work.run("UPDATE pieces SET ended = NULL, ended_on = NULL, ended_reason = NULL WHERE id = $1", [
    lot.id,
  ]);
}

async function undoLoss(work: Writing, setup: ClientSetup, piece: StoredPiece): Promise<void> {
  const [journal] = await loadDocuments(work, "d.id = $1", [piece.endedDocument ?? 0]);
  if (journal?.state === "posted") {
    const lock = await lockOf(work, setup, journal);
    if (lock)
      throw new FiscalError(
        "document/sealed",
        `${journal.input.number} is on the return to ${displayDate(lock.period)}, which is ${lock.state}. Enter a new journal instead.`,
      );
    await endDocument(work, setup, journal, "void", "back in stock");
  }
  await work.run(
    "UPDATE pieces SET ended = NULL, ended_on = NULL, ended_reason = NULL, ended_document = NULL WHERE id = $1",
    [piece.id],
  );
}

/** Splits a lot into pieces; its price goes to them in proportion to their values. */
export async function splitPiece(
  work: Work,
  clientId: number,
  no: number,
  body: SplitBody,
): Promise<number[]> {
  return work.write(async (work) => {
    const { plain } = await loadSetup(work, clientId);
    const lot = await inStock(work, clientId, no);
    if (lot.price === null || lot.isSet === 1)
      throw new FiscalError(
        "stock/ended",
        `Piece ${shownNo(no)} has no price of its own that could be shared.`,
        "piece",
      );
    const values = body.parts.map(({ value }) => parseAmount(value, plain.digits));
    if (values.some((value) => value < 0))
      throw new FiscalError("stock/price", "The value of a part is nought or more.", "parts");
    const prices = sharedByValue(lot.price, values);
    const made: number[] = [];
    for (const [index, part] of body.parts.entries()) {
      const own = await nextPieceNo(work, clientId);
      await insertPiece(work, clientId, {
        ...lot,
        no: own,
        name: part.name,
        identifier: part.identifier,
        price: at(prices, index),
        splitFrom: lot.id,
      });
      made.push(own);
    }
    await notedEnd(work, lot, "split", body.on, made.map(shownNo).join(", "), null);
    await work.record({
      action: "change",
      entity: "piece",
      id: lot.id,
      after: { ...body, made },
    });
    return made;
  });
}

/** Joins pieces into a set that is sold as one; its price is theirs. */
export async function joinPieces(
  work: Work,
  clientId: number,
  { on, name, pieces }: JoinBody,
): Promise<number> {
  return work.write(async (work) => {
    const parts: StoredPiece[] = [];
    for (const no of pieces) parts.push(await inStock(work, clientId, no));
    const [first] = parts;
    const odd = parts.find(
      ({ offReason, isSet, price }) =>
        (offReason === null) !== (first?.offReason === null) || isSet === 1 || price === null,
    );
    if (!first || odd)
      throw new FiscalError(
        "stock/set",
        "A set is made of single pieces with a price each, all on the scheme or all off it.",
        "pieces",
      );
    const no = await nextPieceNo(work, clientId);
    const id = await insertPiece(work, clientId, {
      no,
      name,
      identifier: "",
      kind: first.kind,
      boughtOn: on,
      price: parts.reduce((sum, { price }) => sum + (price ?? 0), 0),
      purchaseNumber: "",
      seller: "",
      sellerAddress: "",
      offReason: first.offReason,
      note: "",
      document: null,
      line: null,
      isSet: 1,
    });
    await work.run("UPDATE pieces SET part_of = $1 WHERE id IN (SELECT value FROM json_each($2))", [
      id,
      JSON.stringify(parts.map((part) => part.id)),
    ]);
    await work.record({
      action: "create",
      entity: "piece",
      id,
      after: { on, name, pieces },
    });
    return no;
  });
}
