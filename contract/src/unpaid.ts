import Joi from "joi";
import { id } from "./fields.ts";

const MOST_AT_ONCE = 500;

export const unpaidBody = Joi.object<UnpaidBody, true>({
  rule: Joi.string().max(40).required(),
  documents: Joi.array().items(id).min(1).max(MOST_AT_ONCE).unique().required(),
  account: Joi.string().max(20).required(),
});
/** Documents whose tax is put on a return by a rule about what stays unpaid, against which account. */
export interface UnpaidBody {
  rule: string;
  documents: number[];
  account: string;
}

/** A document that a rule about what stays unpaid speaks of. Amounts in minor units. */
export interface UnpaidRow {
  document: number;
  number: string;
  kind: string;
  party: string;
  date: string;
  due: string | null;
  /** First day on which its time was over. */
  over: string;
  currency: string;
  /** In the currency of the document. */
  gross: number;
  unpaid: number;
  way: "relief" | "back";
  /** In that of the books, by levy: the tax a return had, what was done about it before, and what is asked for now. */
  taxes: { levy: string; tax: number; done: number; amount: number }[];
  /** All of it: what is owed more (positive) or less. */
  owed: number;
  code: string;
}

/** A rule with how much it asks for. */
export interface UnpaidRuleView {
  id: string;
  name: string;
  direction: "sale" | "purchase";
  claimed: boolean;
  says: string;
  source: string;
  count: number;
  owed: number;
}

export interface UnpaidPage {
  rules: UnpaidRuleView[];
  /** Of the rule that is asked for. */
  total: number;
  rows: UnpaidRow[];
  /** Accounts that can stand against it, the usual one first. */
  account: string;
  /** Whether the return is still open. */
  open: boolean;
}
