import Joi from "joi";
import { date, decimal, ref, text } from "./fields.ts";
import { DECISIONS } from "./statements.ts";
import type { Decision, StatementBasis } from "./statements.ts";

/** A list of somebody else as it came in; amounts in major units. */
export interface BookStatement {
  registration: string;
  kind: string;
  contact: string | null;
  from: string;
  end: string;
  name: string;
  drawnOn: string | null;
  basis: StatementBasis;
  tolerance: string;
  days: number;
  sureFrom: number;
  rows: BookStatementRow[];
}

export interface BookStatementRow {
  partyNumber: string;
  partyName: string;
  number: string;
  /** Number of the earlier document it stands in the place of. */
  original: string;
  date: string;
  value: string;
  tax: string;
  taxes: Record<string, string>;
  rate: string;
  place: string;
  ineligible: string;
  note: string;
}

/** What a person said of documents of both sides, told by what they read. */
export interface BookMatchDecision {
  registration: string;
  kind: string;
  contact: string | null;
  end: string;
  decision: Decision;
  ours: string[];
  theirs: string[];
  reason: string;
}

const MOST_ROWS = 400_000;
const short = Joi.string().max(40).allow("").required();
const kind = Joi.string().max(40).required();
const keysOf = Joi.array().items(Joi.string().max(500)).max(1000).required();

const row = Joi.object<BookStatementRow, true>({
  partyNumber: short,
  partyName: text.required(),
  number: Joi.string().max(200).allow("").required(),
  original: Joi.string().max(200).allow("").default(""),
  date: date.required(),
  value: decimal.required(),
  tax: decimal.required(),
  taxes: Joi.object().pattern(Joi.string().max(20), decimal).required(),
  rate: short,
  place: short,
  ineligible: text.required(),
  note: text.required(),
});

export const bookStatement = Joi.object<BookStatement, true>({
  registration: ref.required(),
  kind,
  contact: ref.allow(null).required(),
  from: date.required(),
  end: date.required(),
  name: Joi.string().max(200).required(),
  drawnOn: date.allow(null).required(),
  basis: Joi.string().valid("net", "gross", "tax").required(),
  tolerance: decimal.required(),
  days: Joi.number().integer().min(0).max(90).required(),
  sureFrom: Joi.number().integer().min(50).max(100).required(),
  rows: Joi.array().items(row).max(MOST_ROWS).required(),
});

export const bookMatchDecision = Joi.object<BookMatchDecision, true>({
  registration: ref.required(),
  kind,
  contact: ref.allow(null).default(null),
  end: date.required(),
  decision: Joi.string()
    .valid(...Object.keys(DECISIONS))
    .required(),
  ours: keysOf,
  theirs: keysOf,
  reason: text.required(),
});
