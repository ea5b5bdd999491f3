import type { CorrectionRule } from "../../model/correction.ts";

/** From memory of the law. */
export const correction: CorrectionRule = {
  claims: {
    limit: { years: 5, from: "own-period" },
    after: "barred",
    source: "VAT Law art. 55 and 74",
  },
  limit: { years: 5, from: "own-period" },
  per: "period",
  counts: "net",
  cases: [
    { when: { upTo: 10_000_00 }, way: "on-return", says: "corrected on this return" },
    {
      when: {},
      way: "separately",
      says: "to be disclosed (VAT211) within 20 business days of becoming aware, and left off this return",
    },
  ],
  source: "Tax Procedures Law; Cabinet Decision 74 of 2023",
};
