import type { BasisOffer } from "../../model/basis.ts";
import { accrual } from "../shared/bases.ts";

/** From memory of the law. */
export const bases: BasisOffer[] = [
  accrual("GST Act s 29-5"),
  {
    basis: "cash",
    name: "Cash basis: tax is reported as money is paid",
    who: "Turnover below $10 million a year, income tax on the cash basis, or an endorsed charity.",
    leaving: [
      {
        id: "first-return",
        name: "Everything unpaid goes on the first statement of the accrual basis",
        rest: "first-day",
        source: "GST Act s 29-45, 159-5",
      },
    ],
    source: "GST Act s 29-40",
  },
];
