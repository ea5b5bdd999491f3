import Joi from "joi";
import type { Proposal } from "@fiscalon/core/agree/bankMatching";
import { date, decimal, id, reason, text } from "./fields.ts";

const accountCode = Joi.string().max(20);

export const bankAccountBody = Joi.object({
  account: accountCode.required(),
  number: Joi.string().trim().min(4).max(40).required(),
});

/** What a line of the bank is: an entry that is there, documents it pays, tax, or something to be posted now. */
export const matchBody = Joi.object<MatchBody, true>({
  entry: id,
  documents: Joi.array()
    .items(
      Joi.object({
        document: id.required(),
        amount: decimal.required(),
        difference: decimal,
        differenceAccount: accountCode.allow(null, ""),
      }),
    )
    .max(500),
  contact: id.allow(null),
  tax: Joi.object({ registration: id.required(), period: date.required() }),
  post: Joi.object({
    account: accountCode.required(),
    code: Joi.string().max(20).allow(null, ""),
    text,
  }),
  ignore: reason,
})
  .xor("entry", "documents", "tax", "post", "ignore")
  .with("contact", "documents");

/** `lines`: those whose best proposal is accepted; without it, every line where nothing else comes near. */
export const acceptBody = Joi.object<AcceptBody, true>({
  account: accountCode.required(),
  lines: Joi.array().items(id).min(1).max(500).unique(),
});

export interface AcceptBody {
  account: string;
  lines?: number[];
}

export interface MatchBody {
  entry?: number;
  documents?: { document: number; amount: string; difference?: string; differenceAccount?: string | null }[];
  contact?: number | null;
  tax?: { registration: number; period: string };
  post?: { account: string; code?: string | null; text?: string };
  ignore?: string;
}

export interface BankAccountView {
  account: string;
  name: string;
  /** Number of the account at the bank; null while none is connected. */
  number: string | null;
  consentUntil: string | null;
  fetchedTo: string | null;
  open: number;
  matched: number;
  /** Balance of the account in the ledger, and of the lines of the bank. */
  ledger: number;
  bank: number;
}

/** A proposal with what it names in words, so that the screen need not ask again. */
export type NamedProposal = Proposal & { label: string };

export interface BankLineView {
  id: number;
  date: string;
  amount: number;
  party: string;
  text: string;
  reference: string;
  state: "open" | "matched" | "ignored";
  entry: number | null;
  /** What it is matched with, or why it is ignored. */
  label: string;
  proposals: NamedProposal[];
}

export interface BankLinePage {
  total: number;
  /** How many of all open lines have a proposal good enough to be accepted in one go. */
  sure: number;
  sum: number;
  rows: BankLineView[];
}

export interface StatementReport {
  lines: number;
  fresh: number;
  alreadyThere: number;
  notices: string[];
}
