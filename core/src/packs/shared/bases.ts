import { PLAIN_BASES } from "../../model/basis.ts";
import type { BasisOffer } from "../../model/basis.ts";

/** The basis every law knows; `source` is where this one says when tax becomes due. */
export function accrual(source: string): BasisOffer {
  return { ...PLAIN_BASES.accrual, source };
}
