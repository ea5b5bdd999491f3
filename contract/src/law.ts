import Joi from "joi";
import { MONTHS_OF } from "@fiscalon/core/calendar/filingPeriods";
import type { LawChange } from "@fiscalon/core/model/lawChange";
import { date, decimal, name, reason } from "./fields.ts";

const about = { pack: Joi.string().max(20).required(), source: reason.required() };
const months = Joi.number().integer().min(0).max(24);
const day = Joi.alternatives(Joi.number().integer().min(1).max(31), Joi.string().valid("end"));

/** A change of what is known of the law; what it may speak of is checked by core. */
export const lawChange = Joi.alternatives<LawChange>(
  Joi.object({
    ...about,
    kind: Joi.string().valid("confirm").required(),
    subject: Joi.string().max(400).required(),
    value: Joi.string().allow("").max(20_000).required(),
  }),
  Joi.object({
    ...about,
    kind: Joi.string().valid("rate").required(),
    schedule: Joi.string().max(60).required(),
    from: date.required(),
    to: date.allow(null).default(null),
    rate: decimal.required(),
  }),
  Joi.object({
    ...about,
    kind: Joi.string().valid("due").required(),
    frequency: Joi.string()
      .valid(...Object.keys(MONTHS_OF))
      .allow(null)
      .default(null),
    levy: Joi.string().max(30).allow(null).default(null),
    ends: Joi.object({ from: date.required(), to: date.allow(null).default(null) }).required(),
    months: months.required(),
    day: day.required(),
    shift: Joi.string().valid("none", "next", "before").default("none"),
    pay: Joi.object({ months: months.required(), day: day.required() }),
  }),
  Joi.object({
    ...about,
    kind: Joi.string().valid("title").required(),
    form: Joi.string().max(40).required(),
    box: Joi.string().max(40).required(),
    title: name.required(),
  }),
);

export const lawChangeBody = Joi.object<LawChangeBody, true>({ change: lawChange.required() });

export interface LawChangeBody {
  change: LawChange;
}

/** What a practice has found out about the law, as a small file for another one. */
export interface LawFile {
  format: "fiscalon-law";
  version: 1;
  changes: LawChange[];
}

export const lawFileBody = Joi.object<LawFile, true>({
  format: Joi.string().valid("fiscalon-law").required(),
  version: Joi.number().valid(1).required(),
  changes: Joi.array().items(lawChange).min(1).max(2000).required(),
});

/** A change on record: who made it, and when. */
export interface LawChangeRow {
  id: number;
  change: LawChange;
  by: string;
  at: string;
}

/** What a change touches before it is made: by client the open documents and the open returns it moves. */
export interface LawTouched {
  clients: {
    client: number;
    name: string;
    documents: number;
    /** Documents on sealed returns, which stay as they were declared. */
    declared: number;
    first: { id: number; number: string; date: string; gross: number; digits: number }[];
    returns: { registration: string; end: string }[];
  }[];
}

export interface LawTaken {
  added: number;
  known: number;
}
