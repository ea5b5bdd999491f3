import Joi from "joi";
import { date } from "./fields.ts";

export const REPORT_KINDS = ["summary", "by-code", "details"] as const;
export type ReportKind = (typeof REPORT_KINDS)[number];

/** What of reverse charges a report is about: both sides, what is self-assessed here, or what the customer owes. */
export const REVERSE_CHARGES = ["", "reverse", "self-assessed", "declared-only"] as const;

/** Which facts a tax report is about. `by`: their tax point, or the period they are reported in. */
export interface ReportFilter {
  from: string;
  to: string;
  by: "tax-point" | "period";
  registration: number;
  direction: "" | "sale" | "purchase";
  levy: string;
  code: string;
  charged: (typeof REVERSE_CHARGES)[number];
}

export const reportFilterFields = {
  from: date.required(),
  to: date.required(),
  by: Joi.string().valid("tax-point", "period").default("tax-point"),
  registration: Joi.number().integer().min(0).default(0),
  direction: Joi.string().valid("", "sale", "purchase").default(""),
  levy: Joi.string().allow("").max(30).default(""),
  code: Joi.string().allow("").max(20).default(""),
  charged: Joi.string()
    .valid(...REVERSE_CHARGES)
    .default(""),
};

/** Facts of one levy, code, rate and side, added up. Amounts in minor units. */
export interface SummaryRow {
  levy: string;
  code: string;
  name: string;
  rate: string | null;
  direction: "sale" | "purchase";
  lines: number;
  net: number;
  tax: number;
  recoverable: number;
}

/** One fact: a line and a levy on it. */
export interface DetailRow {
  id: number;
  document: number;
  line: number;
  number: string;
  date: string;
  taxPoint: string;
  reported: string | null;
  party: string;
  text: string;
  levy: string;
  code: string;
  rate: string | null;
  direction: "sale" | "purchase";
  net: number;
  tax: number;
  recoverable: number;
}

export interface DetailPage {
  total: number;
  rows: DetailRow[];
}
