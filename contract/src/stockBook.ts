import Joi from "joi";
import { PIECE_ENDS, PIECE_FIELDS } from "@fiscalon/core/model/stockBook";
import type { PieceEnd, PieceKind } from "@fiscalon/core/model/stockBook";
import { date, decimal, id, name, reason, text } from "./fields.ts";

const label = Joi.string().trim().allow("").max(200).default("");

/** A piece as it is typed. `purchase`: books the purchase with it; `document`: the line of a document it was bought on. */
export interface PieceBody {
  name: string;
  identifier: string;
  kind: string;
  boughtOn: string | null;
  price: string;
  purchaseNumber: string;
  seller: string;
  sellerAddress: string;
  offReason: string;
  note: string;
}

export interface BoughtPieceBody extends PieceBody {
  /** Books the purchase: whom it is from and how it was paid; an own paper where there is none of the seller. */
  purchase?: { contact: number | null; ownPaper: boolean; paidThrough: string };
}

const pieceFields = {
  name: name.required(),
  identifier: label,
  kind: Joi.string().max(40).required(),
  boughtOn: date.allow(null, "").default(null),
  price: decimal.allow("").default(""),
  purchaseNumber: label,
  seller: label,
  sellerAddress: Joi.string().trim().allow("").max(500).default(""),
  offReason: text.default(""),
  note: text.default(""),
};

export const pieceBody = Joi.object<PieceBody, true>(pieceFields);
export const boughtPieceBody = Joi.object<BoughtPieceBody, true>({
  ...pieceFields,
  purchase: Joi.object({
    contact: id.allow(null).default(null),
    ownPaper: Joi.boolean().required(),
    paidThrough: Joi.string().max(20).allow("").default(""),
  }),
});

export interface TakeInBody {
  lines: { document: number; line: number }[];
}
export const takeInBody = Joi.object<TakeInBody, true>({
  lines: Joi.array()
    .items(Joi.object({ document: id.required(), line: Joi.number().integer().min(1).required() }))
    .min(1)
    .max(1000)
    .required(),
});

export interface EndBody {
  kind: Exclude<PieceEnd, "split">;
  on: string;
  reason: string;
}
export const endBody = Joi.object<EndBody, true>({
  kind: Joi.string()
    .valid(...Object.keys(PIECE_ENDS).filter((kind) => kind !== "split"))
    .required(),
  on: date.required(),
  reason: reason.required(),
});

export interface SplitBody {
  on: string;
  parts: { name: string; identifier: string; value: string }[];
}
export const splitBody = Joi.object<SplitBody, true>({
  on: date.required(),
  parts: Joi.array()
    .items(Joi.object({ name: name.required(), identifier: label, value: decimal.required() }))
    .min(2)
    .max(200)
    .required(),
});

export interface JoinBody {
  on: string;
  name: string;
  pieces: number[];
}
export const joinBody = Joi.object<JoinBody, true>({
  on: date.required(),
  name: name.required(),
  pieces: Joi.array().items(Joi.number().integer().min(1)).min(2).max(200).unique().required(),
});

export const PIECE_STATES = ["in-stock", "sold", "off", "to-mend", "ended", ""] as const;
export type PieceState = (typeof PIECE_STATES)[number];

/** A piece as the book has it, its sale with it; minor units. */
export interface PieceRow {
  no: number;
  name: string;
  identifier: string;
  kind: string;
  boughtOn: string | null;
  price: number | null;
  seller: string;
  /** `in-stock`, `sold`, `part` of a set, or how it ended. */
  state: string;
  offReason: string | null;
  /** What the law asks for and is not there. */
  missing: string[];
  isSet: boolean;
  partOf: number | null;
  soldOn: string | null;
  sold: number | null;
  margin: number | null;
  /** Tax on its sale. */
  tax: number | null;
  buyer: string;
}

export interface PieceCounts {
  inStock: number;
  sold: number;
  off: number;
  toMend: number;
  ended: number;
  all: number;
}

export interface PiecePage {
  total: number;
  rows: PieceRow[];
  counts: PieceCounts;
  /** Of the rows that fit: sold on the scheme. */
  sums: { sold: number; bought: number; price: number; margin: number; tax: number };
  /** Pieces not sold and what the account of stock holds; null where the chart has no such account. */
  stock: { pieces: number; cost: number; account: string | null; balance: number | null };
  kinds: PieceKind[];
  /** Bills with the code of the scheme whose lines are in no piece yet. */
  toTakeIn: number;
  nextNo: number;
  paper: string;
  says: string;
  source: string;
}

/** A purchase line with the code of the scheme that is in no piece. */
export interface UnlistedLine {
  document: number;
  line: number;
  number: string;
  date: string;
  party: string;
  text: string;
  net: number;
}

export interface PieceView extends PieceRow {
  purchaseNumber: string;
  sellerAddress: string;
  note: string;
  bought: { document: number; line: number; number: string } | null;
  sale: { document: number; line: number; number: string; code: string; onMargin: boolean } | null;
  asked: number;
  /** Percent inside a price, on the day of its sale or today. */
  rate: string;
  /** What the tax is where something is missing, and what it would be otherwise. */
  consequence: { full: number; inside: number } | null;
  parts: { no: number; name: string; price: number | null }[];
  splitFrom: number | null;
  ended: { kind: PieceEnd; on: string; reason: string } | null;
  /** Lines of other bills that name it: repairs, valuations; deducted the ordinary way. */
  beside: { document: number; line: number; number: string; text: string; net: number; tax: number }[];
}

/** A piece in a book file. */
export interface BookPiece {
  no: number;
  name: string;
  identifier: string;
  kind: string;
  boughtOn: string | null;
  price: string | null;
  purchaseNumber: string;
  seller: string;
  sellerAddress: string;
  bought?: { document: string; line: number };
  offReason?: string;
  note?: string;
  isSet?: boolean;
  partOf?: number;
  splitFrom?: number;
  ended?: { kind: PieceEnd; on: string; reason: string; document?: string };
}

const no = Joi.number().integer().min(1);
export const bookPiece = Joi.object<BookPiece, true>({
  no: no.required(),
  name: name.required(),
  identifier: label,
  kind: Joi.string().max(40).required(),
  boughtOn: date.allow(null).default(null),
  price: decimal.allow(null).default(null),
  purchaseNumber: label,
  seller: label,
  sellerAddress: Joi.string().trim().allow("").max(500).default(""),
  bought: Joi.object({ document: Joi.string().required(), line: no.required() }),
  offReason: text,
  note: text,
  isSet: Joi.boolean(),
  partOf: no,
  splitFrom: no,
  ended: Joi.object({
    kind: Joi.string()
      .valid(...Object.keys(PIECE_ENDS))
      .required(),
    on: date.required(),
    reason: text.default(""),
    document: Joi.string(),
  }),
});

/** The stock book of a jurisdiction of the practice's own. */
export const stockBookRule = Joi.object({
  levy: Joi.string().max(30).required(),
  sales: Joi.array().items(Joi.string().max(20)).min(1).required(),
  purchases: Joi.array().items(Joi.string().max(20)).min(1).required(),
  kinds: Joi.array()
    .items(
      Joi.object({
        id: Joi.string().max(40).required(),
        name: name.required(),
        marked: Joi.boolean(),
        off: text,
      }),
    )
    .min(1)
    .required(),
  asked: Joi.array()
    .items(Joi.string().valid(...Object.keys(PIECE_FIELDS)))
    .required(),
  rate: Joi.string().max(80).required(),
  paper: name.required(),
  says: text.required(),
  source: text.default(""),
});
