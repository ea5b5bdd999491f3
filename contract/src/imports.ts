import Joi from "joi";
import { REGISTER_FIELDS } from "@fiscalon/core/formats/registers/columns";
import type { ColumnMapping } from "@fiscalon/core/formats/registers/columns";
import type { RowProblem } from "@fiscalon/core/formats/registers/readRow";
import type { RegisterShape } from "@fiscalon/core/formats/registers/recogniseRegister";

const column = Joi.number().integer().min(0).max(500);
const codeOrNone = Joi.string().max(20).allow(null);

/** How a register is to be read; what is absent stays as recognised. */
export const importSettings = Joi.object({
  mapping: Joi.object(
    Object.fromEntries(Object.keys(REGISTER_FIELDS).map((field) => [field, column.allow(null).empty(null)])),
  ),
  dateOrder: Joi.string().valid("dmy", "mdy", "ymd"),
  decimal: Joi.string().valid(".", ","),
  codeForBlank: codeOrNone,
  codeForZero: codeOrNone,
  account: Joi.string().max(20).allow(null),
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

export interface ImportSettings {
  mapping: ColumnMapping;
  dateOrder: "dmy" | "mdy" | "ymd";
  decimal: "." | ",";
  codeForBlank: string | null;
  codeForZero: string | null;
  account: string | null;
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
  codes: { code: string; lines: number; net: number; tax: number }[];
}

export interface ImportBatch {
  id: number;
  direction: "sale" | "purchase";
  fileName: string;
  bytes: number;
  encoding: string;
  state: "recognised" | "checked" | "posted" | "undone";
  shape: RegisterShape;
  settings: ImportSettings;
  report: ImportReport | null;
  documents: number;
  at: string;
  by: string;
}
