import Joi from "joi";
import { date, id, reason } from "./fields.ts";

const MOST_AT_ONCE = 500;

export const releaseBody = Joi.object<ReleaseBody, true>({
  documents: Joi.array().items(id).min(1).max(MOST_AT_ONCE).unique().required(),
  on: date.required(),
  evidence: reason.required(),
});
/** Documents whose credit waits no more, from which day on, and what shows it. */
export interface ReleaseBody {
  documents: number[];
  on: string;
  evidence: string;
}

/** A document whose tax is not deducted yet, or was released. Amounts in minor units. */
export interface HeldCredit {
  document: number;
  number: string;
  party: string;
  date: string;
  levies: string;
  tax: number;
  /** What it waits for, in the words of the pack, and where that stands. */
  waitsFor: string;
  source: string;
  /** Whole days since the document, to the release where there is one. */
  days: number;
  released: string | null;
  evidence: string | null;
}

export interface HeldCreditPage {
  total: number;
  rows: HeldCredit[];
  /** What still waits, all pages together, and what the accounts of it hold. */
  waiting: number;
  ledger: number;
}
