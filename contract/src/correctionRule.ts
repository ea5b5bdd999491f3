import Joi from "joi";
import { BASES } from "@fiscalon/core/model/basis";
import { LATE_KINDS } from "@fiscalon/core/model/correction";
import { TREATMENTS } from "@fiscalon/core/model/taxCode";
import { decimal, name, text } from "./fields.ts";

const tags = Joi.string().max(200).allow("");
const boxesBySide = Joi.object({ sale: tags.required(), purchase: tags.required() });

const timeLimit = Joi.alternatives(
  Joi.object({
    years: Joi.number().integer().min(0).max(20).required(),
    from: Joi.string().valid("own-period", "own-due", "document").required(),
  }),
  Joi.object({
    day: Joi.string()
      .pattern(/^\d\d-\d\d$/)
      .required(),
    yearEnds: Joi.string()
      .pattern(/^\d\d-\d\d$/)
      .required(),
  }),
);
export const boxId = Joi.string().max(40);
export const minor = Joi.number().integer().min(0);

/** How errors of earlier periods are put right. */
export const correctionRule = Joi.object({
  claims: Joi.object({
    limit: timeLimit.required(),
    after: Joi.string().valid("barred", "reason").required(),
    source: text.default(""),
  }),
  limit: timeLimit.required(),
  per: Joi.string().valid("return", "period").required(),
  counts: Joi.string().valid("net", "each-way").required(),
  cases: Joi.array()
    .items(
      Joi.object({
        when: Joi.object({
          kinds: Joi.array().items(Joi.string().valid(...LATE_KINDS)),
          owed: Joi.string().valid("by", "to"),
          upTo: minor,
          below: minor,
          share: Joi.object({ percent: decimal.required(), box: boxId.required(), ceiling: minor }),
          months: Joi.number().integer().min(1).max(240),
          option: Joi.array().ordered(Joi.string().required(), Joi.string().required()),
          values: Joi.object({ percent: decimal.required(), box: boxId.required(), orBox: boxId }),
        }).required(),
        way: Joi.string().valid("on-return", "separately", "amend").required(),
        says: text.required(),
        source: text,
      }),
    )
    .min(1)
    .required(),
  source: text.default(""),
});

/** A basis of accounting a law offers, and how it is joined and left. */
export const basisOffer = Joi.object({
  levies: Joi.array().items(Joi.string().max(30)).min(1),
  basis: Joi.string()
    .valid(...BASES)
    .required(),
  name: name.required(),
  who: text,
  outside: Joi.object({
    treatments: Joi.array().items(Joi.string().valid(...TREATMENTS)),
    grossFrom: Joi.number().integer().min(1),
  }),
  asPaid: Joi.array().items(Joi.string().max(20)),
  leaving: Joi.array()
    .items(
      Joi.object({
        id: Joi.string().max(40).required(),
        name: name.required(),
        rest: Joi.string().valid("last-day", "first-day", "as-paid").required(),
        months: Joi.number().integer().min(1).max(120),
        boxes: boxesBySide,
        source: text.default(""),
      }),
    )
    .min(1),
  joining: boxesBySide,
  source: text.default(""),
});
