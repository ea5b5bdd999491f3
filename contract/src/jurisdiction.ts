import Joi from "joi";
import { capitalItemsRule } from "./capitalItems.ts";
import { collectionRule } from "./collection.ts";
import { BASES } from "@fiscalon/core/model/basis";
import { PLAIN_CORRECTION } from "@fiscalon/core/model/correction";
import { TREATMENTS } from "@fiscalon/core/model/taxCode";
import { CHECKS } from "@fiscalon/core/findings/catalogue";
import type { OwnJurisdiction } from "@fiscalon/core/jurisdictions/ownJurisdiction";
import { codeBody, ruleBody } from "./code.ts";
import { basisOffer, boxId, correctionRule, minor } from "./correctionRule.ts";
import { country, date, decimal, name, rateRow, roundingBody, text } from "./fields.ts";
import { lateCharge, dayOfMonth, dueRule, frequency, instalmentRule, monthsAfter, shift } from "./dueRule.ts";
import { returnForm } from "./returnForm.ts";
import { stockBookRule } from "./stockBook.ts";
import { yearlyReport } from "./yearlyReport.ts";
import { schemeDefinition } from "./scheme.ts";
import { accountFields } from "./setup.ts";

const creditNoteWay = Joi.string().valid("statutory", "netted", "later-period");
const namesByCode = Joi.array()
  .items(Joi.array().ordered(Joi.string().max(20).allow("").required(), Joi.string().max(20).required()))
  .min(1)
  .required();
const registerFields = {
  id: Joi.string().max(20).required(),
  name: name.required(),
  source: text.default(""),
  onlyFor: Joi.array().items(Joi.string().max(30)).min(1),
};
const codeAtRate = Joi.object({ code: Joi.string().max(20).required(), rate: decimal.required() });
const oldShare = Joi.string().valid("all", "delivered", "paid", "higher", "lower");

