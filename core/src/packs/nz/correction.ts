import type { CorrectionRule } from "../../model/correction.ts";

/** From memory of the law. */
export const correction: CorrectionRule = {
  claims: { limit: { years: 2, from: "document" }, after: "reason", source: "GSTA s 20(3) proviso" },
  limit: { years: 4, from: "own-period" },
  per: "period",
  counts: "net",
  cases: [
    {
      when: { kinds: ["error", "judgement"], upTo: 1_000_00 },
      way: "on-return",
      says: "corrected on this return (boxes 9 and 13)",
    },
    {
      when: { kinds: ["error", "judgement"], upTo: 10_000_00, share: { percent: "2", box: "10" } },
      way: "on-return",
      says: "not material, corrected on this return (boxes 9 and 13)",
    },
    { when: {}, way: "amend", says: "to be put right by asking for an amended return of its period" },
  ],
  source: "TAA s 113A",
};
