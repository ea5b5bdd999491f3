import Joi from "joi";
import type { CodeChoiceAsked } from "@fiscalon/core/incoming/registerReading";
import type { RowProblem } from "@fiscalon/core/formats/registers/readRow";
import type { TableShape } from "@fiscalon/core/formats/tables/recogniseTable";
import { date } from "./fields.ts";

const column = Joi.number().integer().min(0).max(500);
const codeOrNone = Joi.string().max(20).allow(null);

/** How a register is to be read; what is absent stays as recognised. */
export const importSettings = Joi.object<ImportSettings, true>({
  mapping: Joi.object().pattern(Joi.string().max(40), column.allow(null).empty(null)),
  dateOrder: Joi.string().valid("dmy", "mdy", "ymd"),
  decimal: Joi.string().valid(".", ","),
  codeForBlank: codeOrNone,
  codeForZero: codeOrNone,
  account: Joi.string().max(20).allow(null),
  /** Day on which opening balances stood. */
  date: date.allow(null),
  /** Codes for what the file calls otherwise. */
  chosen: Joi.object().pattern(Joi.string().max(60), Joi.string().max(20)),
  /** Of an audit file: its invoices, or its ledger. */
  take: Joi.string().valid("documents", "ledger"),
  /** Rate of exchange of an e-invoice in another currency. */
  rate: Joi.string()
    .pattern(/^\d{1,9}(\.\d{1,10})?$/, "a rate such as 0.8734")
    .allow(null),
  leftOut: Joi.array().items(Joi.number().integer().positive()).max(100_000),
  mended: Joi.array()
    .items(
      Joi.object({
        row: Joi.number().integer().positive().required(),
        column: column.required(),
        value: Joi.string().allow("").max(500).required(),
      }),
    )
    .max(10_000),
});

/** What a file can hold. */
export const IMPORT_CONTENTS = {
  register: "Register of sales or purchases",
  journal: "Journal",
  "trial-balance": "Trial balance, as opening balances",
  contacts: "Contacts",
  items: "Items",
  "e-invoice": "E-invoice",
  "audit-file": "Audit file (SAF-T)",
} as const;
export type ImportContent = keyof typeof IMPORT_CONTENTS;

export interface ImportSettings {
  mapping: Record<string, number>;
  dateOrder: "dmy" | "mdy" | "ymd";
  decimal: "." | ",";
  codeForBlank: string | null;
  codeForZero: string | null;
  account: string | null;
  date?: string | null;
  chosen?: Record<string, string>;
  take?: "documents" | "ledger";
  rate?: string | null;
  leftOut: number[];
  mended: { row: number; column: number; value: string }[];
}

/** What a dry run, or posting, found. Amounts in minor units. At most 500 problems are listed; all are counted. */
export interface ImportReport {
  rows: number;
  documents: number;
  fresh: number;
  alreadyThere: number;
  creditNotes: number;
  newContacts: number;
  newItems: number;
  newAccounts: number;
  /** Contacts and items that posting made, so that undoing can take them away again. */
  made?: { contacts: number[]; items: number[] };
  /** Fresh documents dated in a sealed period: late items of the next open one. */
  late: number;
  /** Fresh documents no registration covers. */
  unregistered: number;
  net: number;
  tax: number;
  from: string | null;
  to: string | null;
  problemCount: number;
  problems: (RowProblem & { cells: string[] })[];
  notices: RowProblem[];
  /** Codes that all explain some rows: one is to be chosen, kept in `chosen` by its key. */
  choices: CodeChoiceAsked[];
  codes: { code: string; lines: number; net: number; tax: number }[];
}

/** An import in the list of them. */
export interface ImportRow extends Pick<
  ImportBatch,
  "id" | "content" | "direction" | "fileName" | "state" | "documents" | "at" | "by"
> {
  /** The days its records stand between, where it was checked. */
  from: string | null;
  to: string | null;
}

export interface ImportPage {
  total: number;
  rows: ImportRow[];
}

export interface ImportBatch {
  id: number;
  content: ImportContent;
  direction: "sale" | "purchase";
  fileName: string;
  bytes: number;
  encoding: string;
  state: "recognised" | "checked" | "posted" | "undone";
  shape: TableShape;
  /** Whether rows that could not be read can be fetched as a file. */
  rejected: boolean;
  settings: ImportSettings;
  report: ImportReport | null;
  documents: number;
  at: string;
  by: string;
}
