import Joi from "joi";
import { BRIDGES } from "@fiscalon/core/agree/turnoverBridge";
import type { BridgeOf } from "@fiscalon/core/agree/turnoverBridge";
import { date, name, text } from "./fields.ts";

/** Sales from income, or purchases from costs. */
export const bridgeOf = Joi.string()
  .valid(...Object.keys(BRIDGES))
  .default("turnover");

/** A step of a bridge. Minor units. */
export interface BridgeCause {
  id: string;
  name: string;
  amount: number;
  /** How many rows it opens; none where it is worked out. */
  rows: number;
  found: "rule" | "person";
}

/** How far an agreement is: `accepted` with what is left, `changed` since somebody agreed it. */
export type AgreementState = "open" | "agreed" | "accepted" | "changed";

/** The turnover bridge of a span of whole filing periods. Minor units, income positive. */
export interface BridgeView {
  of: BridgeOf;
  from: string;
  to: string;
  digits: number;
  form: string;
  /** The boxes that hold turnover; none where the form has none, and the value of sales stands in their place. */
  boxes: string[];
  left: number;
  right: number;
  /** What the left figure is made of, by account; and the right one, by return and box. */
  accounts: { code: string; name: string; amount: number }[];
  declared: { to: string; box: string; amount: number }[];
  causes: BridgeCause[];
  /** Rows nobody has named a cause for. */
  open: { amount: number; rows: number };
  /** What is left: right − left − every cause. */
  rest: number;
  state: AgreementState;
  agreed: { by: string; at: string; note: string } | null;
  /** Where it changed since then: the causes whose amounts are others now. */
  changed: { name: string; before: number; now: number }[];
  /** Causes that people named before, to choose from. */
  named: string[];
}

/** A line or an entry that income and the returns hold apart. */
export interface BridgeRow {
  key: string;
  /** What it opens in the trail; null for an entry without a document. */
  ref: string | null;
  document: number | null;
  date: string;
  number: string;
  party: string;
  text: string;
  account: string;
  ledger: number;
  base: number;
  amount: number;
  reason: string;
  /** The cause that was named for such a row before. */
  suggestion: string | null;
}

export interface BridgePage {
  total: number;
  rows: BridgeRow[];
}

/** By what a side of a bridge can be put together. */
export const BRIDGE_BY = {
  month: "Month",
  account: "Account",
  party: "Party",
  treatment: "Treatment",
  rate: "Rate",
} as const;

export type BridgeBy = keyof typeof BRIDGE_BY;

/** What the books have of some lines, and the boxes. Minor units. */
export interface BridgeByRow {
  /** Empty where a line has none of it. */
  key: string;
  ledger: number;
  base: number;
  rows: number;
}

export interface BridgeByPage {
  total: number;
  rows: {
    ref: string;
    date: string;
    number: string;
    party: string;
    text: string;
    ledger: number;
    base: number;
  }[];
}

export const bridgeByField = Joi.string()
  .valid(...Object.keys(BRIDGE_BY))
  .required();

export interface NameCauseBody {
  of: BridgeOf;
  from: string;
  to: string;
  keys: string[];
  cause: string;
  reason: string;
}

const MOST_KEYS = 1000;
const key = Joi.string().max(60);

/** A cause for rows; an empty one takes what was named back. */
export const nameCauseBody = Joi.object<NameCauseBody, true>({
  of: bridgeOf,
  from: date.required(),
  to: date.required(),
  keys: Joi.array().items(key).min(1).max(MOST_KEYS).unique().required(),
  cause: name.allow("").required(),
  reason: text.default(""),
});

export interface AgreeBody {
  of: BridgeOf;
  from: string;
  to: string;
  note: string;
}

export const agreeBody = Joi.object<AgreeBody, true>({
  of: bridgeOf,
  from: date.required(),
  to: date.required(),
  note: text.default(""),
});
