import type { JurisdictionPack } from "../../model/pack.ts";

export const notes: JurisdictionPack["notes"] = [
  {
    text: "Registration is compulsory above £90,000 of taxable turnover in twelve months (£85,000 until 31 March 2024).",
    source: "VATA 1994 Sch 1",
  },
  {
    text: "An invoice within 14 days of the supply moves the tax point to its date.",
    source: "VATA 1994 s.6(5)",
  },
  {
    text: "Evidence of export is needed within 3 months.",
    source: "VAT Notice 703",
  },
  {
    text: "Hospitality bore 5 % from 15 July 2020, 12.5 % from 1 October 2021, and 20 % again from 1 April 2022; alcoholic drinks bore 20 % throughout.",
    source: "SI 2020/728; FA 2021",
  },
];
