import Joi from "joi";
import { TREATMENTS } from "@fiscalon/core/model/taxCode";
import type { SchemeInForce } from "@fiscalon/core/model/scheme";
import { date, decimal, name, text } from "./fields.ts";

const id = Joi.string().max(40);
const codes = Joi.array().items(Joi.string().max(20));
const treatments = Joi.array().items(Joi.string().valid(...TREATMENTS));
const minor = Joi.number().integer().min(0);

/** Schemes a registration is on, by date. */
export const schemesInForce = Joi.array()
  .items(
    Joi.object<SchemeInForce, true>({
      scheme: id.required(),
      from: date.required(),
      to: date.allow(null).default(null),
      settings: Joi.object().pattern(id, id.allow("")).default({}),
    }),
  )
  .max(20);

const scheduleOf = Joi.object().pattern(Joi.string().max(80).allow(""), Joi.string().max(80));
const turnoverRate = Joi.object({
  kind: Joi.string().valid("turnover-rate").required(),
  of: Joi.string().valid("turnover", "tax").required(),
  rates: Joi.object({
    by: Joi.array().items(id).required(),
    bands: Joi.boolean().valid(true),
    schedules: scheduleOf.required(),
  }).required(),
  firstYear: decimal,
  takes: treatments.required(),
  replaces: treatments.required(),
  undeducted: treatments.required(),
  outside: codes.required(),
  capital: Joi.object({ codes: codes.required(), from: minor.required() }),
  limitedCost: Joi.object({
    schedule: Joi.string().max(80).required(),
    share: decimal.required(),
    aYear: minor.required(),
    notTopics: Joi.array().items(Joi.string().max(40)).required(),
    notCodes: codes.required(),
  }),
  credits: scheduleOf,
  firstSlice: Joi.object({
    share: decimal.required(),
    upTo: minor.required(),
    setting: id.required(),
    yearEnds: id.required(),
    says: text.required(),
  }),
  leaving: Joi.object({ above: minor.required() }),
  boxes: Joi.object({
    tax: id.required(),
    turnover: Joi.array().items(id).required(),
    input: id.required(),
    purchases: id,
    credit: id,
  }).required(),
  drops: Joi.array().items(id).required(),
});

const marginPool = Joi.object({
  kind: Joi.string().valid("margin-pool").required(),
  sales: codes.required(),
  purchases: codes.required(),
  rate: Joi.string().max(80).required(),
  upTo: minor.required(),
  settings: Joi.object({ openingStock: id.required(), brought: id.required(), closingStock: id }).required(),
  closingAbove: minor,
  boxes: Joi.object({ tax: id, lessTax: id, margin: id }).required(),
});

const ratioCredit = Joi.object({
  kind: Joi.string().valid("ratio-credit").required(),
  takes: treatments.required(),
  boxes: Joi.object({ input: id.required() }).required(),
  drops: Joi.array().items(id).required(),
});

const retailTakings = Joi.object({
  kind: Joi.string().valid("retail-takings").required(),
  takings: Joi.string().max(20).required(),
  rates: Joi.array()
    .items(
      Joi.object({
        id: id.required(),
        schedule: Joi.string().max(80),
        takings: Joi.string().max(20).required(),
        goods: codes.required(),
      }),
    )
    .min(1)
    .required(),
  price: Joi.string()
    .pattern(/^[A-Za-z]{1,40}$/)
    .required(),
  settings: Joi.object({
    method: id.required(),
    minority: id.required(),
    opening: Joi.array().items(id).required(),
    openingStock: id.required(),
    closingStock: id.required(),
  }).required(),
  boxes: Joi.object({ tax: id.required(), lessTax: id.required() }).required(),
});

const yearlyRebate = Joi.object({
  kind: Joi.string().valid("yearly-rebate").required(),
  levy: Joi.string().max(30).required(),
  codes: codes.required(),
  caps: Joi.array()
    .items(
      Joi.object({ from: date.required(), amount: minor.required(), source: text.required(), doubt: text }),
    )
    .min(1)
    .required(),
  yearEnds: Joi.number().integer().min(1).max(12).required(),
  setting: id.required(),
  boxes: Joi.object({ credit: id.required() }).required(),
});

/** A box and the sign with which an amount goes there. */
export const signedBox = Joi.object({
  box: id.required(),
  sign: Joi.number().valid(1, -1).required(),
}).required();

