import { at } from "@fiscalon/core/at";
import { FiscalError } from "@fiscalon/core/errors";
import { PIECE_ENDS } from "@fiscalon/core/model/stockBook";
import type { PieceEnd } from "@fiscalon/core/model/stockBook";
import { formatAmount, parseAmount } from "@fiscalon/core/money/amount";
import type { BoughtPieceBody, EndBody, PieceBody, TakeInBody } from "@fiscalon/contract/stockBook";
import type { Work, Writing } from "../../base/work.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { postDocuments } from "../../books/documents/postDocuments.ts";
import { requireOwn } from "../../books/requireOwn.ts";
import { nextInSeries } from "../../books/series.ts";
import { insertPiece } from "../../books/stock/insertPiece.ts";
import { nextPieceNo, pieceWithNo, saleOf, shownNo } from "../../books/stock/pieces.ts";
import type { StoredPiece } from "../../books/stock/pieces.ts";
import { requireRule } from "../../books/stock/requireRule.ts";
import { unlistedLines } from "./unlisted.ts";
import { whyOff } from "./whyOff.ts";

/** Takes a piece into the book; the purchase is booked with it where that is asked for. */
export async function addPiece(work: Work, clientId: number, body: BoughtPieceBody): Promise<number> {
  return work.write(async (work) => {
    const setup = await loadSetup(work, clientId);
    const { rule } = requireRule(work, setup);
    const no = await nextPieceNo(work, clientId);
    const { purchase, ...piece } = body;
    requireKind(rule.kinds, piece.kind);
    const bought = purchase ? await bookPurchase(work, setup, no, piece, purchase) : null;
    const off = piece.offReason || (await whyOff(work, rule, piece.kind, null));
    const id = await insertPiece(work, clientId, {
      ...piece,
      no,
      price: priceOf(setup, piece),
      purchaseNumber: bought?.number ?? piece.purchaseNumber,
      offReason: off || null,
      document: bought?.document ?? null,
      line: bought ? 1 : null,
    });
    await work.record({ action: "create", entity: "piece", id, after: body });
    return no;
  });
}

function requireKind(kinds: readonly { id: string }[], kind: string): void {
  if (kinds.some(({ id }) => id === kind)) return;
  throw new FiscalError(
    "stock/kind",
    `There is no kind "${kind}" of pieces. Choose one of the list.`,
    "kind",
  );
}

function priceOf({ plain }: ClientSetup, { price }: Pick<PieceBody, "price">): number | null {
  if (price === "") return null;
  const amount = parseAmount(price, plain.digits);
  if (amount >= 0) return amount;
  throw new FiscalError("stock/price", "A piece has a price of nought or more.", "price");
}

/** The purchase as a bill paid at once or owed: with the seller's number, or on a paper of the dealer's own. */
async function bookPurchase(
  work: Writing,
  setup: ClientSetup,
  no: number,
  piece: PieceBody,
  { contact, ownPaper, paidThrough }: NonNullable<BoughtPieceBody["purchase"]>,
): Promise<{ document: number; number: string }> {
  const { rule } = requireRule(work, setup);
  if (!piece.boughtOn || piece.price === "") {
    const field = piece.boughtOn ? "price" : "boughtOn";
    throw new FiscalError(
      "stock/purchase",
      "Type the day and the price, so that the purchase can be booked.",
      field,
    );
  }
  await requireOwn(work, setup.client.id, "contacts", contact, "contact");
  const kind = paidThrough === "" ? (ownPaper ? "self-billed-bill" : "purchase-bill") : "expense";
  const own = ownPaper ? `PM-${shownNo(no)}` : piece.purchaseNumber;
  const [document = 0] = await postDocuments(work, setup, [
    {
      input: {
        kind,
        number: own || (await nextInSeries(work, setup.client.id, kind)),
        date: piece.boughtOn,
        prices: "inclusive",
        ...(paidThrough === "" ? {} : { paidThrough }),
        lines: [
          {
            text: `${shownNo(no)} ${piece.name}`,
            amount: piece.price,
            code: at(rule.purchases, 0),
            supply: "goods",
          },
        ],
      },
      contact,
      place: null,
    },
  ]);
  await work.record({
    action: "post",
    entity: "document",
    id: document,
    after: { kind, date: piece.boughtOn, piece: no },
  });
  const { number } = await work.one<{ number: string }>("SELECT number FROM documents WHERE id = $1", [
    document,
  ]);
  return { document, number };
}

/** Changes what is on record. The price of a piece that is sold stays: its sale was taxed with it. */
export async function changePiece(work: Work, clientId: number, no: number, body: PieceBody): Promise<void> {
  await work.write(async (work) => {
    const setup = await loadSetup(work, clientId);
    const { rule } = requireRule(work, setup);
    requireKind(rule.kinds, body.kind);
    const before = await pieceWithNo(work, clientId, no);
    const price = priceOf(setup, body);
    const sale = await saleOf(work, clientId, no);
    const reason = body.offReason || (await whyOff(work, rule, body.kind, placeOfPurchase(before))) || null;
    if (sale && (price !== before.price || (reason === null) !== (before.offReason === null))) {
      throw new FiscalError(
        "stock/sold",
        `Piece ${shownNo(no)} was sold with ${sale.number}. Correct that sale before its price or its scheme changes.`,
        price === before.price ? "offReason" : "price",
      );
    }
    if (price !== before.price && (before.isSet === 1 || before.ended !== null || before.partOf !== null)) {
      throw new FiscalError(
        "stock/ended",
        `The price of piece ${shownNo(no)} comes from its parts, or went to them. Take it apart first.`,
        "price",
      );
    }
    await work.run(
      `UPDATE pieces SET name = $2, identifier = $3, kind = $4, bought_on = $5, price = $6, purchase_number = $7,
         seller = $8, seller_address = $9, off_reason = $10, note = $11 WHERE id = $1`,
      [
        before.id,
        body.name,
        body.identifier,
        body.kind,
        body.boughtOn || null,
        price,
        body.purchaseNumber,
        body.seller,
        body.sellerAddress,
        reason,
        body.note,
      ],
    );
    await work.record({
      action: "change",
      entity: "piece",
      id: before.id,
      before,
      after: body,
    });
  });
}