/** A jurisdiction made by the practice, as the builder sends it and as its JSON file holds it. */
export const jurisdictionBody = Joi.object<JurisdictionFile, true>({
  format: Joi.string().valid("fiscalon-jurisdiction").required(),
  version: Joi.number().valid(1).required(),
  aliases: Joi.array().items(Joi.string().max(20)),
  options: Joi.array().items(
    Joi.object({
      id: Joi.string().max(40).required(),
      name: name.required(),
      levies: Joi.array().items(Joi.string().max(30)).min(1),
      values: Joi.array()
        .items(
          Joi.object({
            value: Joi.string().max(40).required(),
            name: name.required(),
            engaged: Joi.array().items(Joi.string().max(10)),
          }),
        )
        .min(2)
        .required(),
      source: text.default(""),
    }),
  ),
  id: Joi.string()
    .pattern(/^[a-z][a-z0-9-]{1,19}$/, "small letters, digits and dashes")
    .required(),
  country: country.required(),
  name: name.required(),
  currency: Joi.string().uppercase().length(3).required(),
  authority: name.required(),
  numberName: name.default("tax number"),
  numberHint: text.default("as the authority wrote it"),
  numberPattern: Joi.string().allow("").max(100).default(""),
  levies: Joi.array()
    .items(
      Joi.object({
        levy: Joi.string().trim().max(30).required(),
        name: name.required(),
        short: Joi.string().trim().max(60),
        authority: name,
        onlyFor: Joi.array().items(Joi.string().max(40)),
        written: Joi.array().items(Joi.string().trim().max(60)).max(20),
        regions: Joi.array().items(Joi.string().max(10)),
        with: Joi.array().items(Joi.string().max(30)),
        deducted: Joi.boolean().default(true),
        creditNotes: creditNoteWay,
        correction: correctionRule,
      }),
    )
    .min(1)
    .max(200)
    .required(),
  defaultLevies: Joi.array().items(Joi.string().max(30)),
  regions: Joi.array().items(
    Joi.object({
      code: Joi.string().max(10).required(),
      name: name.required(),
      aliases: Joi.array().items(Joi.string()),
      tag: Joi.string(),
    }),
  ),
  schedules: Joi.object().pattern(Joi.string().max(60), Joi.array().items(rateRow).min(1)).required(),
  rateNames: Joi.object().pattern(Joi.string().max(60), name),
  codes: Joi.array().items(codeBody).min(1).max(300).required(),
  accounts: Joi.array().items(Joi.object(accountFields)).required(),
  classes: Joi.array()
    .items(Joi.object({ id: Joi.string().max(40).required(), name: name.required() }))
    .default([]),
  rules: Joi.array().items(ruleBody).default([]),
  forms: Joi.array().items(returnForm).min(1).max(200).required(),
  rhythms: Joi.array()
    .items(
      Joi.object({
        id: Joi.string().max(40).required(),
        name: name.required(),
        frequency: frequency.required(),
        anchor: date.required(),
        levies: Joi.array().items(Joi.string().max(30)).min(1),
      }),
    )
    .min(1)
    .required(),
  roundings: Joi.array()
    .items(
      Joi.object({
        id: Joi.string().max(40).required(),
        name: name.required(),
        rounding: roundingBody.required(),
        source: text.default(""),
      }),
    )
    .min(1)
    .required(),
  bases: Joi.array()
    .items(Joi.alternatives(Joi.string().valid(...BASES), basisOffer))
    .min(1)
    .default(["accrual"]),
  due: Joi.array().items(dueRule).min(1).required(),
  furtherDays: Joi.array().items(
    Joi.object({
      name: name.required(),
      frequencies: Joi.array().items(frequency),
      option: Joi.array().ordered(Joi.string().required(), Joi.string().required()),
      months: Joi.number().integer().min(-11).max(24).required(),
      day: dayOfMonth.required(),
      shift: shift.required(),
      source: text.default(""),
    }),
  ),
  holidays: Joi.object({ country: country.required(), regions: Joi.array().items(Joi.string()) }).required(),
  correction: correctionRule.default(PLAIN_CORRECTION),
  claims: Joi.object({
    numberAbove: Joi.number().integer().min(0).required(),
    numberSource: text.default(""),
    sources: Joi.object()
      .pattern(Joi.string().valid(...Object.keys(CHECKS)), text)
      .default({}),
  }),
  noCredit: Joi.object({
    option: Joi.string().max(40).required(),
    values: Joi.array().items(Joi.string().max(40)).min(1).required(),
    source: text.default(""),
  }),
  creditHolds: Joi.array().items(
    Joi.object({
      id: Joi.string().max(40).required(),
      name: name.required(),
      waitsFor: text.required(),
      above: minor,
      byPaper: Joi.boolean().required(),
      source: text.default(""),
    }),
  ),
  statements: Joi.array().items(
    Joi.object({
      id: Joi.string().max(40).required(),
      title: name.required(),
      lead: text.required(),
      direction: Joi.string().valid("sale", "purchase").required(),
      of: Joi.string().valid("party", "all", "border", "authority").required(),
      reads: Joi.string().valid("table", "furnished").required(),
      customs: Joi.boolean(),
      heads: Joi.object().pattern(Joi.string().max(20), Joi.string().max(20)),
      sameHead: Joi.object().pattern(Joi.string().max(20), Joi.string().max(20)),
      kin: Joi.array().items(Joi.number().integer().min(0).max(30)).length(2),
      hold: Joi.string().max(40),
      source: text.default(""),
    }),
  ),
  stockBook: stockBookRule,
  yearly: yearlyReport,
  instalments: Joi.array().items(instalmentRule),
  yearEnd: Joi.array().items(
    Joi.object({
      id: Joi.string().max(40).required(),
      name: name.required(),
      option: Joi.array().ordered(Joi.string().required(), Joi.string().required()).required(),
      yearEnds: Joi.string().max(40).required(),
      topic: Joi.string().max(40).required(),
      share: decimal.required(),
      boxes: Joi.object().pattern(Joi.string().max(120), boxId).required(),
      says: text.required(),
      source: text.default(""),
    }),
  ),
  schemes: Joi.array().items(schemeDefinition),
  unpaid: Joi.array().items(
    Joi.object({
      id: Joi.string().max(40).required(),
      name: name.required(),
      direction: Joi.string().valid("sale", "purchase").required(),
      from: Joi.string().valid("due", "due-or-supply", "supply", "period").required(),
      after: Joi.alternatives(
        Joi.object({ months: monthsAfter.required() }),
        Joi.object({ days: Joi.number().integer().min(0).max(1000).required() }),
      ).required(),
      reached: Joi.boolean(),
      falls: Joi.string().valid("containing", "following").required(),
      claimed: Joi.boolean(),
      until: Joi.number().integer().min(1).max(240),
      option: Joi.array().ordered(Joi.string().required(), Joi.string().required()),
      relief: Joi.string().max(20).required(),
      back: Joi.string().max(20).required(),
      says: text.required(),
      source: text.default(""),
    }),
  ),
  goodsShare: Joi.object({
    over: Joi.object({ of: minor.required(), parts: minor.required() }).required(),
    services: Joi.array().items(Joi.string().max(20)).min(1).required(),
    goods: Joi.string().max(20).required(),
    says: text.required(),
    source: text.default(""),
  }),
  capitalItems: capitalItemsRule,
  collection: collectionRule,
  late: Joi.array().items(lateCharge),
  rateMoves: Joi.array().items(
    Joi.object({
      on: date.required(),
      before: codeAtRate.required(),
      after: Joi.array().items(codeAtRate).min(1).required(),
      source: text.default(""),
    }),
  ),
  rateChanges: Joi.array().items(
    Joi.object({
      supply: Joi.string().valid("goods", "services"),
      invoicedBefore: oldShare.required(),
      invoicedAfter: oldShare.required(),
      election: Joi.boolean(),
      says: text.required(),
      source: text.default(""),
    }),
  ),
  creditNotes: creditNoteWay.default("netted"),
  standings: Joi.array().items(
    Joi.object({
      id: Joi.string().max(40).required(),
      name: name.required(),
      needs: text,
      crosses: Joi.boolean(),
    }),
  ),
  activities: Joi.array().items(
    Joi.object({
      id: Joi.string().max(40).required(),
      name: name.required(),
      classes: Joi.array().items(Joi.string().max(40)).required(),
    }),
  ),
  elsewhere: Joi.string().max(80),
  placeAttribute: Joi.string().max(40),
  dateOrder: Joi.string().valid("dmy", "mdy", "ymd"),
  bankNames: Joi.array().items(Joi.string().max(40)),
  watched: Joi.array().items(Joi.string().max(40)),
  words: Joi.object({
    invoice: Joi.string().max(80).required(),
    creditNote: Joi.string().max(80).required(),
    statements: Joi.object().pattern(Joi.string().valid(...TREATMENTS), Joi.string().max(300)),
    taxInHomeCurrency: Joi.boolean().required(),
    source: text.required(),
  }),
  checks: Joi.array().items(
    Joi.object({
      id: Joi.string()
        .valid(...Object.keys(CHECKS))
        .required(),
      says: text.required(),
      kind: Joi.string()
        .valid(
          "both-sides",
          "not-in-box",
          "attribute",
          "only-from",
          "average-price",
          "turnover",
          "distance-sales",
        )
        .required(),
    }).unknown(),
  ),
  declaration: text.default("I declare that the figures in this return are true and complete."),
  registers: Joi.array().items(
    Joi.alternatives(
      Joi.object({
        ...registerFields,
        kind: Joi.string().valid("commodities").required(),
        lists: Joi.array()
          .items(Joi.object({ name: name.required(), boxes: Joi.array().items(boxId).required() }))
          .required(),
        levies: Joi.array()
          .items(Joi.object({ name: name.required(), levies: Joi.array().items(Joi.string()).required() }))
          .required(),
        digits: Joi.object({
          option: Joi.string().max(40).required(),
          values: Joi.object()
            .pattern(Joi.string().max(40), Joi.number().integer().min(1).max(12))
            .required(),
        }).required(),
        services: Joi.string().max(10).required(),
      }),
      Joi.object({ ...registerFields, kind: Joi.string().valid("members", "supplies").required() }),
      Joi.object({
        ...registerFields,
        kind: Joi.string().valid("upload").required(),
        commodities: Joi.string().max(20).required(),
        issued: Joi.string().max(20).required(),
        names: Joi.object({
          registered: namesByCode,
          unregistered: namesByCode,
          exported: namesByCode,
        }).required(),
      }),
      Joi.object({
        ...registerFields,
        kind: Joi.string().valid("lines").required(),
        codes: Joi.array().items(Joi.string().max(20)).min(1).required(),
        attribute: Joi.string().max(40).required(),
        asks: text.required(),
      }),
      Joi.object({
        ...registerFields,
        kind: Joi.string().valid("issued").required(),
        natures: Joi.object().pattern(Joi.string().max(40), name).required(),
      }),
    ),
  ),
  law: Joi.object({
    asOf: Joi.string()
      .pattern(/^\d{4}-\d\d$/)
      .required(),
    checked: text.required(),
    leftOut: Joi.array().items(name).default([]),
    doubts: Joi.array()
      .items(Joi.object({ about: name.required(), says: text.required(), where: text.default("") }))
      .default([]),
  }),
  notes: Joi.array()
    .items(Joi.object({ text: text.required(), source: text.default("") }))
    .default([]),
  electronic: Joi.boolean().valid(false).default(false),
});

/** An own jurisdiction as its file holds it. */
export type JurisdictionFile = OwnJurisdiction & { format: "fiscalon-jurisdiction"; version: 1 };

export function fileOfJurisdiction(own: OwnJurisdiction): JurisdictionFile {
  return { format: "fiscalon-jurisdiction", version: 1, ...own };
}
