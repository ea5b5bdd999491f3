import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { PIECE_ENDS } from "@fiscalon/core/model/stockBook";
import type { StockBookRule } from "@fiscalon/core/model/stockBook";
import { displayAmount } from "@fiscalon/core/money/amount";
import type { PieceView } from "@fiscalon/contract/stockBook";
import { pdfOf, RULED } from "../../exports/pdf.ts";
import { shownNo } from "../../books/stock/pieces.ts";

interface Paper {
  piece: PieceView;
  client: string;
  currency: string;
  digits: number;
  rule: StockBookRule;
  kind: string;
}

/** The page of a piece in the stock book: both sides, and how its tax comes about. */
export function piecePdf({ piece, client, currency, digits, rule, kind }: Paper): Promise<Buffer> {
  const money = (amount: number | null) => (amount === null ? "" : displayAmount(amount, digits));
  const rows: [string, string][] = [
    ["Stock number", shownNo(piece.no)],
    ["Description", piece.name],
    ["Mark", piece.identifier],
    ["Kind", kind],
    ["Bought on", displayDate(piece.boughtOn ?? "")],
    ["Purchase paper", piece.purchaseNumber],
    ["Seller", [piece.seller, piece.sellerAddress].filter(Boolean).join(", ")],
    [`Purchase price, ${currency}`, money(piece.price)],
    ...(piece.parts.length > 0
      ? [
          ["Parts", piece.parts.map((part) => `${shownNo(part.no)} ${part.name}`).join("; ")] as [
            string,
            string,
          ],
        ]
      : []),
    [
      "Sold on",
      piece.soldOn !== null
        ? displayDate(piece.soldOn)
        : piece.ended
          ? `${PIECE_ENDS[piece.ended.kind]}, ${displayDate(piece.ended.on)}`
          : "",
    ],
    ["Sales invoice", piece.sale?.number ?? ""],
    ["Buyer", piece.buyer],
    [`Selling price, ${currency}`, money(piece.sold)],
    ["Margin", money(piece.margin)],
    [`Tax inside the margin, ${piece.rate} %`, piece.sale ? money(piece.tax) : ""],
    ...(piece.offReason === null ? [] : [["Off the scheme", piece.offReason] as [string, string]]),
    ...(piece.note === "" ? [] : [["Note", piece.note] as [string, string]]),
  ];
  return pdfOf({
    info: { title: `Stock book, piece ${shownNo(piece.no)}` },
    content: [
      { text: `Stock book, piece ${shownNo(piece.no)}`, style: "title" },
      { text: client, margin: [0, 2, 0, 14] },
      twoColumns(rows),
      { text: `${rule.says} (${rule.source})`, style: "quiet", fontSize: 8.5, margin: [0, 14, 0, 0] },
    ],
  });
}

/** The paper a dealer writes for goods bought from somebody who gives none; the seller signs it. */
export function ownPaperPdf({ piece, client, currency, digits, rule }: Paper): Promise<Buffer> {
  return pdfOf({
    info: { title: rule.paper },
    content: [
      { text: rule.paper, style: "title" },
      { text: `Stock number ${shownNo(piece.no)}, paper ${piece.purchaseNumber}`, margin: [0, 2, 0, 14] },
      twoColumns([
        ["Seller", piece.seller],
        ["Address", piece.sellerAddress],
        ["Buyer", client],
        ["Date", displayDate(piece.boughtOn ?? "")],
        ["Goods", piece.name],
        ["Mark", piece.identifier],
        [`Price, ${currency}`, piece.price === null ? "" : displayAmount(piece.price, digits)],
      ]),
      {
        text: "The seller declares that the goods are the seller's own, that no tax was charged on this sale, and that none was deducted by the seller.",
        margin: [0, 18, 0, 46],
      },
      { columns: [{ text: "Date, signature of the seller" }, { text: "Date, signature of the buyer" }] },
      { text: rule.source, style: "quiet", fontSize: 8.5, margin: [0, 30, 0, 0] },
    ],
  });
}

function twoColumns(rows: readonly (readonly [string, string])[]) {
  return {
    layout: RULED,
    table: { widths: [150, "*"], body: rows.map(([name, value]) => [{ text: name, style: "quiet" }, value]) },
  };
}
