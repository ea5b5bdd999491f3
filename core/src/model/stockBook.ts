import type { CalendarDate } from "../calendar/date.ts";

/**
 * A kind of goods in a stock book. `marked`: each has a mark of its own, which is asked for; `off`: why goods of this kind
 * are never on the scheme.
 */
export interface PieceKind {
  id: string;
  name: string;
  marked?: boolean;
  off?: string;
}

/** What a piece can be asked for, by its name for people. */
export const PIECE_FIELDS = {
  name: "description",
  identifier: "serial, chassis or other mark",
  boughtOn: "day of purchase",
  price: "purchase price",
  purchaseNumber: "number of the purchase paper",
  seller: "name of the seller",
  sellerAddress: "address of the seller",
} as const;
export type PieceField = keyof typeof PIECE_FIELDS;

/**
 * The book a margin scheme is kept in piece by piece.
 * - `sales`, `purchases`: codes of a sale on the margin, and of a purchase for it.
 * - `asked`: what must be on record; where it is not, the tax falls on the whole price.
 * - `rate`: the schedule of the rate inside a price.
 * - `paper`: what the paper is called that a dealer writes for a private seller.
 */
export interface StockBookRule {
  levy: string;
  sales: readonly string[];
  purchases: readonly string[];
  kinds: readonly PieceKind[];
  asked: readonly PieceField[];
  rate: string;
  paper: string;
  says: string;
  source: string;
}

/** What becomes of a piece other than its sale. */
export const PIECE_ENDS = {
  split: "split into parts",
  scrapped: "scrapped",
  stolen: "lost or stolen",
  "own-use": "taken for own use",
} as const;
export type PieceEnd = keyof typeof PIECE_ENDS;

/** What is on record of the purchase side of a piece. Price in minor units. */
export interface PieceRecord {
  name: string;
  identifier: string;
  kind: string;
  boughtOn: CalendarDate | null;
  price: number | null;
  purchaseNumber: string;
  seller: string;
  sellerAddress: string;
}

/** The fields the law asks for that are not on record. */
export function missingFields(
  rule: Pick<StockBookRule, "asked" | "kinds">,
  piece: PieceRecord,
): PieceField[] {
  return askedOf(rule, piece.kind).filter((field) => piece[field] === "" || piece[field] === null);
}

/** What the law asks for of a piece of a kind. */
export function askedOf(
  { asked, kinds }: Pick<StockBookRule, "asked" | "kinds">,
  kind: string,
): PieceField[] {
  const marked = kinds.find(({ id }) => id === kind)?.marked ?? false;
  return marked && !asked.includes("identifier") ? [...asked, "identifier"] : [...asked];
}

/** Why goods of a kind are not on the scheme, where that is so. */
export function kindOff({ kinds }: Pick<StockBookRule, "kinds">, kind: string): string | undefined {
  return kinds.find(({ id }) => id === kind)?.off;
}
