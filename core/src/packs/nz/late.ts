import type { LateCharge } from "../../model/lateCharge.ts";

const ACT = "Tax Administration Act 1994 s.139AA, 139B; from memory";

/** What late filing and payment cost; use-of-money interest moves and is told by the authority. */
export const late: LateCharge[] = [
  {
    id: "filing",
    name: "Late filing penalty",
    kind: "penalty",
    on: "filing",
    from: "2008-04-01",
    to: null,
    way: { way: "fee", each: "once", amount: 250_00, nil: 250_00, most: 250_00 },
    says: "250, or 50 on the payments basis",
    source: ACT,
    doubt: "the payments basis is not told apart",
  },
  {
    id: "day-1",
    name: "Late payment penalty, first day",
    kind: "penalty",
    on: "payment",
    from: "2002-04-01",
    to: null,
    way: { way: "share", percent: "1", after: 0 },
    says: "1 % of what is unpaid on the day after it was due",
    source: ACT,
  },
  {
    id: "day-7",
    name: "Late payment penalty, seventh day",
    kind: "penalty",
    on: "payment",
    from: "2002-04-01",
    to: null,
    way: { way: "share", percent: "4", after: 7 },
    says: "4 % of what is still unpaid at the end of the seventh day, the first penalty apart",
    source: ACT,
  },
];
