import type { CorrectionRule } from "../../model/correction.ts";

/** From memory of the law. */
export const correction: CorrectionRule = {
  claims: {
    limit: { years: 3, from: "own-period" },
    after: "barred",
    source: "NIRC s. 6(A), 110(A): input tax belongs to the quarter of its invoice",
  },
  limit: { years: 3, from: "own-period" },
  per: "return",
  counts: "net",
  cases: [
    {
      when: { kinds: ["late-claim"] },
      way: "amend",
      says: "to be claimed on an amended 2550Q of its own quarter",
    },
    {
      when: {},
      way: "amend",
      says: "to be put right on an amended 2550Q of its own quarter, before an audit begins",
    },
  ],
  source: "NIRC s. 6(A)",
};
