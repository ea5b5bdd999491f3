import type { BasisOffer } from "../../model/basis.ts";
import { accrual } from "../shared/bases.ts";

/** Second-hand goods of who is not registered: a notional credit, as far as they are paid on every basis. */
const asPaid = ["SH", "SHK"];

/** From memory of the law. */
export const bases: BasisOffer[] = [
  { ...accrual("VAT Act s. 9"), asPaid },
  {
    basis: "cash",
    asPaid,
    name: "Payments basis: tax is reported as money is paid",
    who: "Natural persons with taxable supplies of R2.5 million or less, public bodies and municipalities.",
    outside: { grossFrom: 100_000_00 },
    leaving: [
      {
        id: "period-of-change",
        name: "Debtors go to field 12 and creditors to field 18 of the first return of the invoice basis",
        rest: "first-day",
        boxes: { sale: "12 +t", purchase: "18 +r" },
        source: "VAT Act s. 15(5) and (6)",
      },
    ],
    source: "VAT Act s. 15(2)",
  },
];
