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
      ref: string | null;
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
