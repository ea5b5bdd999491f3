import Joi from "joi";
import { BRIDGES } from "@fiscalon/core/agree/turnoverBridge";
import type { BridgeOf } from "@fiscalon/core/agree/turnoverBridge";
import type { KeptAgreement } from "./agreements.ts";
import { date, decimal, name, ref, text } from "./fields.ts";

/** A cause a person named for a line, by a pointer to its document and the number of the line. */
export interface BookNamedCause {
  registration: string;
  kind: BridgeOf;
  row: string;
  cause: string;
  reason: string;
  account: string;
  text: string;
}

/** A span that was agreed as it stood; amounts in major units. */
export interface BookAgreement {
  registration: string;
  /** Which agreement: `turnover`, `control`, `bank/1000`, … */
  kind: string;
  from: string;
  to: string;
  figures: { name: string; amount: string }[];
  open: string;
  rest: string;
  note: string;
}

/** An agreement as it stood when its period was sealed; amounts in major units. */
export interface BookKeptAgreement extends Pick<
  KeptAgreement,
  "id" | "title" | "leftName" | "rightName" | "waiting" | "state" | "agreed"
> {
  left: string;
  right: string;
  rest: string;
  causes: { name: string; amount: string }[];
}

const kind = Joi.string()
  .valid(...Object.keys(BRIDGES))
  .required();

export const bookNamedCause = Joi.object<BookNamedCause, true>({
  registration: ref.required(),
  kind,
  row: Joi.string()
    .pattern(/^\/documents\/\d+\/\d+$/)
    .required(),
  cause: name.required(),
  reason: text.required(),
  account: Joi.string().max(20).allow("").required(),
  text: text.required(),
});

const MOST_FIGURES = 200;
const figures = Joi.array()
  .items(Joi.object({ name: name.required(), amount: decimal.required() }))
  .max(MOST_FIGURES)
  .required();

export const bookKeptAgreement = Joi.object<BookKeptAgreement, true>({
  id: Joi.string().max(300).required(),
  title: name.required(),
  leftName: name.required(),
  left: decimal.required(),
  rightName: name.required(),
  right: decimal.required(),
  rest: decimal.required(),
  causes: figures,
  waiting: Joi.number().integer().min(0).required(),
  state: Joi.string().valid("open", "agreed", "accepted", "changed").required(),
  agreed: Joi.object({ by: name.required(), at: Joi.string().isoDate().required(), note: text.required() })
    .allow(null)
    .required(),
});

export const bookAgreement = Joi.object<BookAgreement, true>({
  registration: ref.required(),
  kind: Joi.string().max(300).required(),
  from: date.required(),
  to: date.required(),
  figures,
  open: decimal.required(),
  rest: decimal.required(),
  note: text.required(),
});
