import type { BasisOffer } from "../../model/basis.ts";
import { accrual } from "../shared/bases.ts";

/** Second-hand goods of who is not registered: a notional credit, as far as they are paid on every basis. */
const asPaid = ["P2"];

/** From memory of the law. */
export const bases: BasisOffer[] = [
  { ...accrual("GSTA s 9"), asPaid },
  {
    basis: "cash",
    asPaid,
    name: "Payments basis: tax is reported as money is paid",
    who: "Supplies of $2 million in twelve months or less, and non-profit bodies.",
    leaving: [
      {
        id: "first-return",
        name: "Debtors go to box 9 and creditors to box 13 of the first return of the invoice basis",
        rest: "first-day",
        boxes: { sale: "9 +t", purchase: "13 +r" },
        source: "GSTA s 19C, GST 103B",
      },
    ],
    joining: { sale: "13 -t", purchase: "9 -r" },
    source: "GSTA s 19A",
  },
  {
    basis: "hybrid",
    asPaid,
    name: "Hybrid basis: sales at the tax point, purchases as paid",
    leaving: [
      {
        id: "first-return",
        name: "Creditors go to box 13 of the first return of the invoice basis",
        rest: "first-day",
        boxes: { sale: "9 +t", purchase: "13 +r" },
        source: "GSTA s 19C",
      },
    ],
    joining: { sale: "13 -t", purchase: "9 -r" },
    source: "GSTA s 19",
  },
];
