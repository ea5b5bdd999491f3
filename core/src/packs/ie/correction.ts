import type { CorrectionRule } from "../../model/correction.ts";

/** From memory of the law. */
export const correction: CorrectionRule = {
  claims: { limit: { years: 4, from: "own-period" }, after: "barred", source: "VATCA 2010 s.59 and s.99(4)" },
  limit: { years: 4, from: "own-period" },
  per: "period",
  counts: "each-way",
  cases: [
    {
      when: { kinds: ["deliberate"], owed: "by" },
      way: "amend",
      says: "to be put right on an amended VAT3 of its period, by qualifying disclosure, because deliberate",
    },
    {
      when: { owed: "to" },
      way: "on-return",
      says: "taken back on this return, as far as the tax was not passed on",
      source: "VATCA 2010 s.100",
    },
    {
      when: { below: 6_000_00 },
      way: "on-return",
      says: "corrected on this return, without interest or penalty",
    },
    { when: {}, way: "amend", says: "to be put right on an amended VAT3 of its period" },
  ],
  source: "Revenue, Code of Practice for Compliance Interventions",
};
