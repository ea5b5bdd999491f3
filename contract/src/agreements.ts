import Joi from "joi";
import type { AgreementState } from "./bridge.ts";
import { text } from "./fields.ts";

/** The screens on which agreements are worked through. */
export type AgreementScreen =
  | "agree/control"
  | "agree/turnover"
  | "agree/purchases"
  | "agree/balances"
  | "agree/statements"
  | "agree/held"
  | "agree/unpaid";

/** An agreement of a period in brief: two figures from different sources, and what stands between them. Minor units. */
export interface AgreementLine {
  /** `control`, `turnover`, `purchases`, `held`, `unpaid`, `receivable`, `bank/…`, `cards`, `statement/KIND/END/PARTY`. */
  id: string;
  title: string;
  screen: AgreementScreen;
  /** Where it opens inside the client. */
  path: string;
  leftName: string;
  left: number;
  rightName: string;
  right: number;
  /** What causes explain of right − left, and what they leave. */
  explained: number;
  rest: number;
  /** Rows that wait to be decided or named. */
  waiting: number;
  /** Null where there are no two figures to agree. */
  state: AgreementState | null;
  agreed: { by: string; at: string; note: string } | null;
  /** Figures that are others now than when it was agreed. */
  changed: { name: string; before: number; now: number }[];
}

export interface AgreeLineBody {
  id: string;
  note: string;
}

export const agreeLineBody = Joi.object<AgreeLineBody, true>({
  id: Joi.string().max(300).required(),
  note: text.default(""),
});
