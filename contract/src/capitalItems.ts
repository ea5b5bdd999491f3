import Joi from "joi";
import { CAPITAL_ENDS } from "@fiscalon/core/model/capitalItem";
import type { CapitalEnd } from "@fiscalon/core/model/capitalItem";
import { date, decimal, name, text } from "./fields.ts";
import { shareOfTurnover, signedBox } from "./scheme.ts";

/** A share in percent, as it is typed. */
const share = Joi.string()
  .pattern(/^(100(\.0{1,4})?|\d{1,2}(\.\d{1,4})?)$/)
  .messages({ "string.pattern.base": "{{#label}} is a percentage from 0 to 100, such as 65 or 72.5" });

/** A capital item as it is typed; amounts in major units. */
export interface CapitalItemBody {
  name: string;
  kind: string;
  firstUse: string;
  net: string;
  taxes: Record<string, string>;
  share: string;
  yearEnds: number;
  uses: Record<string, string>;
  ended: { on: string; how: CapitalEnd } | null;
  /** Number of the purchase paper, or what else says so. */
  evidence: string;
}

export const capitalItemBody = Joi.object<CapitalItemBody, true>({
  name: name.required(),
  kind: Joi.string().max(40).required(),
  firstUse: date.required(),
  net: decimal.required(),
  taxes: Joi.object().pattern(Joi.string().max(30), decimal).min(1).required(),
  share: share.default("100"),
  yearEnds: Joi.number().integer().min(1).max(12).required(),
  uses: Joi.object().pattern(date, share).max(240).default({}),
  ended: Joi.object({
    on: date.required(),
    how: Joi.string()
      .valid(...Object.keys(CAPITAL_ENDS))
      .required(),
  })
    .allow(null)
    .default(null),
  evidence: text.default(""),
});

/** A stretch of an item's time: the share typed for it, the last day of the return it stands on, what it adjusts. */
export interface CapitalStretch {
  from: string;
  to: string;
  share: string | null;
  reported: string | null;
  /** By levy, minor units; above nought more is deducted. */
  amounts: Record<string, number>;
}

export interface CapitalItemView {
  no: number;
  name: string;
  kind: string;
  firstUse: string;
  net: number;
  taxes: Record<string, number>;
  share: string;
  yearEnds: number;
  uses: Record<string, string>;
  ended: { on: string; how: CapitalEnd } | null;
  evidence: string;
  /** Those that have begun; of items that follow turnover month by month none. */
  stretches: CapitalStretch[];
  /** The last day of its time. */
  until: string;
  /** What its end leaves to adjust, and on which return. */
  rest: CapitalStretch | null;
}

/** Purchases that may belong on the list and are not named on it. */
export interface CapitalSuggestion {
  document: number;
  number: string;
  date: string;
  line: number;
  text: string;
  net: number;
  taxes: Record<string, number>;
  share: string;
}

export interface CapitalItemsView {
  digits: number;
  items: CapitalItemView[];
  suggested: CapitalSuggestion[];
}

/** An item of a book file. */
export interface BookCapitalItem extends CapitalItemBody {
  registration: string;
  no: number;
}

/** How tax on capital items follows their use, of a jurisdiction of the practice's own. */
export const capitalItemsRule = Joi.object({
  kind: Joi.string().valid("capital-items").required(),
  levies: Joi.array().items(Joi.string().max(30)).min(1).required(),
  kinds: Joi.array()
    .items(
      Joi.object({
        id: Joi.string().max(40).required(),
        name: name.required(),
        years: Joi.number().integer().min(1).max(40).required(),
        from: Joi.number().integer().min(0).required(),
        of: Joi.string().valid("net", "tax").required(),
      }),
    )
    .min(1)
    .required(),
  time: Joi.string().valid("years", "first-year", "months-of-years", "months").required(),
  share: Joi.string().valid("typed", "to-date", "turnover").required(),
  ratio: shareOfTurnover,
  yearEnds: Joi.object({
    usual: Joi.number().integer().min(1).max(12).required(),
    fixed: Joi.boolean().required(),
  }).required(),
  wait: Joi.number().integer().min(0).max(60),
  reported: Joi.string().valid("with", "next", "second").required(),
  least: Joi.object({ points: decimal.required(), upTo: Joi.number().integer().min(0) }),
  boxes: Joi.object()
    .pattern(Joi.string().max(30), Joi.object({ more: signedBox, less: signedBox }))
    .required(),
  suggested: Joi.array().items(Joi.string().max(20)).required(),
  says: text.required(),
  source: text.required(),
});