function placeOfPurchase({ document, line }: StoredPiece): { document: number; line: number } | null {
  return document === null || line === null ? null : { document, line };
}

/** Makes pieces of purchase lines that are in none yet. */
export async function takeIn(
  work: Work,
  clientId: number,
  { lines }: TakeInBody,
): Promise<{ taken: number }> {
  return work.write(async (work) => {
    const setup = await loadSetup(work, clientId);
    const { rule } = requireRule(work, setup);
    const open = await unlistedLines(work, setup);
    for (const wanted of lines) {
      const line = open.find((one) => one.document === wanted.document && one.line === wanted.line);
      if (!line)
        throw new FiscalError(
          "stock/no-purchase",
          `Line ${wanted.line} of document ${wanted.document} is no purchase for the scheme, or is in a piece already.`,
          "lines",
        );
      const no = await nextPieceNo(work, clientId);
      const id = await insertPiece(work, clientId, {
        no,
        name: line.text || line.number,
        identifier: "",
        kind: at(rule.kinds, 0).id,
        boughtOn: line.date,
        price: line.net,
        purchaseNumber: line.number,
        seller: line.party,
        sellerAddress: "",
        offReason: null,
        note: "",
        document: line.document,
        line: line.line,
      });
      await work.record({ action: "create", entity: "piece", id, after: line });
    }
    return { taken: lines.length };
  });
}

/** A piece that is not in stock any more although it was not sold; the stock account follows. */
export async function endPiece(work: Work, clientId: number, no: number, body: EndBody): Promise<void> {
  await work.write(async (work) => {
    const setup = await loadSetup(work, clientId);
    const piece = await inStock(work, clientId, no);
    const document = await bookLoss(work, setup, piece, body);
    await notedEnd(work, piece, body.kind, body.on, body.reason, document);
    await work.record({ action: "change", entity: "piece", id: piece.id, after: body });
  });
}

/** A piece that is in stock, refused where it is not. */
export async function inStock(work: Work, clientId: number, no: number): Promise<StoredPiece> {
  const piece = await pieceWithNo(work, clientId, no);
  if (piece.ended !== null || piece.partOf !== null || (await saleOf(work, clientId, no)))
    throw new FiscalError("stock/ended", `Piece ${shownNo(no)} is not in stock.`, "piece");
  return piece;
}

/** Takes a piece out that should never have been in the book; its purchase stays. */
export async function removePiece(work: Work, clientId: number, no: number, reason: string): Promise<void> {
  await work.write(async (work) => {
    const piece = await inStock(work, clientId, no);
    if (piece.isSet === 1 || piece.splitFrom !== null)
      throw new FiscalError(
        "stock/ended",
        `Piece ${shownNo(no)} belongs to a set or a lot. Take that apart, or make the lot whole, before.`,
        "piece",
      );
    await work.run("DELETE FROM pieces WHERE id = $1", [piece.id]);
    const { id } = piece;
    await work.record({
      action: "remove",
      entity: "piece",
      id,
      before: piece,
      after: { reason },
    });
  });
}

/** Notes how a piece ended. */
export async function notedEnd(
  work: Writing,
  { id }: StoredPiece,
  kind: PieceEnd,
  on: string,
  reason: string,
  document: number | null,
): Promise<void> {
  await work.run(
    "UPDATE pieces SET ended = $2, ended_on = $3, ended_reason = $4, ended_document = $5 WHERE id = $1",
    [id, kind, on, reason, document],
  );
}

/** The journal that takes a piece off the stock account, where the chart has one. */
async function bookLoss(
  work: Writing,
  setup: ClientSetup,
  { no, price, name }: StoredPiece,
  { kind, on, reason }: EndBody,
): Promise<number | null> {
  const accountOf = (role: string) => setup.plain.accounts.find((account) => account.role === role)?.code;
  const [stock, cost] = [accountOf("stock"), accountOf("stock-cost")];
  if (!price || stock === undefined || cost === undefined) return null;
  const amount = formatAmount(price, setup.plain.digits);
  const text = `${shownNo(no)} ${name}, ${PIECE_ENDS[kind]}`;
  const [document = null] = await postDocuments(work, setup, [
    {
      input: {
        kind: "journal",
        number: await nextInSeries(work, setup.client.id, "journal"),
        date: on,
        prices: "exclusive",
        lines: [
          { text, account: cost, amount, code: null },
          { text, account: stock, amount: `-${amount}`, code: null },
        ],
      },
      contact: null,
      place: null,
      note: reason,
    },
  ]);
  return document;
}
