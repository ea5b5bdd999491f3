import { FiscalError } from "@fiscalon/core/errors";
import type { LineInput } from "@fiscalon/core/model/document";
import { kindOf } from "@fiscalon/core/model/documentKinds";
import type { DocumentKind } from "@fiscalon/core/model/documentKinds";
import { formatAmount, parseAmount } from "@fiscalon/core/money/amount";
import type { Work } from "../../base/work.ts";
import type { ClientSetup } from "../loadSetup.ts";
import { pieceWithNo, saleOf, SALES, shownNo, stockRule } from "./pieces.ts";
import type { StoredPiece } from "./pieces.ts";

/**
 * Lines of a sale that name a piece of the stock book, with what the piece cost. A piece is sold once, and on the margin
 * only where it is on the scheme.
 * @param replaced the document that these lines replace, whose own sale does not count
 * @throws FiscalError `stock/unknown`, `stock/sold`, `stock/ended`, `stock/off`, `stock/cost`
 */
export async function withPieces(
  work: Work,
  setup: ClientSetup,
  kind: DocumentKind,
  lines: readonly LineInput[],
  replaced: number,
): Promise<LineInput[]> {
  const { direction, sign } = kindOf(kind);
  const seen = new Set<number>();
  const made: LineInput[] = [];
  for (const [index, line] of lines.entries()) {
    const text = line.attributes?.["piece"]?.trim();
    if (!text || direction !== "sale") {
      made.push(line);
      continue;
    }
    const field = `lines[${index}].attributes.piece`;
    const piece = await pieceSold(work, setup, text, field);
    if (sign > 0) {
      if (seen.has(piece.no)) throw sold(piece, "on this document", field);
      await refuseSale(work, setup, piece, line, replaced, field);
      seen.add(piece.no);
    }
    made.push({
      ...line,
      attributes: { ...line.attributes, piece: String(piece.no), ...costOf(setup, piece, line, field) },
    });
  }
  return made;
}

async function pieceSold(work: Work, setup: ClientSetup, text: string, field: string): Promise<StoredPiece> {
  if (/^\d{1,9}$/.test(text)) {
    try {
      return await pieceWithNo(work, setup.client.id, Number(text));
    } catch (error) {
      if (!(error instanceof FiscalError)) throw error;
    }
  }
  throw new FiscalError(
    "stock/unknown",
    `The stock book has no piece ${text}. Choose one of the list.`,
    field,
  );
}

async function refuseSale(
  work: Work,
  setup: ClientSetup,
  piece: StoredPiece,
  { code }: LineInput,
  replaced: number,
  field: string,
): Promise<void> {
  const no = shownNo(piece.no);
  if (piece.ended !== null || piece.partOf !== null) {
    const why =
      piece.partOf === null ? "is not in stock any more" : "is part of a set; sell the set, or take it apart";
    throw new FiscalError("stock/ended", `Piece ${no} ${why}.`, field);
  }
  const before = await saleOf(work, setup.client.id, piece.no, replaced);
  if (before) throw sold(piece, `with ${before.number}`, field);
  const { rule } = stockRule(work, setup) ?? {};
  if (piece.offReason === null || !code || !rule?.sales.includes(code)) return;
  throw new FiscalError(
    "stock/off",
    `Piece ${no} is not on the scheme: ${piece.offReason}. Sell it with an ordinary code, tax on the whole price.`,
    field,
  );
}

function sold({ no }: StoredPiece, where: string, field: string): FiscalError {
  return new FiscalError("stock/sold", `Piece ${shownNo(no)} was sold ${where} already.`, field);
}

/** What the piece cost, as the book has it; a cost that was typed has to be the same. */
function costOf(
  { plain }: ClientSetup,
  { no, price }: StoredPiece,
  { attributes }: LineInput,
  field: string,
): { cost?: string } {
  if (price === null) return {};
  const typed = attributes?.["cost"];
  if (typed && parseAmount(typed, plain.digits) !== price) {
    throw new FiscalError(
      "stock/cost",
      `Piece ${shownNo(no)} cost ${formatAmount(price, plain.digits)} by the stock book, and the line says ${typed}. Correct one of them.`,
      field,
    );
  }
  return { cost: formatAmount(price, plain.digits) };
}

/** Refuses books in which a piece is sold twice, or a line names one that the book does not have. */
export async function refuseWrongSales(work: Work, clientId: number): Promise<void> {
  const stray = await work.row<{ number: string; piece: string }>(
    `SELECT d.number, l.attributes ->> '$.piece' AS piece FROM lines l JOIN documents d ON d.id = l.document_id
     WHERE l.attributes ->> '$.piece' IS NOT NULL AND d.client_id = $1 AND d.state = 'posted'
       AND NOT EXISTS (SELECT 1 FROM pieces p WHERE p.client_id = $1 AND p.no = l.attributes ->> '$.piece') LIMIT 1`,
    [clientId],
  );
  if (stray)
    throw new FiscalError(
      "stock/unknown",
      `The stock book has no piece ${stray.piece}, which ${stray.number} sells.`,
      "pieces",
    );
  const twice = await work.row<{ piece: string }>(`${SALES.replace("> 0", "> 1")} LIMIT 1`, [clientId]);
  if (!twice) return;
  const no = shownNo(Number(twice.piece));
  throw new FiscalError("stock/sold", `Piece ${no} was sold twice in these books.`, "pieces");
}
