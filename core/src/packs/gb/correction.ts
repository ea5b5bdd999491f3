import type { CorrectionRule } from "../../model/correction.ts";

/** From memory of the law. */
export const correction: CorrectionRule = {
  claims: {
    limit: { years: 4, from: "own-due" },
    after: "barred",
    source: "SI 1995/2518 reg. 29(1A)",
  },
  limit: { years: 4, from: "own-period" },
  per: "return",
  counts: "net",
  cases: [
    {
      when: { kinds: ["deliberate"] },
      way: "separately",
      says: "to be disclosed separately (form VAT652) whatever the size, because deliberate",
      source: "VAT Notice 700/45 section 4",
    },
    { when: { upTo: 10_000_00 }, way: "on-return", says: "corrected on this return (method 1)" },
    {
      when: { share: { percent: "1", box: "6", ceiling: 50_000_00 } },
      way: "on-return",
      says: "corrected on this return (method 1)",
    },
    {
      when: {},
      way: "separately",
      says: "to be notified separately (form VAT652, method 2) and left off this return",
    },
  ],
  source: "VAT Notice 700/45, SI 1995/2518 reg. 34 and 35",
};
