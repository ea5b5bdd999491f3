import Joi from "joi";
import { TREATMENTS } from "@fiscalon/core/model/taxCode";
import type { YearlyReport } from "@fiscalon/core/model/yearlyReport";
import { boxId } from "./correctionRule.ts";
import { text } from "./fields.ts";
import { returnForm } from "./returnForm.ts";

const codes = Joi.array().items(Joi.string().max(20)).min(1);

/** The report of a year as a jurisdiction file holds it. */
export const yearlyReport = Joi.object<YearlyReport, true>({
  form: returnForm.required(),
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
        tags: Joi.string().max(200).required(),
      }),
    )
    .max(200)
    .required(),
  ties: Joi.array()
    .items(
      Joi.object({
        says: text.required(),
        formula: Joi.string().max(1000).required(),
        box: boxId.required(),
      }),
    )
    .required(),
});
