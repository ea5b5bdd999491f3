import Joi from "joi";
import { DOCUMENT_KINDS } from "@fiscalon/core/model/documentKinds";
import type { DocumentInput } from "@fiscalon/core/model/document";
import { bookOrigin, bookPapers } from "./bookFeeds.ts";
import type { BookPaper } from "./bookFeeds.ts";
import { date, decimal, id, percentage, reason, ref, text } from "./fields.ts";

const discount = Joi.object({ percent: percentage, amount: decimal }).xor("percent", "amount");
const prices = Joi.string().valid("exclusive", "inclusive");
/** By levy, on a document also by levy and rate: `VAT`, `VAT 20`. */
const typedTax = Joi.object().pattern(Joi.string().max(50), decimal);

export const lineBody = Joi.object({
  text,
  amount: decimal.allow(""),
  quantity: decimal,
  unitPrice: decimal,
  prices,
  discount,
  code: Joi.string().max(20).allow(null, ""),
  codeReason: Joi.string().max(200),
  account: Joi.string().max(20),
  item: ref,
  supply: Joi.string().valid("goods", "services"),
  typedTax,
  typedTotal: decimal,
  typedReason: text,
  taxClass: Joi.string().max(40).allow(null, ""),
  attributes: Joi.object().pattern(Joi.string().max(40), Joi.string().max(200).allow("")),
});

const documentFields = {
  kind: Joi.string()
    .valid(...Object.keys(DOCUMENT_KINDS))
    .required(),
  number: Joi.string().trim().max(60).allow(""),
  date: date.required(),
  taxPoint: date.allow(null),
  due: date.allow(null),
  prices: prices.default("exclusive"),
  currency: Joi.string().uppercase().length(3),
  exchange: Joi.object({
    rate: Joi.string()
      .pattern(/^\d{1,9}(\.\d{1,10})?$/, "a rate such as 0.8734")
      .required(),
    source: text,
    date: date.allow(null),
  }),
  opening: Joi.boolean(),
  creditHold: Joi.string().max(40),
  paidThrough: Joi.string().max(20),
  corrects: Joi.string().max(60).allow(null),
  originalDate: date.allow(null),
  note: text,
  discount,
  typedTax,
  typedTotal: decimal,
  lines: Joi.array().items(lineBody).min(1).max(2000).required(),
};

const recordedRate = Joi.object({
  code: Joi.string().max(20).required(),
  levy: Joi.string().max(50).required(),
  on: date.required(),
  rate: decimal.required(),
  schedule: Joi.string().max(80),
});

/** A document as a book file holds it: contact and place by the file's own ids. */
export const bookDocument = Joi.object<BookDocument, true>({
  ...documentFields,
  contact: ref.allow(null),
  place: ref.allow(null),
  /** End of the period a late item was reported in; only in exports of books with sealed periods. */
  reportedIn: date,
  /** Rates it was counted with that the schedules do not have on that day any more. */
  recordedRates: Joi.array().items(recordedRate).max(2000),
  /** Since when its tax is deducted, where it had to wait; and the period of that where it is a late item. */
  creditReleased: Joi.object({ on: date.required(), evidence: reason.required(), reportedIn: date }),
  /** What it was made from; keeps the same thing from being brought in twice. */
  sourceKey: Joi.string().max(200),
  origin: bookOrigin,
  papers: bookPapers,
  /** Why a journal on a control account is right. */
  explanation: reason,
  /** Why it was taken out of the books; its number stays used. */
  void: reason,
});

/**
 * A document posted through the API. `duplicateReason` confirms a number that is already in use, `farReason` a date that
 * is far away.
 */
export const documentBody = Joi.object<DocumentBody, true>({
  ...documentFields,
  contact: id.allow(null),
  place: id.allow(null),
  duplicateReason: reason,
  farReason: reason,
});

export const voidBody = Joi.object({ reason: reason.required() });

/** At once no more than a person looks through. */
const MOST_AT_ONCE = 500;
export const voidManyBody = Joi.object<VoidManyBody, true>({
  documents: Joi.array().items(id).min(1).max(MOST_AT_ONCE).unique().required(),
  reason: reason.required(),
});
export interface VoidManyBody {
  documents: number[];
  reason: string;
}

/** What the server finds beside a document. */
type Found = "site" | "party" | "items" | "originalGross" | "recordedRates";

/** A document as it is sent: what follows from contact, place, items and original is found by the server. */
export interface DocumentBody extends Omit<DocumentInput, Found> {
  contact?: number | null;
  place?: number | null;
  corrects?: string | null;
  note?: string;
  duplicateReason?: string;
  farReason?: string;
}

export interface BookDocument extends Omit<DocumentInput, Exclude<Found, "recordedRates">> {
  contact?: string | null;
  place?: string | null;
  corrects?: string | null;
  note?: string;
  reportedIn?: string;
  creditReleased?: { on: string; evidence: string; reportedIn?: string };
  sourceKey?: string;
  origin?: { import: string; rows: number[] };
  papers?: BookPaper[];
  explanation?: string;
  void?: string;
}
