import type { BasisOffer } from "../../model/basis.ts";
import { accrual } from "../shared/bases.ts";

/** From memory of the law. */
export const bases: BasisOffer[] = [
  accrual("VATA 1994 s.6"),
  {
    basis: "cash",
    name: "Cash accounting: tax is reported as money is paid",
    who: "Taxable turnover of £1.35 million a year or less; to be left above £1.6 million.",
    leaving: [
      {
        id: "at-once",
        name: "At once: everything unpaid goes on the last return of cash accounting",
        rest: "last-day",
        source: "SI 1995/2518 reg. 61(2), VAT Notice 731 section 6",
      },
      {
        id: "six-months",
        name: "Over six months: as paid until then, the rest on the return in which the six months end",
        rest: "last-day",
        months: 6,
        source: "SI 1995/2518 reg. 61(3), VAT Notice 731 section 6",
      },
    ],
    source: "SI 1995/2518 part VIII, VAT Notice 731",
  },
];
