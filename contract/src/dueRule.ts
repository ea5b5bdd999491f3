import Joi from "joi";
import { MONTHS_OF } from "@fiscalon/core/calendar/filingPeriods";
import { boxId, minor } from "./correctionRule.ts";
import { date, decimal, name, text } from "./fields.ts";

export const monthsAfter = Joi.number().integer().min(0).max(24);
export const dayOfMonth = Joi.alternatives(Joi.number().integer().min(1).max(31), Joi.string().valid("end"));
export const frequency = Joi.string().valid(...Object.keys(MONTHS_OF));
export const shift = Joi.string().valid("none", "next", "before");
const daysMore = Joi.number().integer().min(0).max(60);

/** When something is due, counted from the end of a period. */
export const dueRule = Joi.object({
  frequencies: Joi.array().items(frequency),
  endMonths: Joi.array().items(Joi.number().integer().min(1).max(12)),
  levies: Joi.array().items(Joi.string()),
  regions: Joi.array().items(Joi.string()),
  option: Joi.array().ordered(Joi.string().required(), Joi.string().required()),
  months: monthsAfter.required(),
  day: dayOfMonth.required(),
  days: daysMore,
  shift: shift.required(),
  payShift: shift,
  pay: Joi.object({ months: monthsAfter.required(), day: dayOfMonth.required(), days: daysMore }),
  fixed: Joi.object().pattern(/^\d{4}-\d\d-\d\d$/, date),
  ends: Joi.object({ from: date.required(), to: date.allow(null).default(null) }),
  source: text.default(""),
  doubt: text,
});

/** What is paid during a period against its one return. */
export const instalmentRule = Joi.object({
  id: Joi.string().max(40).required(),
  name: name.required(),
  options: Joi.array().items(Joi.array().ordered(Joi.string().required(), Joi.string().required())),
  frequency: frequency.required(),
  levies: Joi.array().items(Joi.string().max(30)),
  parts: Joi.array()
    .items(
      Joi.object({
        months: Joi.number().integer().min(1).max(12).required(),
        share: Joi.string()
          .pattern(/^\d+(\.\d+)?(\/\d+)?$/, "percent as a decimal or a fraction")
          .required(),
      }),
    )
    .min(1)
    .max(12)
    .required(),
  due: Joi.array().items(dueRule).min(1).required(),
  before: Joi.object().pattern(Joi.string().allow("").max(60), Joi.string().max(400)),
  way: Joi.string().valid("fixed", "lesser", "varied", "actual").required(),
  shorter: decimal,
  rounding: Joi.object({
    mode: Joi.string().valid("half-up", "half-even", "down", "up").required(),
    step: Joi.number().integer().min(1).required(),
  }),
  least: minor,
  paidIn: boxId,
  labels: Joi.object({
    asked: text.required(),
    estimate: text.required(),
    varied: text.required(),
    reason: text.required(),
    due: text.required(),
  }),
  warnBelow: decimal,
  says: text.required(),
  source: text.default(""),
});

const after = Joi.number().integer().min(0).max(400).required();
const lateWay = Joi.alternatives(
  Joi.object({ way: Joi.string().valid("share").required(), percent: decimal.required(), after }),
  Joi.object({
    way: Joi.string().valid("yearly").required(),
    schedule: Joi.string().max(80).required(),
    after,
  }),
  Joi.object({
    way: Joi.string().valid("monthly").required(),
    percent: decimal.required(),
    after,
    begun: Joi.boolean().required(),
    most: Joi.number().integer().min(1).max(400).required(),
    downTo: minor,
  }),
  Joi.object({
    way: Joi.string().valid("fee").required(),
    each: Joi.string().valid("day", "28 days", "month", "once").required(),
    amount: minor.required(),
    nil: minor,
    most: minor.required(),
  }),
);

/** What is charged for filing or paying late. */
export const lateCharge = Joi.object({
  id: Joi.string().max(40).required(),
  name: name.required(),
  kind: Joi.string().valid("interest", "penalty").required(),
  on: Joi.string().valid("filing", "payment").required(),
  levies: Joi.array().items(Joi.string().max(30)),
  frequencies: Joi.array().items(frequency),
  from: date.required(),
  to: date.allow(null).default(null),
  way: lateWay.required(),
  heads: Joi.object().pattern(Joi.string().max(30), text),
  rounding: Joi.object({
    mode: Joi.string().required(),
    step: Joi.number().integer().min(1).required(),
  }),
  says: text.required(),
  source: text.default(""),
  doubt: text,
});
