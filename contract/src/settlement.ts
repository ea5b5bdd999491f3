import Joi from "joi";
import { decimal, text } from "./fields.ts";
import type { LateDocument } from "./returns.ts";
import type { TaxPaymentKind } from "@fiscalon/core/model/taxPaymentKinds";

export interface AgreementColumn {
  account: string;
  name: string;
  opening: number;
  declared: number;
  timing: number;
  settlement: number;
  payments: number;
  uncodedTotal: number;
  /** Entries without a code that still want a reason. */
  unexplained: number;
  closing: number;
  difference: number;
  left: number;
}

export interface ControlAgreementView {
  from: string;
  to: string;
  levy: string;
  columns: AgreementColumn[];
  uncoded: {
    entry: number;
    documentId: number | null;
    date: string;
    text: string;
    account: string;
    amount: number;
    reason: string | null;
  }[];
  left: number;
}

/** What is said of one instalment, decimal text; empty where nothing is. */
export interface InstalmentBody {
  asked: string;
  estimate: string;
  reason: string;
}

/** What is said of one instalment; nothing takes back what was said. */
export const instalmentBody = Joi.object<InstalmentBody, true>({
  asked: decimal.allow("").default(""),
  estimate: decimal.allow("").default(""),
  reason: text.default(""),
});

/** One payment of a period before its return; minor units. */
export interface InstalmentView {
  no: number;
  /** End of the months it belongs to. */
  to: string;
  due: string;
  /** Null where somebody has to say it. */
  amount: number | null;
  asked: number | null;
  estimate: number | null;
  varied: number | null;
  reason: string;
  /** By head, where it is paid under several. */
  heads: { head: string; amount: number }[];
  arithmetic: string;
  paid: number;
  /** Days since it was due, where something is still to be paid. */
  late: number;
}

/** The payments of a period against its one return. */
export interface InstalmentsView {
  name: string;
  says: string;
  source: string;
  labels: { asked: string; estimate: string; varied: string; reason: string; due: string } | null;
  /** Whether what the authority asks for and an estimate can be said. */
  told: boolean;
  rows: InstalmentView[];
  /** What varying cost or may cost, in a sentence. */
  warning: string | null;
}

/** What the law charges for being late, as things stand today; minor units. */
export interface LateView {
  id: string;
  name: string;
  kind: "interest" | "penalty";
  on: "filing" | "payment";
  /** The last day in time. */
  since: string;
  amount: number;
  arithmetic: string[];
  says: string;
  source: string;
  doubt: string | null;
}

export interface SettlementView {
  from: string;
  to: string;
  state: string;
  net: number;
  entry: {
    date: string;
    postings: {
      account: string;
      name: string;
      amount: number;
      text: string;
      before: number;
      ref: string;
    }[];
  };
  posted: number | null;
  payments: {
    id: number;
    date: string;
    kind: TaxPaymentKind;
    amount: number;
    reference: string;
    entry: number;
  }[];
  outstanding: number;
  instalments: InstalmentsView | null;
  /** What being late costs so far, and what was recorded of it. */
  lateCharges: { proposed: LateView[]; recorded: number };
  continuity: {
    period: string;
    state: string;
    opening: number;
    declared: number;
    disclosed: number;
    charges: number;
    paid: number;
    refunded: number;
    closing: number;
    ledger: number;
  }[];
  late: LateDocument[];
}
