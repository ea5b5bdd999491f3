import type { CorrectionRule } from "../../model/correction.ts";

/** From memory of the law. */
export const correction: CorrectionRule = {
  claims: { limit: { years: 4, from: "own-due" }, after: "barred", source: "GST Act Div 93" },
  limit: { years: 4, from: "own-due" },
  per: "return",
  counts: "net",
  cases: [
    {
      when: { owed: "to", kinds: ["error", "judgement"] },
      way: "on-return",
      says: "a credit error, corrected on this statement whatever the amount",
    },
    ...(
      [
        ["under-20m", 18, 12_500_00],
        ["20m", 12, 25_000_00],
        ["100m", 12, 50_000_00],
        ["500m", 12, 100_000_00],
        ["1bn", 12, 560_000_00],
      ] as const
    ).map(([turnover, months, below]) => ({
      when: {
        kinds: ["error", "judgement"] as const,
        option: ["turnover", turnover] as const,
        months,
        below,
      },
      way: "on-return" as const,
      says: "a debit error, corrected on this statement",
    })),
    { when: {}, way: "amend", says: "to be put right by revising the statement of its period" },
  ],
  source: "Correcting GST Errors Determination 2023; TAA Sch 1 Div 155",
};
