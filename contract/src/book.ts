import Joi from "joi";
import { TREATMENTS } from "@fiscalon/core/tax/taxCode";
import type { Account } from "@fiscalon/core/ledger/account";
import type { TaxCode } from "@fiscalon/core/tax/taxCode";
import { bookDocument } from "./document.ts";
import type { BookDocument } from "./document.ts";
import { country, date, decimal, name, reason, ref, taxNumber, text } from "./fields.ts";
import { accountFields, contactFields, itemFields, placeFields, registrationFields } from "./setup.ts";
import type { ContactBody, ItemBody, PlaceBody, RegistrationBody } from "./setup.ts";

const component = Joi.object({
  levy: Joi.string().max(20).required(),
  rate: Joi.alternatives(
    Joi.object({ kind: Joi.string().valid("percent").required(), schedule: Joi.string().max(20).required() }),
    Joi.object({ kind: Joi.string().valid("none", "typed").required() }),
  ).required(),
  partOfLaterBases: Joi.boolean().default(false),
  charged: Joi.string().valid("charged", "self-assessed", "declared-only").default("charged"),
  recoverable: decimal.default("100"),
  boxes: Joi.object({ sale: Joi.string().allow(""), purchase: Joi.string().allow("") }).default({}),
});

const code = Joi.object({
  code: Joi.string().max(20).required(),
  name: name.required(),
  direction: Joi.string().valid("sale", "purchase", "both").default("both"),
  supply: Joi.string().valid("goods", "services", "both").default("both"),
  treatment: Joi.string()
    .valid(...TREATMENTS)
    .required(),
  from: date.allow(null).default(null),
  to: date.allow(null).default(null),
  note: text.default(""),
  source: text.default(""),
  components: Joi.array().items(component).min(1).required(),
});

const sealedReturn = Joi.object({
  registration: ref.required(),
  period: date.required(),
  state: Joi.string().valid("sealed", "filed", "settled").required(),
  boxes: Joi.object().pattern(Joi.string(), decimal).required(),
  sealedAt: Joi.string().isoDate().required(),
  filedAt: Joi.string().isoDate(),
  receipt: Joi.object().unknown(true),
  settledAt: Joi.string().isoDate(),
});

const taxPayment = Joi.object({
  registration: ref.required(),
  period: date.required(),
  date: date.required(),
  kind: Joi.string().valid("payment", "refund", "interest", "penalty").required(),
  amount: decimal.required(),
  reference: text,
});

/** The book file, version 1 (docs/book-format.md): one client's complete set-up and books. */
export const bookSchema = Joi.object({
  format: Joi.string().valid("fiscalon-book").required(),
  version: Joi.number().valid(1).required(),
  client: Joi.object({
    name: name.required(),
    country: country.required(),
    currency: Joi.string().uppercase().length(3),
    saleCode: Joi.string().max(20).allow(null),
    purchaseCode: Joi.string().max(20).allow(null),
  }).required(),
  places: Joi.array().items(Joi.object({ id: ref.required(), ...placeFields })),
  registrations: Joi.array().items(Joi.object({ id: ref.required(), ...registrationFields })),
  codes: Joi.array().items(code),
  accounts: Joi.array().items(Joi.object(accountFields)),
  items: Joi.array().items(Joi.object({ id: ref.required(), ...itemFields })),
  contacts: Joi.array().items(Joi.object({ id: ref.required(), ...contactFields, taxNumber })),
  documents: Joi.array().items(bookDocument),
  adjustments: Joi.array().items(
    Joi.object({
      registration: ref.required(),
      period: date.required(),
      box: Joi.string().max(20).required(),
      amount: decimal.required(),
      reason: reason.required(),
    }),
  ),
  returns: Joi.array().items(sealedReturn),
  taxPayments: Joi.array().items(taxPayment),
});

export interface BookReturn {
  registration: string;
  period: string;
  state: "sealed" | "filed" | "settled";
  boxes: Record<string, string>;
  sealedAt: string;
  filedAt?: string;
  receipt?: Record<string, unknown>;
  settledAt?: string;
}

export interface BookTaxPayment {
  registration: string;
  period: string;
  date: string;
  kind: "payment" | "refund" | "interest" | "penalty";
  amount: string;
  reference?: string;
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
  places?: (PlaceBody & { id: string })[];
  registrations?: (RegistrationBody & { id: string })[];
  codes?: TaxCode[];
  accounts?: Account[];
  items?: (ItemBody & { id: string })[];
  contacts?: (ContactBody & { id: string })[];
  documents?: BookDocument[];
  adjustments?: { registration: string; period: string; box: string; amount: string; reason: string }[];
  returns?: BookReturn[];
  taxPayments?: BookTaxPayment[];
}
