import type { LateCharge } from "../../model/lateCharge.ts";

const ACT = "GST Act s.60; from memory";

/** What late filing and payment cost. */
export const late: LateCharge[] = [
  {
    id: "filing",
    name: "Late submission penalty",
    kind: "penalty",
    on: "filing",
    from: "2013-01-01",
    to: null,
    way: { way: "fee", each: "month", amount: 200_00, nil: 200_00, most: 10_000_00 },
    says: "200 at once and for each further month, 10,000 at most",
    source: ACT,
  },
  {
    id: "payment",
    name: "Late payment penalty",
    kind: "penalty",
    on: "payment",
    from: "2013-01-01",
    to: null,
    way: { way: "share", percent: "5", after: 0 },
    says: "5 % of what is unpaid after the day it was due",
    source: ACT,
  },
  {
    id: "payment-months",
    name: "Additional late payment penalty",
    kind: "penalty",
    on: "payment",
    from: "2013-01-01",
    to: null,
    way: { way: "monthly", percent: "2", after: 60, begun: false, most: 25 },
    says: "2 % of what is still unpaid for each month after 60 days, 50 % at most",
    source: ACT,
  },
];
