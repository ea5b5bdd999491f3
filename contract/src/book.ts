import Joi from "joi";
import { bookRegisterSheet } from "./bookRegisterSheets.ts";
import type { BookRegisterSheet } from "./bookRegisterSheets.ts";
import { bookMatchDecision, bookStatement } from "./bookStatements.ts";
import type { BookMatchDecision, BookStatement } from "./bookStatements.ts";
import { bookAuthorityBalance } from "./authorityBalance.ts";
import type { BookAuthorityBalance } from "./authorityBalance.ts";
import { bookAgreement, bookKeptAgreement, bookNamedCause } from "./bookAgreements.ts";
import type { BookAgreement, BookKeptAgreement, BookNamedCause } from "./bookAgreements.ts";
import { ALL_TAX_PAYMENT_KINDS } from "@fiscalon/core/model/taxPaymentKinds";
import type { TaxPaymentKind } from "@fiscalon/core/model/taxPaymentKinds";
import type { Account } from "@fiscalon/core/model/account";
import type { SupplyRule } from "@fiscalon/core/model/supplyRule";
import type { RateSchedules, TaxCode } from "@fiscalon/core/model/taxCode";
import {
  bookAcceptance,
  bookBank,
  bookFiles,
  bookImport,
  bookLateAnswer,
  bookTerminal,
} from "./bookFeeds.ts";
import type { BookAcceptance, BookBank, BookImport, BookLateAnswer, BookTerminal } from "./bookFeeds.ts";
import { codeBody, ruleBody } from "./code.ts";
import { bookDocument } from "./document.ts";
import type { BookDocument } from "./document.ts";
import { bookPayment } from "./payments.ts";
import type { BookPayment } from "./payments.ts";
import { NUMBERED_KINDS, seriesBody } from "./series.ts";
import type { NumberedKind } from "./series.ts";
import { RHYTHMS } from "./templates.ts";
import type { Rhythm } from "./templates.ts";
import { instalmentBody } from "./settlement.ts";
import type { InstalmentBody } from "./settlement.ts";
import { capitalItemBody } from "./capitalItems.ts";
import type { BookCapitalItem } from "./capitalItems.ts";
import { collectionOpeningBody } from "./collection.ts";
import type { BookCollectionOpening } from "./collection.ts";
import { bookPiece } from "./stockBook.ts";
import type { BookPiece } from "./stockBook.ts";
import { country, date, decimal, name, rateRow, reason, ref, taxNumber, text } from "./fields.ts";
import { jurisdictionBody } from "./jurisdiction.ts";
import type { ReturnBody } from "@fiscalon/core/formats/authority/returnBody";
import type { JurisdictionFile } from "./jurisdiction.ts";
import { accountFields, contactFields, itemFields, placeFields, registrationFields } from "./setup.ts";
import type { ContactBody, ItemBody, PlaceBody, RegistrationBody } from "./setup.ts";

const sealedReturn = Joi.object({
  registration: ref.required(),
  period: date.required(),
  state: Joi.string().valid("sealed", "filed", "settled").required(),
  boxes: Joi.object().pattern(Joi.string(), decimal).required(),
  sealedAt: Joi.string().isoDate().required(),
  sent: Joi.object({
    number: Joi.string().max(40).required(),
    at: Joi.string().isoDate().required(),
    body: Joi.object({ periodKey: Joi.string().required() }).unknown(true).required(),
  }),
  filedAt: Joi.string().isoDate(),
  receipt: Joi.object().unknown(true),
  settledAt: Joi.string().isoDate(),
  agreements: Joi.array().items(bookKeptAgreement),
});

const taxPayment = Joi.object({
  registration: ref.required(),
  period: date.required(),
  date: date.required(),
  kind: Joi.string()
    .valid(...ALL_TAX_PAYMENT_KINDS)
    .required(),
  amount: decimal.required(),
  reference: text,
});

