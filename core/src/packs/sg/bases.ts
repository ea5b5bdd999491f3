import type { BasisOffer } from "../../model/basis.ts";
import { accrual } from "../shared/bases.ts";

/** From memory of the law. */
export const bases: BasisOffer[] = [
  accrual("GST Act s 11A"),
  {
    basis: "cash",
    name: "Cash accounting: tax is reported as money is paid",
    who: "Expected taxable supplies of $1 million in twelve months or less, with approval.",
    leaving: [
      {
        id: "at-once",
        name: "Everything unpaid goes on the last return of cash accounting",
        rest: "last-day",
        source: "GST (General) Regulations part VIII",
      },
    ],
    source: "GST (General) Regulations part VIII",
  },
];
