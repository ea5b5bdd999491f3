import type { CorrectionRule } from "../../model/correction.ts";

/** From memory of the law. */
export const correction: CorrectionRule = {
  limit: { years: 3, from: "own-due" },
  per: "period",
  counts: "net",
  cases: [{ when: {}, way: "amend", says: "to be put right on an amended return of its period" }],
  source: "the states' acts; commonly three years",
};
