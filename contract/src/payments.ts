import Joi from "joi";
import type { PaymentKind } from "@fiscalon/core/model/paymentKinds";
import type { DocumentKind } from "@fiscalon/core/model/documentKinds";
import { date, decimal, id, ref, text } from "./fields.ts";

const accountCode = Joi.string().max(20).allow(null, "");
const settled = {
  amount: decimal.required(),
  difference: decimal,
  differenceAccount: accountCode,
};
const paymentFields = {
  kind: Joi.string().valid("receipt", "payment"),
  number: Joi.string().trim().max(60).allow(""),
  date: date.required(),
  account: accountCode,
  amount: decimal.required(),
  currency: Joi.string().uppercase().length(3),
  /** What the bank made of it, in the currency of the books; only in another currency. */
  bankAmount: decimal,
  reference: text,
  note: text,
};

/** A payment or receipt posted through the API; money as decimal strings in major units. */
export const paymentBody = Joi.object<PaymentBody, true>({
  ...paymentFields,
  kind: paymentFields.kind.required(),
  contact: id.allow(null),
  allocations: Joi.array()
    .items(Joi.object({ document: id.required(), ...settled }))
    .unique("document")
    .max(2000)
    .default([]),
});

/**
 * A payment as a book file holds it: documents by their number, and by kind where a number is used twice, or by their
 * row in the file.
 */
export const bookPayment = Joi.object<BookPayment, true>({
  ...paymentFields,
  contact: ref.allow(null),
  allocations: Joi.array()
    .items(Joi.object({ document: Joi.string().max(60).required(), kind: Joi.string(), ...settled }))
    .max(2000),
  reportedIn: date,
});

export interface AllocationBody {
  document: number;
  amount: string;
  difference?: string;
  differenceAccount?: string | null;
}

export interface PaymentBody {
  kind: PaymentKind;
  number?: string;
  date: string;
  contact?: number | null;
  account?: string | null;
  amount: string;
  currency?: string;
  bankAmount?: string;
  reference?: string;
  note?: string;
  allocations: AllocationBody[];
}

export interface BookPayment {
  kind?: PaymentKind;
  number?: string;
  date: string;
  contact?: string | null;
  account?: string | null;
  amount: string;
  currency?: string;
  bankAmount?: string;
  reference?: string;
  note?: string;
  allocations?: {
    document: string;
    kind?: DocumentKind;
    amount: string;
    difference?: string;
    differenceAccount?: string | null;
  }[];
  /** End of the period in which what it made reportable was reported late. */
  reportedIn?: string;
}

/** A document with something left to settle. Amounts in minor units of its own currency. */
export interface OpenItem {
  document: number;
  kind: DocumentKind;
  number: string;
  date: string;
  contact: number | null;
  party: string;
  currency: string;
  gross: number;
  open: number;
  days: number;
}

export interface OpenItemPage {
  total: number;
  /** What is open of all that match in the currency of the books, customers owing positive. */
  open: number;
  rows: OpenItem[];
}

export interface PaymentRow {
  id: number;
  kind: PaymentKind;
  number: string;
  date: string;
  party: string;
  account: string;
  reference: string;
  amount: number;
  onAccount: number;
  documents: string;
  state: "posted" | "superseded" | "void";
}

export interface PaymentPage {
  total: number;
  received: number;
  paid: number;
  rows: PaymentRow[];
}

export interface PaymentView {
  id: number;
  state: PaymentRow["state"];
  kind: PaymentKind;
  number: string;
  date: string;
  contact: { id: number; name: string } | null;
  account: string;
  currency: string;
  amount: number;
  /** In the currency of the books. */
  base: number;
  onAccount: number;
  reference: string;
  note: string;
  entry: number | null;
  allocations: (OpenItem & { amount: number; difference: number; differenceAccount: string | null })[];
  /** The sealed period that keeps it from being changed. */
  locked: { period: string; state: string } | null;
  history: { at: string; by: string; what: string }[];
}
