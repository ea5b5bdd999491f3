import Joi from "joi";
import type { Rounding } from "@fiscalon/core/model/rounding";
import type { RateRow } from "@fiscalon/core/model/taxCode";
import { isCalendarDate } from "@fiscalon/core/calendar/date";

/** Small schemas used in many bodies. Money is a decimal string in major units; dates are YYYY-MM-DD. */
export const decimal = Joi.string().pattern(
  /^[+-]?\d{1,15}(\.\d{1,6})?$/,
  "a decimal number such as 1234.50",
);
export const percentage = Joi.string().pattern(/^\d{1,3}(\.\d{1,6})?$/, "a percentage such as 12.5");
export const date = Joi.string()
  .custom((value: string, helpers) => (isCalendarDate(value) ? value : helpers.error("date.calendar")))
  .messages({ "date.calendar": "{{#label}} is not a date that exists; write it like 2026-03-31" });
export const name = Joi.string().trim().min(1).max(200);
export const text = Joi.string().trim().allow("").max(2000);
export const ref = Joi.string().trim().min(1).max(60);
export const country = Joi.string().uppercase().length(2);
export const region = Joi.string().trim().max(10).allow(null, "");
export const taxNumber = Joi.string().trim().max(40).allow(null, "");
export const id = Joi.number().integer().positive();
export const reason = Joi.string().trim().min(3).max(1000);
export const roundingBody = Joi.object<Rounding, true>({
  level: Joi.string().valid("line", "document").required(),
  mode: Joi.string().valid("half-up", "half-even", "down", "up").default("half-up"),
  step: Joi.number().integer().min(1).max(100_000),
  lineStep: decimal,
  combined: Joi.boolean(),
});

/** A row of a schedule of the client's own: a percentage, or an amount in major units. */
export const rateRow = Joi.object<RateRow, true>({
  from: date.required(),
  to: date.allow(null).default(null),
  rate: decimal.required(),
  source: text.default(""),
  doubt: text,
});
