import Joi from "joi";
import type { DocumentKind } from "@fiscalon/core/model/documentKinds";
import { documentBody } from "./document.ts";
import type { DocumentBody } from "./document.ts";
import { date, name } from "./fields.ts";

/** How often a kept document is posted again. */
export const RHYTHMS = {
  weekly: "every week",
  monthly: "every month",
  quarterly: "every three months",
  yearly: "every year",
} as const;
export type Rhythm = keyof typeof RHYTHMS;

export const templateBody = Joi.object<TemplateBody, true>({
  name: name.required(),
  document: documentBody.required(),
  every: Joi.string()
    .valid(...Object.keys(RHYTHMS))
    .allow(null)
    .default(null),
  nextOn: date.allow(null).default(null),
  until: date.allow(null).default(null),
  byItself: Joi.boolean().default(false),
}).when(Joi.object({ every: Joi.string().required() }).unknown(), {
  then: Joi.object({ nextOn: date.required() }),
});

export interface TemplateBody {
  name: string;
  document: DocumentBody;
  every: Rhythm | null;
  nextOn: string | null;
  until: string | null;
  /** Whether it is posted on its day without being asked for. */
  byItself: boolean;
}

/** What posting everything that is due came to: documents posted, and kept documents that could not be. */
export interface PostedDue {
  posted: number;
  failed: number;
}

export interface TemplateView extends TemplateBody {
  id: number;
  kind: DocumentKind;
  party: string;
  /** Dates up to today on which it has not been posted yet. */
  due: string[];
  /** Why it could not be posted by itself. */
  problem: string | null;
}
