import { stdnum } from "stdnum";
import type { NumberCheck } from "../../model/pack.ts";
import { bareNumber } from "../shared/numberCheck.ts";

/** The number of each member in the library of tax numbers. */
const VALIDATORS: Readonly<Record<string, readonly [country: string, kind: string]>> = {
  AT: ["AT", "uid"],
  BE: ["BE", "vat"],
  BG: ["BG", "vat"],
  CY: ["CY", "vat"],
  CZ: ["CZ", "dic"],
  DE: ["DE", "vat"],
  DK: ["DK", "cvr"],
  EE: ["EE", "kmkr"],
  ES: ["ES", "nif"],
  FI: ["FI", "alv"],
  FR: ["FR", "tva"],
  GR: ["GR", "vat"],
  HR: ["HR", "oib"],
  HU: ["HU", "anum"],
  IE: ["IE", "vat"],
  IT: ["IT", "iva"],
  LT: ["LT", "pvm"],
  LU: ["LU", "tva"],
  LV: ["LV", "pvn"],
  MT: ["MT", "vat"],
  NL: ["NL", "btw"],
  PL: ["PL", "nip"],
  PT: ["PT", "nif"],
  RO: ["RO", "cif"],
  SE: ["SE", "vat"],
  SI: ["SI", "ddv"],
  SK: ["SK", "dph"],
};

/** Checks the VAT number of a member; the prefix may be there or not. Greece writes EL. */
export function checkUnionNumber(country: string, text: string): NumberCheck {
  const [module, kind] = VALIDATORS[country] ?? [];
  const validator = stdnum[module ?? ""]?.[kind ?? ""];
  const prefix = country === "GR" ? /^(EL|GR)/ : new RegExp(`^${country}`);
  const bare = bareNumber(text).replace(prefix, "");
  if (validator?.validate(bare).isValid) return { ok: true, number: bare };
  return {
    ok: false,
    message: `${text} is not a valid VAT number of ${country}. Look for a character typed wrong.`,
  };
}
