import Joi from "joi";
import { DOCUMENT_KINDS } from "@fiscalon/core/model/documentKinds";
import { PAYMENT_KINDS } from "@fiscalon/core/model/paymentKinds";

/** Everything that carries a number of our own, with what its series is called, how it begins and whether a gap matters. */
export interface NumberedSeries {
  name: string;
  prefix: string;
  unbroken: boolean;
  table: "documents" | "payments";
}

type WithSeries<Kinds> = {
  [Kind in keyof Kinds]: Kinds[Kind] extends { series: null } ? never : Kind;
}[keyof Kinds];
export type NumberedKind = WithSeries<typeof DOCUMENT_KINDS> | WithSeries<typeof PAYMENT_KINDS>;

const ofTable = (
  table: NumberedSeries["table"],
  kinds: Readonly<Record<string, { plural: string; series: { prefix: string; unbroken: boolean } | null }>>,
): [string, NumberedSeries][] =>
  Object.entries(kinds).flatMap(([kind, { plural, series }]) =>
    series === null ? [] : [[kind, { name: plural, table, ...series }]],
  );

export const NUMBERED_KINDS = Object.fromEntries([
  ...ofTable("documents", DOCUMENT_KINDS),
  ...ofTable("payments", PAYMENT_KINDS),
]) as Readonly<Record<NumberedKind, NumberedSeries>>;

/** Whether a kind carries numbers of our own. */
export function isNumbered(kind: string): kind is NumberedKind {
  return kind in NUMBERED_KINDS;
}

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
