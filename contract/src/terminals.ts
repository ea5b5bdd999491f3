import Joi from "joi";
import type { TerminalMapping } from "@fiscalon/core/incoming/terminalDay";
import { date, name } from "./fields.ts";

const target = Joi.object({
  code: Joi.string().max(20).allow(null).required(),
  account: Joi.string().max(20).required(),
});
const mapping = Joi.object({
  taxes: Joi.object().pattern(Joi.string().max(60), target).required(),
  surcharge: target.required(),
  tip: target.required(),
  fee: target.required(),
  bank: Joi.string().max(20).required(),
});

/** Where and when a terminal's takings belong. */
export const terminalPlace = {
  name: name.required(),
  zone: Joi.string()
    .max(60)
    .custom((value: string, helpers) => {
      try {
        new Intl.DateTimeFormat("en", { timeZone: value });
        return value;
      } catch {
        return helpers.error("any.invalid");
      }
    })
    .messages({ "any.invalid": "{{#label}} is no time zone; write it like Europe/London" })
    .required(),
  cutOff: Joi.string()
    .pattern(/^(0\d|1[01]):[0-5]\d$/, "a time before noon such as 04:00")
    .required(),
  start: date.required(),
  mapping,
};
const key = Joi.string().max(200).required();
export const terminalBody = Joi.object<TerminalBody, true>({
  merchant: Joi.string().trim().max(40).required(),
  key,
  ...terminalPlace,
});
export const terminalKeyBody = Joi.object({ key });
export const mappingBody = Joi.object({ mapping: mapping.required() });

export interface TerminalBody {
  merchant: string;
  key: string;
  name: string;
  zone: string;
  cutOff: string;
  start: string;
  mapping?: TerminalMapping;
}

export interface TerminalView {
  id: number;
  merchant: string;
  name: string;
  zone: string;
  cutOff: string;
  start: string;
  mapping: TerminalMapping;
  /** Whether the operator answers for it; not where it came with a book file. */
  authorised: boolean;
  /** Names of taxes seen without a code. */
  unmapped: string[];
  transactions: number;
  /** Days that are over and not posted yet. */
  waiting: number;
  lastDay: string | null;
}

export interface TerminalDay {
  day: string;
  transactions: number;
  gross: number;
  refunds: number;
  surcharge: number;
  tips: number;
  fees: number;
  documents: { id: number; kind: string; number: string }[];
}

export interface TerminalDayPage {
  total: number;
  gross: number;
  fees: number;
  rows: TerminalDay[];
}

export interface TerminalReport {
  fresh: number;
  days: number;
  bills: number;
  payouts: number;
  unmapped: string[];
}
