import Joi from "joi";
import { LATE_KINDS } from "@fiscalon/core/model/correction";
import type { Doubt } from "@fiscalon/core/jurisdictions/doubts";
import type { LateKind } from "@fiscalon/core/model/correction";
import type { CorrectionAnswer } from "@fiscalon/core/returns/corrections";
import { ALL_TAX_PAYMENT_KINDS } from "@fiscalon/core/model/taxPaymentKinds";
import type { BoxDefinition } from "@fiscalon/core/model/returnForm";
import type { Finding } from "@fiscalon/core/model/finding";
import type { Contribution, ContributionIn } from "@fiscalon/core/returns/evaluateReturn";
import { date, decimal, reason, text } from "./fields.ts";

export const returnsQuery = Joi.object({ from: date.required(), to: date.required() });
export const adjustmentBody = Joi.object({
  box: Joi.string().max(60).required(),
  amount: decimal.required(),
  reason: reason.required(),
  evidence: text,
});
export const lateBody = Joi.object<LateBody, true>({
  kind: Joi.string()
    .valid(...LATE_KINDS)
    .allow(null)
    .required(),
  separately: Joi.boolean().required(),
  amends: Joi.boolean(),
  reason: reason.required(),
});
/** What a person says of a late document; a kind of null is the one found by rule. */
export interface LateBody {
  kind: LateKind | null;
  separately: boolean;
  /** An earlier return already held it otherwise: it stands where the form has amendments. */
  amends?: boolean;
  reason: string;
}
export const acceptBody = Joi.object({ key: Joi.string().max(200).required(), reason: reason.required() });
export const reasonBody = Joi.object({ reason: reason.required() });
export const stateBody = Joi.object({ state: Joi.string().valid("open", "in-review").required() });
/** A figure of a return as whoever seals or files it saw it; minor units. */
export interface SeenBox {
  box: string;
  amount: number;
}
const seenBoxes = Joi.array().items(
  Joi.object<SeenBox, true>({
    box: Joi.string().max(60).required(),
    amount: Joi.number().integer().required(),
  }),
);
/** `boxes` are the figures that were seen: others are not sealed. */
export const sealBody = Joi.object({ boxes: seenBoxes }).allow(null);
export const fileBody = Joi.object({
  /** The figures that are declared: others are not filed. */
  boxes: seenBoxes,
  declared: Joi.boolean().valid(true).required().messages({
    "any.only": "Read the declaration and confirm it before filing",
  }),
  /** What the authority's own pages gave; only where the return is not sent from here. */
  reference: Joi.string().allow("").max(100).default(""),
});
export const taxPaymentBody = Joi.object({
  date: date.required(),
  kind: Joi.string()
    .valid(...ALL_TAX_PAYMENT_KINDS)
    .required(),
  amount: decimal.required(),
  reference: text,
});

export type PeriodState = "open" | "in-review" | "sealed" | "filed" | "settled";

/** One tile of the period ribbon. `net` in minor units: positive to pay. */
export interface PeriodTile {
  from: string;
  to: string;
  due: string;
  payBy: string;
  state: PeriodState | "ahead";
  net: number;
  output: number;
  input: number;
}

export interface BoxView {
  id: string;
  title: string;
  short: string;
  kind: BoxDefinition["kind"];
  /** The part of the form, by its id. */
  part: string | null;
  /** A step of the computation that the official form does not have. */
  helper: boolean;
  holds: "tax" | "value";
  formula: string | null;
  words: string;
  /** Decimals shown: 0 for boxes in whole units. */
  digits: number;
  amount: number;
  exact: number;
  previous: number | null;
  contributions: Contribution[];
}

export interface FindingView extends Finding {
  title: string;
  source: string;
  accepted: { reason: string; by: string; at: string } | null;
}

export interface AdjustmentView {
  id: number;
  box: string;
  amount: number;
  reason: string;
  evidence: string;
  by: string;
  at: string;
}

/** A document of a sealed period that turned up after it. Amounts in minor units. */
export interface LateDocument {
  document: number;
  number: string;
  party: string;
  date: string;
  /** End of the period it belongs to. */
  own: string;
  /** As found by rule, or as a person said. */
  kind: LateKind;
  said: boolean;
  /** Put right apart from this return. */
  separately: boolean;
  /** Changes what an earlier return already held. */
  amends: boolean;
  reason: string;
  net: number;
  output: number;
  input: number;
}

/** The return of a period as the Return station shows it. Amounts in minor units. */
export interface ReturnView {
  registration: number;
  from: string;
  to: string;
  due: string;
  payBy: string;
  /** Days of statements and deposits that belong to the period beside the return. */
  further: { name: string; due: string; source: string }[];
  state: PeriodState;
  formName: string;
  parts: { id: string; name: string }[];
  /** Whether the authority takes it electronically; otherwise it is keyed into its pages and noted as filed. */
  electronic: boolean;
  boxes: BoxView[];
  /** Families of boxes whose members can be adjusted, also those that hold nothing. */
  families: { id: string; short: string; members: string[] }[];
  /** End of the period the `previous` amounts are of. */
  previousPeriod: string | null;
  net: number;
  factCount: number;
  hash: string | null;
  adjustments: AdjustmentView[];
  findings: FindingView[];
  declaration: string;
  sealed: { at: string; by: string } | null;
  filed: { at: string; by: string; receipt: Record<string, unknown> } | null;
  /** When it was sent, where its answer is not known. */
  sentWithoutAnswer: string | null;
  /** Whether sending it reaches the simulator only. */
  simulated: boolean;
  settled: { at: string; by: string } | null;
  /** What would be declared today where that differs from what was sealed. */
  drift: { box: string; sealed: number; now: number }[];
  /** What belongs to earlier periods and turned up in this one, by document; and what the law says of it. */
  late: LateDocument[];
  corrections: CorrectionAnswer[];
  /** The figures of the law it rests on that should be looked up. */
  doubts: Doubt[];
}

/** How far each station is with a period. Amounts in minor units. */
export interface StationCounts {
  lines: number;
  /** Findings that are neither mended nor accepted, and how many of them stop. */
  findings: number;
  stops: number;
  /** What the control accounts leave to explain. */
  left: number;
}

/** The boxes of any stretch of time; money as decimals in major units, `exact` before the box was rounded. */
export interface BoxesBetween {
  from: string;
  to: string;
  form: string;
  boxes: {
    id: string;
    title: string;
    amount: string;
    exact: string;
    contributions: ContributionIn<string>[];
  }[];
}
