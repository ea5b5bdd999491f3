import type { BasisOffer } from "../../model/basis.ts";
import { accrual } from "../shared/bases.ts";

/** From memory of the law. */
export const bases: BasisOffer[] = [
  accrual("VATCA 2010 s.74"),
  {
    basis: "receipts",
    name: "Moneys received: sales as the money comes, purchases by invoice",
    who: "Turnover of €2 million a year or less, or at least 90 % of it to persons who are not registered.",
    outside: { treatments: ["intra-union"] },
    leaving: [
      {
        id: "first-return",
        name: "Everything unpaid goes on the first return of the invoice basis",
        rest: "first-day",
        source: "SI 639/2010 reg. 25 and 26",
      },
    ],
    source: "VATCA 2010 s.80",
  },
];
