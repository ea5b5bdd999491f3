import type { CorrectionRule } from "../../model/correction.ts";

/** From memory of the law. */
export const correction: CorrectionRule = {
  claims: {
    limit: { years: 5, from: "own-period" },
    after: "barred",
    source: "GST Act s 20",
  },
  limit: { years: 5, from: "own-period" },
  per: "return",
  counts: "net",
  cases: [
    {
      when: {
        kinds: ["error", "judgement"],
        upTo: 3_000_00,
        values: { percent: "5", box: "4", orBox: "5" },
      },
      way: "on-return",
      says: "corrected on this F5",
    },
    {
      when: {},
      way: "separately",
      says: "to be disclosed on a form F7 for each period, all boxes with the right totals",
    },
  ],
  source: "IRAS, correcting errors on a GST return (administrative concession)",
};
