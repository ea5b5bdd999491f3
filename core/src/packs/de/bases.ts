import type { BasisOffer } from "../../model/basis.ts";
import { accrual } from "../shared/bases.ts";

/** From memory of the law. */
export const bases: BasisOffer[] = [
  accrual("UStG § 13(1) no. 1a, § 16"),
  {
    basis: "receipts",
    name: "Receipts (§ 20): sales as the money comes, input tax by invoice",
    who: "Turnover of the last year of €800,000 or less, free professions, or freed from keeping books.",
    outside: { treatments: ["intra-union", "export", "margin", "adjustment"] },
    leaving: [
      {
        id: "as-paid",
        name: "Sales of the time before are still taxed as the money comes",
        rest: "as-paid",
        source: "UStG § 20 sentence 3",
      },
    ],
    source: "UStG § 20",
  },
];
