import Joi from "joi";
import { LATE_KINDS } from "@fiscalon/core/model/correction";
import type { LateBody } from "./returns.ts";
import { date, decimal, name, reason, ref, text } from "./fields.ts";
import { importSettings, IMPORT_CONTENTS } from "./imports.ts";
import type { ImportContent, ImportReport, ImportSettings } from "./imports.ts";
import type { TableShape } from "@fiscalon/core/formats/tables/recogniseTable";
import type { TerminalMapping, TerminalTransaction } from "@fiscalon/core/incoming/terminalDay";
import { terminalPlace } from "./terminals.ts";

/** A row of the same book file, as a JSON Pointer (RFC 6901) such as `/documents/12`. */
export const pointer = (...lists: readonly string[]) =>
  Joi.string().pattern(
    new RegExp(`^/(${lists.join("|")})/(0|[1-9]\\d{0,6})$`),
    `a row of the file such as /${lists[0]}/12`,
  );
const hash = Joi.string().pattern(/^[0-9a-f]{64}$/, "the SHA-256 of a file, in hexadecimal");

/** Contents by their SHA-256, each once, in base64. */
export const bookFiles = Joi.object().pattern(hash, Joi.string().max(40_000_000));

/** Where a document came from: the import, and for each line the row of its file. */
export const bookOrigin = Joi.object({
  import: pointer("imports").required(),
  rows: Joi.array().items(Joi.number().integer().min(0)).max(2000).default([]),
});
export const bookPapers = Joi.array()
  .items(Joi.object({ name: name.required(), file: hash.required() }))
  .max(100);

export const bookImport = Joi.object<BookImport, true>({
  content: Joi.string()
    .valid(...Object.keys(IMPORT_CONTENTS))
    .required(),
  direction: Joi.string().valid("sale", "purchase").required(),
  name: name.required(),
  file: hash.required(),
  encoding: Joi.string().max(40).required(),
  shape: Joi.object().unknown(true).required(),
  settings: importSettings.required(),
  report: Joi.object().unknown(true).allow(null).default(null),
});

export const bookBank = Joi.object<BookBank, true>({
  account: Joi.string().max(20).required(),
  number: Joi.string().max(40),
  lines: Joi.array()
    .items(
      Joi.object({
        id: Joi.string().max(200).required(),
        date: date.required(),
        amount: decimal.required(),
        party: text.default(""),
        text: text.default(""),
        reference: text.default(""),
        source: Joi.string().max(200).default("book file"),
        entry: pointer("documents", "payments", "taxPayments"),
        ignored: reason,
      }).oxor("entry", "ignored"),
    )
    .unique("id")
    .required(),
});

export const bookTerminal = Joi.object<BookTerminal, true>({
  merchant: Joi.string().trim().max(40).required(),
  ...terminalPlace,
  seenTo: Joi.string().max(200).allow("").default(""),
  payoutsSeenTo: Joi.string().max(200).allow("").default(""),
  transactions: Joi.array()
    .items(
      Joi.object({
        id: Joi.string().max(200).required(),
        at: Joi.string().isoDate().required(),
        kind: Joi.string().valid("sale", "refund").required(),
        gross: decimal.required(),
        items: Joi.array()
          .items(
            Joi.object({
              name: text.default(""),
              amount: decimal.required(),
              tax: Joi.string().max(60).allow("").required(),
            }),
          )
          .required(),
        surcharge: decimal.required(),
        tip: decimal.required(),
        fee: decimal.required(),
        document: pointer("documents"),
      }),
    )
    .unique("id")
    .required(),
});

export const bookLateAnswer = Joi.object<BookLateAnswer, true>({
  registration: ref.required(),
  period: date.required(),
  document: pointer("documents").required(),
  kind: Joi.string()
    .valid(...LATE_KINDS)
    .allow(null)
    .required(),
  separately: Joi.boolean().required(),
  amends: Joi.boolean(),
  reason: reason.required(),
});
/** What a person said of a late document, by the pointer to it, and the period it turned up in. */
export interface BookLateAnswer extends LateBody {
  registration: string;
  period: string;
  document: string;
}

export const bookAcceptance = Joi.object<BookAcceptance, true>({
  registration: ref.required(),
  period: date.required(),
  finding: Joi.string().max(200).required(),
  reason: reason.required(),
});

export interface BookPaper {
  name: string;
  file: string;
}

export interface BookImport {
  content: ImportContent;
  direction: "sale" | "purchase";
  name: string;
  file: string;
  encoding: string;
  shape: TableShape;
  settings: ImportSettings;
  report: ImportReport | null;
}

/** Lines of the bank; `entry` is what a matched line is. Money as decimal strings. */
export interface BookBank {
  account: string;
  number?: string;
  lines: {
    id: string;
    date: string;
    amount: string;
    party: string;
    text: string;
    reference: string;
    source: string;
    entry?: string;
    ignored?: string;
  }[];
}

type Money<T> = { [Key in keyof T]: T[Key] extends number ? string : T[Key] };

/** A card terminal with what it took, in major units, and the summary each transaction is in. */
export interface BookTerminal {
  merchant: string;
  name: string;
  zone: string;
  cutOff: string;
  start: string;
  /** Left out, the usual codes and accounts. */
  mapping?: TerminalMapping;
  seenTo: string;
  payoutsSeenTo: string;
  transactions: (Omit<Money<TerminalTransaction>, "items"> & {
    items: Money<TerminalTransaction["items"][number]>[];
    document?: string;
  })[];
}

export interface BookAcceptance {
  registration: string;
  period: string;
  /** Key of the finding, with rows of the file in the place of ids. */
  finding: string;
  reason: string;
}
