import type { CorrectionRule } from "../../model/correction.ts";

/** From memory of the law. */
export const correction: CorrectionRule = {
  claims: { limit: { years: 5, from: "own-period" }, after: "barred", source: "VAT Act s. 16(3) proviso" },
  limit: { years: 5, from: "own-period" },
  per: "period",
  counts: "each-way",
  cases: [
    {
      when: { owed: "to" },
      way: "amend",
      says: "to be asked back by a request for correction of the return of its period",
    },
    {
      when: {},
      way: "amend",
      says: "to be put right by a request for correction of the return of its period",
    },
  ],
  source: "TAA: the filed VAT201 is corrected, without a limit of amount",
};
