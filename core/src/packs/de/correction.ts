import type { CorrectionRule } from "../../model/correction.ts";

/** From memory of the law. */
export const correction: CorrectionRule = {
  claims: {
    limit: { years: 4, from: "own-period" },
    after: "barred",
    source: "UStG § 15(1), UStAE 15.2; AO § 169",
  },
  limit: { years: 4, from: "own-period" },
  per: "period",
  counts: "net",
  cases: [
    {
      when: {},
      way: "amend",
      says: "to be put right at once by a full replacement of that return (Kz 10), at the latest in the annual return",
    },
  ],
  source: "AO § 153: no limit of amount",
};
