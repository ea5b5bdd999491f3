import Joi from "joi";
import type { SupplyRule } from "@fiscalon/core/model/supplyRule";
import type { Component, TaxCode } from "@fiscalon/core/model/taxCode";
import { TREATMENTS } from "@fiscalon/core/model/taxCode";
import { date, decimal, id, name, percentage, rateRow, text } from "./fields.ts";

const schedule = Joi.string().max(60).required();
const formula = Joi.string().max(600);

const rate = Joi.alternatives(
  Joi.object({ kind: Joi.string().valid("percent", "per-unit", "per-document").required(), schedule }),
  Joi.object({ kind: Joi.string().valid("formula").required(), formula: formula.required(), base: formula }),
  Joi.object({ kind: Joi.string().valid("none", "typed").required() }),
);

const when = Joi.object().pattern(
  Joi.string().max(40),
  Joi.alternatives(Joi.string().allow("").max(40), Joi.array().items(Joi.string().allow("").max(40)).max(80)),
);

const boxes = Joi.alternatives(
  Joi.string().allow("").max(600),
  Joi.array()
    .items(Joi.object({ when, tags: Joi.string().allow("").max(600).required() }))
    .max(20),
);

const split = Joi.object({
  share: percentage.required(),
  role: Joi.string().valid("output-tax", "input-tax", "cost", "due-to-authority"),
  account: Joi.string().max(20),
}).xor("role", "account");

const cap = Joi.object({ schedule, of: Joi.string().valid("net", "gross").required() });

const wholeShare = Joi.object({
  from: Joi.number().min(0).max(100).required(),
  noneUpTo: Joi.number().min(0).max(100).required(),
});

export const componentBody = Joi.object<Component, true>({
  levy: Joi.string().max(30).required(),
  rate: rate.required(),
  base: Joi.object({
    of: Joi.string().valid("net", "gross"),
    share: percentage,
    over: decimal,
    upTo: decimal,
  }),
  partOfLaterBases: Joi.boolean().default(false),
  charged: Joi.string().valid("charged", "self-assessed", "declared-only").default("charged"),
  recoverable: percentage.default("100"),
  cap,
  when,
  onlyRegistered: Joi.boolean(),
  splits: Joi.object({
    invoice: Joi.array().items(split).min(1).required(),
    credit: Joi.array().items(split).min(1),
  }),
  boxes: Joi.object({
    sale: boxes,
    purchase: boxes,
    saleCredit: boxes,
    purchaseCredit: boxes,
    saleLate: boxes,
  }).default({}),
});

/** A tax code, as the set-up screens and book files send it. What it means is checked by core. */
export const codeBody = Joi.object<TaxCode, true>({
  code: Joi.string().trim().min(1).max(20).required(),
  name: name.required(),
  direction: Joi.string().valid("sale", "purchase", "both").default("both"),
  supply: Joi.string().valid("goods", "services", "both").default("both"),
  treatment: Joi.string()
    .valid(...TREATMENTS)
    .required(),
  from: date.allow(null).default(null),
  to: date.allow(null).default(null),
  note: text.default(""),
  source: text.default(""),
  // Only what is outside the scope may bear nothing, and be on no return.
  components: Joi.array()
    .items(componentBody)
    .max(200)
    .required()
    .when("treatment", { not: "out-of-scope", then: Joi.array().min(1) }),
  amountIs: Joi.string().valid("price", "gross", "tax", "base"),
  inputs: Joi.array().items(Joi.string().max(40)).max(10),
  family: Joi.array().items(
    Joi.object({ value: Joi.string().max(10).required(), percent: percentage.required() }),
  ),
  variants: Joi.array().items(
    Joi.object({
      suffix: Joi.string().max(5).required(),
      name: name.required(),
      recoverable: percentage.required(),
      cap,
      inputs: Joi.array().items(Joi.string().max(40)).max(10),
      wholeShare,
    }),
  ),
  wholeShare,
  order: text,
  scope: Joi.string().max(20),
  limit: Joi.string().max(60),
  hold: Joi.string().max(40),
  doubt: text,
  noneApplies: text,
  pack: Joi.string().max(20),
});

const place = Joi.string().pattern(
  /^(any|home|union|abroad|outside-union|[A-Z]{2}(-[A-Z0-9-]+)?)$/,
  "a place",
);

/** Which side, items and place a code is made the default of. */
export const defaultBody = Joi.object({
  side: Joi.string().valid("sale", "purchase").required(),
  scope: Joi.string().valid("existing", "new", "all").required(),
  place: id.allow(null).default(null),
});

/** A schedule of rates of the client's own, row by row. */
export const scheduleBody = Joi.object({ rows: Joi.array().items(rateRow).min(1).max(200).required() });

/** A supply rule. */
export const ruleBody = Joi.object<SupplyRule, true>({
  id: Joi.string().max(60),
  direction: Joi.string().valid("sale", "purchase").required(),
  taxClass: Joi.string().max(40).required(),
  supply: Joi.string().valid("goods", "services", "any").default("any"),
  from: place.default("any"),
  to: place.default("any"),
  party: Joi.string().max(40).default("any"),
  validFrom: date.allow(null).default(null),
  validTo: date.allow(null).default(null),
  needs: Joi.string().max(30).allow(null),
  code: Joi.string().max(20).allow("").required(),
  words: text.min(3).required(),
  source: text.default(""),
});
