import type { CorrectionRule } from "../../model/correction.ts";

/** From memory of the law. */
export const correction: CorrectionRule = {
  claims: {
    limit: { day: "11-30", yearEnds: "03-31" },
    after: "barred",
    source: "CGST Act s.16(4)",
  },
  limit: { day: "11-30", yearEnds: "03-31" },
  per: "period",
  counts: "each-way",
  cases: [
    {
      when: { owed: "by" },
      way: "on-return",
      says: "netted in this GSTR-3B, with interest for the time it was short",
    },
    { when: {}, way: "on-return", says: "netted in this GSTR-3B" },
  ],
  source: "CGST Act s.37(3), s.39(9); afterwards only DRC-03",
};
