import Joi from "joi";
import { TREATMENTS } from "@fiscalon/core/model/taxCode";
import type { YearlyReport } from "@fiscalon/core/model/yearlyReport";
import { boxId } from "./correctionRule.ts";
import { text } from "./fields.ts";
import { returnForm } from "./returnForm.ts";

const formula = Joi.string().max(2000).required();
const codes = Joi.array().items(Joi.string().max(20)).min(1);

/** The report of a year as a jurisdiction file holds it. */
export const yearlyReport = Joi.object<YearlyReport, true>({
  form: returnForm.required(),
  beside: Joi.array().items(Joi.string().max(40)).min(1).required(),
  rules: Joi.array()
    .items(
      Joi.object({
        direction: Joi.string().valid("sale", "purchase").required(),
        treatments: Joi.array()
          .items(Joi.string().valid(...TREATMENTS))
          .min(1),
        codes,
        notCodes: codes,
        charged: Joi.string().valid("charged", "self-assessed", "declared-only"),
        deducted: Joi.boolean(),
        credit: Joi.boolean(),
        lands: boxId,
        landsNot: boxId,
        tags: Joi.string().max(200),
        moves: Joi.array().ordered(boxId.required(), boxId.required()),
      }).xor("tags", "moves"),
    )
    .max(200)
    .required(),
  ties: Joi.array()
    .items(Joi.object({ says: text.required(), report: formula, returns: formula }))
    .required(),
});
