import Joi from "joi";
import { date, decimal, ref, text } from "./fields.ts";

/** What the authority's account says is owed to it on a day; negative where it owes. An empty amount takes it back. */
export interface AuthorityBalanceBody {
  on: string;
  amount: string;
  note: string;
}

export const authorityBalanceBody = Joi.object<AuthorityBalanceBody, true>({
  on: date.required(),
  amount: decimal.allow("").required(),
  note: text.default(""),
});

/** The same in a book file, of a registration. */
export interface BookAuthorityBalance extends AuthorityBalanceBody {
  registration: string;
}

export const bookAuthorityBalance = Joi.object<BookAuthorityBalance, true>({
  registration: ref.required(),
  on: date.required(),
  amount: decimal.required(),
  note: text.required(),
});
