import Joi from "joi";
import { MONTHS_OF } from "@fiscalon/core/calendar/filingPeriods";
import type { ReturnForm } from "@fiscalon/core/model/returnForm";
import { date, name, text } from "./fields.ts";

const boxRounding = Joi.object({
  mode: Joi.string().valid("half-up", "half-even", "down", "up").required(),
  step: Joi.number().integer().min(1).max(1_000_000).required(),
});

const boxFields = {
  id: Joi.string().trim().min(1).max(40).required(),
  title: name.required(),
  short: name.required(),
  holds: Joi.string().valid("tax", "value").required(),
  rounding: boxRounding.required(),
  words: text.required(),
  part: Joi.string().max(20),
  helper: Joi.boolean(),
  members: Joi.array().items(Joi.string().max(20)),
  doubt: text,
};

const box = Joi.alternatives(
  Joi.object({ ...boxFields, kind: Joi.string().valid("sum").required(), negativeTo: Joi.string().max(40) }),
  Joi.object({
    ...boxFields,
    kind: Joi.string().valid("formula").required(),
    formula: Joi.string().max(600).required(),
  }),
  Joi.object({ ...boxFields, kind: Joi.string().valid("typed").required() }),
  Joi.object({
    ...boxFields,
    kind: Joi.string().valid("carried").required(),
    of: Joi.string().max(40).required(),
  }),
  Joi.object({
    ...boxFields,
    kind: Joi.string().valid("taxed").required(),
    of: Joi.string().max(40).required(),
    schedule: Joi.string().max(80).required(),
  }),
);

const formula = Joi.string().max(600);

const formTable = Joi.object({
  heading: name,
  title: Joi.string().max(200).allow("").required(),
  columns: Joi.array().items(Joi.string().max(80).allow("")).min(1).max(20).required(),
  rows: Joi.array()
    .items(
      Joi.object({
        number: Joi.string().max(20).allow("").required(),
        title: Joi.string().max(300).allow("").required(),
        cells: Joi.array().items(Joi.string().max(40).allow(null)).max(20).required(),
        level: Joi.string().valid("sum", "result"),
      }),
    )
    .max(200)
    .required(),
});

/** A form with its boxes, in a jurisdiction of the practice's own. */
export const returnForm = Joi.object<ReturnForm, true>({
  id: Joi.string().max(40).required(),
  name: name.required(),
  levies: Joi.array().items(Joi.string().max(30)).min(1).required(),
  frequencies: Joi.array().items(Joi.string().valid(...Object.keys(MONTHS_OF))),
  option: Joi.array().ordered(Joi.string().required(), Joi.string().required()),
  from: date.required(),
  to: date.allow(null).default(null),
  parts: Joi.array().items(Joi.object({ id: Joi.string().max(20).required(), name: name.required() })),
  boxes: Joi.array().items(box).min(1).max(600).required(),
  tables: Joi.array().items(formTable).max(60),
  turnover: Joi.array().items(Joi.string().max(40)).max(40),
  purchases: Joi.array().items(Joi.string().max(40)).max(40),
  net: Joi.object({
    output: formula.required(),
    input: formula.required(),
    due: formula.required(),
    shown: Joi.string().max(40).required(),
    repaid: Joi.string().max(40),
    allowance: formula,
    carried: formula,
    scheme: formula,
  }).required(),
  fields: Joi.object().pattern(Joi.string().max(40), Joi.string().max(60)),
  rules: Joi.array().items(Joi.object({ formula: formula.required(), says: text.required() })),
  amended: Joi.array().items(
    Joi.object({
      from: Joi.array().items(Joi.string().max(40)).min(1).required(),
      to: Joi.string().max(40).required(),
    }),
  ),
  source: text.default(""),
});
