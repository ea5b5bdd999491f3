import type { PieceKind, StockBookRule } from "../../model/stockBook.ts";

export const GOODS: PieceKind = { id: "goods", name: "Second-hand goods" };
export const VEHICLE: PieceKind = { id: "vehicle", name: "Vehicle", marked: true };
export const ART: PieceKind = { id: "art", name: "Work of art" };
export const ANTIQUE: PieceKind = { id: "antique", name: "Antique" };
export const COLLECTORS: PieceKind = { id: "collectors", name: "Collectors' item" };
export const METAL: PieceKind = {
  id: "metal",
  name: "Precious metals, investment gold",
  off: "precious metals and investment gold are never on the scheme",
};

/** What every law asks for of the purchase. */
export const ASKED: StockBookRule["asked"] = [
  "name",
  "boughtOn",
  "price",
  "purchaseNumber",
  "seller",
  "sellerAddress",
];

const SAYS =
  "Tax falls on what a piece is sold for above what it was bought for. A loss is never set against another piece, and repairs are no part of the price.";

/** A book with what is the same everywhere. */
export function stockBook(
  own: Omit<StockBookRule, "asked" | "kinds" | "paper" | "says"> & Partial<StockBookRule>,
): StockBookRule {
  return {
    asked: ASKED,
    kinds: [GOODS, VEHICLE, ART, ANTIQUE, COLLECTORS, METAL],
    paper: "Purchase from a private person",
    says: SAYS,
    ...own,
  };
}
