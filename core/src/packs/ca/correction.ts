import type { CorrectionRule } from "../../model/correction.ts";

/** From memory of the law. */
export const correction: CorrectionRule = {
  claims: { limit: { years: 4, from: "own-due" }, after: "barred", source: "ETA 225(4)(b)" },
  limit: { years: 4, from: "own-due" },
  per: "period",
  counts: "each-way",
  cases: [
    {
      when: { owed: "to" },
      way: "amend",
      says: "to be asked back by an adjustment of the return of its period, not by a second return",
    },
    {
      when: {},
      way: "amend",
      says: "to be put right by asking for an adjustment of the return of its period",
    },
  ],
  source: "ETA 228, 296 and 298; no amount may be carried forward",
};
