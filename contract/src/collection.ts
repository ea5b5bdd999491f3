import Joi from "joi";
import { dueRule } from "./dueRule.ts";
import { date, decimal, id, name, text } from "./fields.ts";

const schedule = Joi.string().max(80);

/** A tax beside VAT or GST that sellers of goods collect, of a jurisdiction of the practice's own. */
export const collectionRule = Joi.object({
  id: Joi.string().max(40).required(),
  name: name.required(),
  option: Joi.string().max(40).required(),
  code: Joi.string().max(20).required(),
  above: Joi.number().integer().min(0).required(),
  yearEnds: Joi.number().integer().min(1).max(12).required(),
  from: date.required(),
  to: date.allow(null).default(null),
  identified: schedule.required(),
  unidentified: schedule.required(),
  identification: Joi.object({
    name: name.required(),
    pattern: Joi.string()
      .max(200)
      .required()
      .custom((pattern: string) => {
        RegExp(pattern);
        return pattern;
      }, "a pattern"),
  }).required(),
  deducts: Joi.object({
    standing: Joi.string()
      .pattern(/^[A-Za-z0-9]{1,30}$/)
      .required(),
    name: name.required(),
  }).required(),
  kinds: Joi.array()
    .items(
      Joi.object({
        id: Joi.string().max(40).required(),
        name: name.required(),
        identified: schedule.required(),
        unidentified: schedule.required(),
      }),
    )
    .required(),
  deposit: Joi.array().items(dueRule).min(1).required(),
  statement: Joi.object({
    name: name.required(),
    due: Joi.array().items(dueRule).min(1).required(),
  }).required(),
  says: text.required(),
  source: text.required(),
});

const MOST_AT_ONCE = 500;

/** Customers who are charged what their receipts up to a day came to and no document has charged yet. */
export interface CollectionChargeBody {
  to: string;
  customers: number[];
}
export const collectionChargeBody = Joi.object<CollectionChargeBody, true>({
  to: date.required(),
  customers: Joi.array().items(id).min(1).max(MOST_AT_ONCE).unique().required(),
});

/** What a customer paid in a fiscal year before these books begin, and what says so. */
export interface CollectionOpeningBody {
  year: string;
  amount: string;
  evidence: string;
}
export const collectionOpeningBody = Joi.object<CollectionOpeningBody, true>({
  year: date.required(),
  amount: decimal.required(),
  evidence: text.required(),
});

/** Whether a customer deducts tax itself. */
export interface CollectionDeductsBody {
  deducts: boolean;
}
export const collectionDeductsBody = Joi.object<CollectionDeductsBody, true>({
  deducts: Joi.boolean().required(),
});

/** The same in a book file, with the contact by its id there. */
export interface BookCollectionOpening extends CollectionOpeningBody {
  contact: string;
}

/** An invoice that is being typed, as far as collection asks; decimal text. */
export interface CollectionProposalBody {
  contact: number;
  date: string;
  amount: string;
  kind?: string;
  /** The document itself, where it is being corrected. */
  document?: number;
}
export const collectionProposalBody = Joi.object<CollectionProposalBody, true>({
  contact: id.required(),
  date: date.required(),
  amount: decimal.required(),
  kind: Joi.string().max(40),
  document: id,
});

/** What is to be charged with an invoice; minor units. */
export interface CollectionProposal {
  tax: number;
  code: string;
  account: string;
  text: string;
  arithmetic: string;
}

/** A month's collection, minor units. */
export interface CollectionMonth {
  from: string;
  to: string;
  /** On receipts, and on the sale of kinds of goods. */
  onReceipts: number;
  onSales: number;
  due: string;
  /** Paid over of what stood on the account, by the entries of the books. */
  paid: number;
}

/** Collection of a fiscal year. */
export interface CollectionView {
  /** Years that can be looked at, by their last day, the latest first. */
  years: string[];
  year: string;
  way: string;
  name: string;
  says: string;
  source: string;
  above: number;
  from: string;
  to: string | null;
  identification: string;
  statement: string;
  /** What is said of a customer who deducts tax itself. */
  deducts: string;
  kinds: { id: string; name: string }[];
  account: string;
  /** What stands on it on the last day of the year, or today. */
  balance: number;
  months: CollectionMonth[];
  quarters: { from: string; to: string; due: string }[];
}

/** A customer in a fiscal year; minor units. */
export interface CollectionCustomer {
  contact: number;
  name: string;
  identification: string | null;
  /** Whether it deducts tax itself, so that nothing is collected. */
  deducts: boolean;
  opening: number;
  received: number;
  excess: number;
  tax: number;
  charged: number;
  /** What no document has charged yet; below nought what was charged ahead of its receipt. */
  left: number;
}

export interface CollectionCustomers {
  total: number;
  sum: { received: number; tax: number; charged: number; left: number };
  rows: CollectionCustomer[];
}

/** What of a customer's year is behind its figures, in order of time. */
export interface CollectionSheet extends CollectionCustomer {
  evidence: string;
  receipts: {
    ref: string;
    date: string;
    number: string;
    /** All of it, and what counts. */
    paid: number;
    amount: number;
    before: number;
    after: number;
    excess: number;
    rate: string | null;
    tax: number;
  }[];
  charges: { document: number; number: string; date: string; kind: string | null; amount: number }[];
}

/** What was deducted from us by customers and operators. */
export interface DeductedRow {
  /** Of the posting. */
  id: number;
  date: string;
  ref: string;
  number: string;
  party: string;
  text: string;
  amount: number;
}
export interface DeductedRows {
  account: string | null;
  /** Of the account on the last day of the span; `deducted` is what the span adds to it. */
  balance: number;
  deducted: number;
  total: number;
  rows: DeductedRow[];
}
