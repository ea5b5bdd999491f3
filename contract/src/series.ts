import Joi from "joi";

/** Kinds that carry numbers of our own. */
export const NUMBERED_KINDS = {
  "sales-invoice": "Sales invoices",
  "sales-credit-note": "Sales credit notes",
  "cash-sale": "Cash sales",
  expense: "Expenses",
  "self-billed-bill": "Self-billed bills",
  journal: "Journals",
  "opening-balance": "Opening balances",
  "terminal-summary": "Terminal summaries",
  receipt: "Receipts",
  payment: "Payments",
} as const;
export type NumberedKind = keyof typeof NUMBERED_KINDS;

export const seriesBody = Joi.object({
  prefix: Joi.string()
    .pattern(/^[A-Za-z0-9./-]{0,16}$/, "letters, digits, dots, slashes and hyphens, at most 16")
    .allow("")
    .required(),
  digits: Joi.number().integer().min(1).max(10).required(),
});

export interface SeriesView {
  kind: NumberedKind;
  prefix: string;
  digits: number;
  next: string;
  used: number;
  /** Numbers between the first and the last that no document has ever had; at most twenty are named. */
  missing: string[];
  missingCount: number;
}