const yearlyAddBack = Joi.object({
  kind: Joi.string().valid("yearly-add-back").required(),
  codes: codes.required(),
  share: Joi.alternatives(
    Joi.object({ percent: decimal.required() }),
    Joi.object({
      attribute: Joi.string()
        .pattern(/^[A-Za-z]{1,40}$/)
        .required(),
    }),
  ).required(),
  settings: Joi.object({ yearEnds: id.required(), later: id.required() }).required(),
  boxes: Joi.object().pattern(Joi.string().max(30), signedBox).required(),
});

const splitSide = Joi.object({
  codes: codes.required(),
  boxes: Joi.object({ tax: signedBox, free: signedBox }).required(),
}).required();

const percentageSplit = Joi.object({
  kind: Joi.string().valid("percentage-split").required(),
  levy: Joi.string().max(30).required(),
  rate: Joi.string().max(80).required(),
  setting: id.required(),
  norms: Joi.object()
    .pattern(id, Joi.object({ sales: decimal.required(), stock: decimal.required() }))
    .required(),
  own: Joi.object({ sales: id.required(), stock: id.required() }).required(),
  sales: splitSide,
  stock: splitSide,
});

const resaleCredit = Joi.object({
  kind: Joi.string().valid("resale-credit").required(),
  levy: Joi.string().max(30).required(),
  sales: codes.required(),
  upTo: minor.required(),
  part: Joi.object({
    of: Joi.number().integer().min(1).required(),
    parts: Joi.number().integer().min(1).required(),
  }).required(),
  lots: Joi.object({ bought: codes.required(), sold: codes.required() }).required(),
  setting: id.required(),
  boxes: Joi.object({ credit: id.required(), kept: id.required() }).required(),
});

/** The share that is deducted of tax on mixed use. */
export const shareOfTurnover = Joi.object({
  of: Joi.string().valid("supplies", "inputs").required(),
  taxable: treatments.required(),
  exempt: treatments.required(),
  leftOut: codes.required(),
  levies: Joi.array().items(Joi.string().max(30)),
});

const attributionRule = Joi.object({
  kind: Joi.string().valid("attribution").required(),
  residual: codes.required(),
  exempt: codes.required(),
  ratio: shareOfTurnover.required(),
  rounding: Joi.object({
    mode: Joi.string().valid("up", "down", "half-up").required(),
    decimals: Joi.number().integer().min(0).max(6).required(),
    finer: Joi.object({
      above: minor.required(),
      decimals: Joi.number().integer().min(0).max(6).required(),
    }),
  }),
  full: decimal,
  deMinimis: Joi.array().items(
    Joi.object({
      measure: Joi.string().valid("input", "not-taxable-input", "exempt-input", "exempt-supplies").required(),
      aMonth: minor.required(),
      share: decimal.required(),
      shareOf: Joi.string().valid("supplies", "input").required(),
      months: Joi.number().integer().min(1).max(60),
      says: text.required(),
    }),
  ),
  idle: Joi.boolean().valid(true),
  byHand: Joi.boolean(),
  private: Joi.object({ setting: id.required(), value: id.required(), percent: decimal.required() }),
  settings: Joi.object({
    yearEnds: id.required(),
    rate: id.required(),
    percent: id.required(),
    adjusted: id.required(),
  }),
  boxes: Joi.object()
    .pattern(
      Joi.string().max(30),
      Joi.object({ refused: signedBox, allowed: signedBox, more: signedBox, less: signedBox }),
    )
    .required(),
});

/** A scheme of a jurisdiction of the practice's own. */
export const schemeDefinition = Joi.object({
  id: id.required(),
  name: name.required(),
  levies: Joi.array().items(Joi.string().max(30)).min(1).required(),
  excludes: Joi.array().items(id),
  byStatus: Joi.boolean().valid(true),
  settings: Joi.array()
    .items(
      Joi.object({
        id: id.required(),
        name: name.required(),
        holds: Joi.string().valid("amount"),
        values: Joi.array()
          .items(Joi.object({ value: id.required(), name: name.required() }))
          .required(),
      }),
    )
    .required(),
  conditions: Joi.array()
    .items(
      Joi.object({
        says: text.required(),
        source: text.required(),
        limit: Joi.object({
          upTo: minor.required(),
          of: Joi.string().valid("net", "withTax", "purchases").required(),
        }),
      }),
    )
    .required(),
  note: text.required(),
  source: text.required(),
  rule: Joi.alternatives(
    turnoverRate,
    marginPool,
    attributionRule,
    ratioCredit,
    retailTakings,
    percentageSplit,
    yearlyRebate,
    yearlyAddBack,
    resaleCredit,
  ).required(),
});
