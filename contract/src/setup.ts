import Joi from "joi";
import { MONTHS_OF } from "@fiscalon/core/calendar/filingPeriods";
import type { Frequency } from "@fiscalon/core/calendar/filingPeriods";
import type { RegistrationChange } from "@fiscalon/core/model/registration";
import { BASES } from "@fiscalon/core/model/basis";
import type { Basis } from "@fiscalon/core/model/basis";
import { ACCOUNT_ROLES } from "@fiscalon/core/model/account";
import type { Account } from "@fiscalon/core/model/account";
import type { SchemeInForce } from "@fiscalon/core/model/scheme";
import type { Rounding } from "@fiscalon/core/model/rounding";
import { schemesInForce } from "./scheme.ts";
import { country, date, decimal, name, region, roundingBody, taxNumber } from "./fields.ts";

const codeOrNone = Joi.string().max(20).allow(null, "");

export const placeFields = {
  name: name.required(),
  country: country.required(),
  region,
  closedOn: date.allow(null),
  saleCode: codeOrNone,
  purchaseCode: codeOrNone,
};

const options = Joi.object().pattern(Joi.string().max(40), Joi.string().max(40));

/** What is brought into the first return, decimal text by box. */
const opening = Joi.object().pattern(Joi.string().max(40), decimal);

export const registrationFields = {
  pack: Joi.string().max(10).required(),
  levies: Joi.array().items(Joi.string().max(30)).min(1),
  region,
  number: taxNumber,
  from: date.required(),
  to: date.allow(null).default(null),
  frequency: Joi.string()
    .valid(...Object.keys(MONTHS_OF))
    .required(),
  anchor: date,
  changes: Joi.array().items(
    Joi.object({
      from: date.required(),
      frequency: Joi.string()
        .valid(...Object.keys(MONTHS_OF))
        .required(),
      anchor: date.required(),
      basis: Joi.string().valid(...BASES),
      leaving: Joi.string().max(40),
      options,
    }),
  ),
  basis: Joi.string()
    .valid(...BASES)
    .default("accrual"),
  rounding: roundingBody,
  schemes: schemesInForce,
  options,
  opening,
};

/** What a contact is for a levy, with the paper that proves it. */
const standing = Joi.alternatives(
  Joi.string().max(40),
  Joi.object({
    value: Joi.string().max(40).required(),
    certificate: Joi.string().max(100).allow(""),
    until: date.allow(null),
  }),
);

export const contactFields = {
  name: name.required(),
  country: country.allow(null),
  region,
  taxNumber,
  registered: Joi.boolean().allow(null),
  standing: Joi.object().pattern(Joi.string().max(30), standing),
  saleCode: codeOrNone,
  purchaseCode: codeOrNone,
};

export const accountFields = {
  code: Joi.string().trim().min(1).max(20).required(),
  name: name.required(),
  type: Joi.string().valid("asset", "liability", "equity", "income", "expense").required(),
  role: Joi.string()
    .valid(...ACCOUNT_ROLES)
    .allow(null),
  levy: Joi.string().max(120).allow(null),
  region: Joi.string().max(10),
  topic: Joi.string().max(40).allow(null),
  usualCode: codeOrNone,
};

export const itemFields = {
  name: name.required(),
  unitPrice: decimal.allow(null, ""),
  supply: Joi.string().valid("goods", "services").allow(null),
  taxClass: Joi.string().max(40).allow(null),
  saleCode: codeOrNone,
  purchaseCode: codeOrNone,
  saleAccount: Joi.string().max(20).allow(null, ""),
  purchaseAccount: Joi.string().max(20).allow(null, ""),
  statisticalCode: Joi.string().max(20).allow(null, ""),
};

export const clientBody = Joi.object<ClientBody, true>({
  name: name.required(),
  country: country.required(),
  currency: Joi.string().uppercase().length(3),
  place: Joi.object(placeFields),
  registration: Joi.object(registrationFields),
  registrations: Joi.array().items(Joi.object(registrationFields)).max(20),
  saleCode: codeOrNone,
  purchaseCode: codeOrNone,
});
export const registrationBody = Joi.object<RegistrationBody, true>(registrationFields);
/** What of a registration can change; left out, it stays. */
export const registrationChangeBody = Joi.object<RegistrationChangeBody, true>({
  number: taxNumber,
  to: date.allow(null),
  changes: registrationFields.changes,
  basis: Joi.string().valid(...BASES),
  rounding: roundingBody,
  options: registrationFields.options,
  opening,
  schemes: schemesInForce,
});
export const placeChangeBody = Joi.object({
  name,
  region,
  closedOn: date.allow(null),
  saleCode: codeOrNone,
  purchaseCode: codeOrNone,
});
export const placeBody = Joi.object<PlaceBody, true>(placeFields);
export const contactBody = Joi.object<ContactBody, true>(contactFields);
export const accountBody = Joi.object<Account, true>(accountFields);
export const itemBody = Joi.object<ItemBody, true>(itemFields);
export const numberCheckQuery = Joi.object({
  pack: Joi.string().required(),
  number: Joi.string().max(60).required(),
});

export interface RegistrationBody {
  pack: string;
  levies?: string[];
  /** The region it is for, where a levy is registered region by region. */
  region?: string | null;
  number?: string | null;
  from: string;
  to: string | null;
  frequency: Frequency;
  anchor?: string;
  changes?: RegistrationChange[];
  basis: Basis;
  rounding?: Rounding;
  schemes?: SchemeInForce[];
  options?: Record<string, string>;
  opening?: Record<string, string>;
}

export interface RegistrationChangeBody {
  number?: string | null;
  to?: string | null;
  changes?: RegistrationChange[];
  basis?: Basis;
  rounding?: Rounding;
  options?: Record<string, string>;
  opening?: Record<string, string>;
  schemes?: SchemeInForce[];
}

export type StandingBody = string | { value: string; certificate?: string; until?: string | null };

export interface PlaceBody {
  name: string;
  country: string;
  region?: string | null;
  /** First day on which it is closed. */
  closedOn?: string | null;
  saleCode?: string | null;
  purchaseCode?: string | null;
}

export interface ClientBody {
  name: string;
  country: string;
  currency?: string;
  place?: PlaceBody;
  registration?: RegistrationBody;
  registrations?: RegistrationBody[];
  saleCode?: string | null;
  purchaseCode?: string | null;
}

export interface ContactBody {
  name: string;
  country?: string | null;
  region?: string | null;
  taxNumber?: string | null;
  registered?: boolean | null;
  standing?: Record<string, StandingBody>;
  saleCode?: string | null;
  purchaseCode?: string | null;
}

export interface ItemBody {
  name: string;
  unitPrice?: string | null;
  supply?: "goods" | "services" | null;
  taxClass?: string | null;
  saleCode?: string | null;
  purchaseCode?: string | null;
  saleAccount?: string | null;
  purchaseAccount?: string | null;
  statisticalCode?: string | null;
}
