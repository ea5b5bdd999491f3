import { validate as at } from "stdnum/lib/cjs/at/uid.js";
import { validate as be } from "stdnum/lib/cjs/be/vat.js";
import { validate as bg } from "stdnum/lib/cjs/bg/vat.js";
import { validate as cy } from "stdnum/lib/cjs/cy/vat.js";
import { validate as cz } from "stdnum/lib/cjs/cz/dic.js";
import { validate as de } from "stdnum/lib/cjs/de/vat.js";
import { validate as dk } from "stdnum/lib/cjs/dk/cvr.js";
import { validate as ee } from "stdnum/lib/cjs/ee/kmkr.js";
import { validate as es } from "stdnum/lib/cjs/es/nif.js";
import { validate as fi } from "stdnum/lib/cjs/fi/alv.js";
import { validate as fr } from "stdnum/lib/cjs/fr/tva.js";
import { validate as gr } from "stdnum/lib/cjs/gr/vat.js";
import { validate as hr } from "stdnum/lib/cjs/hr/oib.js";
import { validate as hu } from "stdnum/lib/cjs/hu/anum.js";
import { validate as ie } from "stdnum/lib/cjs/ie/vat.js";
import { validate as it } from "stdnum/lib/cjs/it/iva.js";
import { validate as lt } from "stdnum/lib/cjs/lt/pvm.js";
import { validate as lu } from "stdnum/lib/cjs/lu/tva.js";
import { validate as lv } from "stdnum/lib/cjs/lv/pvn.js";
import { validate as mt } from "stdnum/lib/cjs/mt/vat.js";
import { validate as nl } from "stdnum/lib/cjs/nl/btw.js";
import { validate as pl } from "stdnum/lib/cjs/pl/nip.js";
import { validate as pt } from "stdnum/lib/cjs/pt/nif.js";
import { validate as ro } from "stdnum/lib/cjs/ro/cif.js";
import { validate as se } from "stdnum/lib/cjs/se/vat.js";
import { validate as si } from "stdnum/lib/cjs/si/ddv.js";
import { validate as sk } from "stdnum/lib/cjs/sk/dph.js";
import type { NumberCheck } from "../../model/pack.ts";
import { bareNumber } from "../shared/numberCheck.ts";
import type { Validate } from "../shared/numberCheck.ts";

/** How the number of each member is checked. */
const VALIDATORS: Readonly<Record<string, Validate>> = {
  AT: at,
  BE: be,
  BG: bg,
  CY: cy,
  CZ: cz,
  DE: de,
  DK: dk,
  EE: ee,
  ES: es,
  FI: fi,
  FR: fr,
  GR: gr,
  HR: hr,
  HU: hu,
  IE: ie,
  IT: it,
  LT: lt,
  LU: lu,
  LV: lv,
  MT: mt,
  NL: nl,
  PL: pl,
  PT: pt,
  RO: ro,
  SE: se,
  SI: si,
  SK: sk,
};

/** Checks the VAT number of a member; the prefix may be there or not. Greece writes EL. */
export function checkUnionNumber(country: string, text: string): NumberCheck {
  const validate = VALIDATORS[country];
  const prefix = country === "GR" ? /^(EL|GR)/ : new RegExp(`^${country}`);
  const bare = bareNumber(text).replace(prefix, "");
  if (validate?.(bare).isValid) return { ok: true, number: bare };
  return {
    ok: false,
    message: `${text} is not a valid VAT number of ${country}. Look for a character typed wrong.`,
  };
}