/** The book file, version 1 (docs/book-format.md): one client's complete set-up and books. */
export const bookSchema = Joi.object<BookFile, true>({
  format: Joi.string().valid("fiscalon-book").required(),
  version: Joi.number().valid(1).required(),
  client: Joi.object({
    name: name.required(),
    country: country.required(),
    currency: Joi.string().uppercase().length(3),
    saleCode: Joi.string().max(20).allow(null),
    purchaseCode: Joi.string().max(20).allow(null),
  }).required(),
  jurisdictions: Joi.array().items(jurisdictionBody),
  places: Joi.array().items(Joi.object({ id: ref.required(), ...placeFields })),
  registrations: Joi.array().items(Joi.object({ id: ref.required(), ...registrationFields })),
  codes: Joi.array().items(codeBody),
  archived: Joi.array().items(Joi.string().max(20)),
  rules: Joi.array().items(ruleBody),
  schedules: Joi.object().pattern(Joi.string().max(60), Joi.array().items(rateRow).min(1)),
  accounts: Joi.array().items(Joi.object(accountFields)),
  items: Joi.array().items(Joi.object({ id: ref.required(), ...itemFields })),
  contacts: Joi.array().items(Joi.object({ id: ref.required(), ...contactFields, taxNumber })),
  documents: Joi.array().items(bookDocument),
  payments: Joi.array().items(bookPayment),
  series: Joi.array().items(
    seriesBody.append({
      kind: Joi.string()
        .valid(...Object.keys(NUMBERED_KINDS))
        .required(),
    }),
  ),
  templates: Joi.array().items(
    Joi.object({
      name: name.required(),
      document: bookDocument.required(),
      every: Joi.string()
        .valid(...Object.keys(RHYTHMS))
        .allow(null)
        .default(null),
      nextOn: date.allow(null).default(null),
      until: date.allow(null).default(null),
      begins: date,
      byItself: Joi.boolean(),
    }),
  ),
  adjustments: Joi.array().items(
    Joi.object({
      registration: ref.required(),
      period: date.required(),
      box: Joi.string().max(60).required(),
      amount: decimal.required(),
      reason: reason.required(),
    }),
  ),
  returns: Joi.array().items(sealedReturn),
  taxPayments: Joi.array().items(taxPayment),
  instalments: Joi.array().items(
    instalmentBody.append<BookInstalment>({
      registration: Joi.string().required(),
      period: date.required(),
      no: Joi.number().integer().min(1).max(12).required(),
    }),
  ),
  pieces: Joi.array().items(bookPiece),
  capitalItems: Joi.array().items(
    capitalItemBody.append<BookCapitalItem>({
      registration: Joi.string().required(),
      no: Joi.number().integer().min(1).required(),
    }),
  ),
  collectionOpenings: Joi.array().items(
    collectionOpeningBody.append<BookCollectionOpening>({ contact: Joi.string().required() }),
  ),
  acceptances: Joi.array().items(bookAcceptance),
  authorityBalances: Joi.array().items(bookAuthorityBalance),
  namedCauses: Joi.array().items(bookNamedCause),
  agreements: Joi.array().items(bookAgreement),
  statements: Joi.array().items(bookStatement),
  matchDecisions: Joi.array().items(bookMatchDecision),
  registerSheets: Joi.array().items(bookRegisterSheet),
  lateAnswers: Joi.array().items(bookLateAnswer),
  imports: Joi.array().items(bookImport),
  bank: Joi.array().items(bookBank).unique("account"),
  terminals: Joi.array().items(bookTerminal).unique("merchant"),
  files: bookFiles,
});

export interface BookSeries {
  kind: NumberedKind;
  prefix: string;
  digits: number;
}

export interface BookTemplate {
  name: string;
  document: BookDocument;
  every: Rhythm | null;
  nextOn: string | null;
  until: string | null;
  /** The first date, where it is not the next one. */
  begins?: string;
  byItself?: boolean;
}

export interface BookReturn {
  registration: string;
  period: string;
  state: "sealed" | "filed" | "settled";
  boxes: Record<string, string>;
  sealedAt: string;
  /** What was sent to the authority and has no answer yet: under which number, when, and what. */
  sent?: { number: string; at: string; body: ReturnBody };
  filedAt?: string;
  receipt?: Record<string, unknown>;
  settledAt?: string;
  /** The agreements as they stood when it was sealed. */
  agreements?: BookKeptAgreement[];
}

export interface BookTaxPayment {
  registration: string;
  period: string;
  date: string;
  kind: TaxPaymentKind;
  amount: string;
  reference?: string;
}

/** What was said of one payment of a period. */
export interface BookInstalment extends InstalmentBody {
  registration: string;
  period: string;
  no: number;
}

export interface BookFile {
  format: "fiscalon-book";
  version: 1;
  client: {
    name: string;
    country: string;
    currency?: string;
    saleCode?: string | null;
    purchaseCode?: string | null;
  };
  /** Own jurisdictions its registrations are in. */
  jurisdictions?: JurisdictionFile[];
  places?: (PlaceBody & { id: string })[];
  registrations?: (RegistrationBody & { id: string })[];
  codes?: TaxCode[];
  /** Codes that are not offered any more, but still on documents. */
  archived?: string[];
  /** Supply rules; left out, the pack's. */
  rules?: SupplyRule[];
  /** Rate schedules of the client's own, beside the packs'. */
  schedules?: RateSchedules;
  accounts?: Account[];
  items?: (ItemBody & { id: string })[];
  contacts?: (ContactBody & { id: string })[];
  documents?: BookDocument[];
  payments?: BookPayment[];
  /** Series of numbers; left out, the usual ones. */
  series?: BookSeries[];
  /** Documents kept to be used again, or posted in a rhythm. */
  templates?: BookTemplate[];
  adjustments?: { registration: string; period: string; box: string; amount: string; reason: string }[];
  returns?: BookReturn[];
  taxPayments?: BookTaxPayment[];
  /** Findings accepted with a reason. */
  acceptances?: BookAcceptance[];
  /** What people said of agreements: the cause of a row, and that a span is agreed as it stood. */
  authorityBalances?: BookAuthorityBalance[];
  namedCauses?: BookNamedCause[];
  agreements?: BookAgreement[];
  /** Lists of others that were laid beside the books, and what people decided of their rows. */
  statements?: BookStatement[];
  matchDecisions?: BookMatchDecision[];
  /** Exported registers that were compared without being posted. */
  registerSheets?: BookRegisterSheet[];
  /** What was said of late documents. */
  lateAnswers?: BookLateAnswer[];
  instalments?: BookInstalment[];
  pieces?: BookPiece[];
  collectionOpenings?: BookCollectionOpening[];
  capitalItems?: BookCapitalItem[];
  /** Files that were posted, so that a figure still leads to its row. */
  imports?: BookImport[];
  bank?: BookBank[];
  terminals?: BookTerminal[];
  /** Papers and imported files: base64 by SHA-256. */
  files?: Record<string, string>;
}
