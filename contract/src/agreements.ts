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
  /** The same two figures and what they left when the period was sealed; null where it is not, or had none. */
  sealed: { left: number; right: number; rest: number } | null;
  /** What was written since, where a figure is another than when it was agreed or sealed. */
  since: WrittenSince | null;
}

/** Documents and payments written or ended after some moment, the latest of them. */
export interface WrittenSince {
  rows: { ref: string; text: string; date: string }[];
  total: number;
}

/** An agreement as it stood when its period was sealed: the workpaper that is kept. Minor units. */
export type KeptAgreement = Pick<
  AgreementLine,
  "id" | "title" | "leftName" | "left" | "rightName" | "right" | "rest" | "waiting" | "agreed"
> & { causes: { name: string; amount: number }[]; state: AgreementState };

export interface AgreeLineBody {
  id: string;
  note: string;
}

export const agreeLineBody = Joi.object<AgreeLineBody, true>({
  id: Joi.string().max(300).required(),
  note: text.default(""),
});
