import type { LateCharge } from "../../model/lateCharge.ts";

/** What late payment costs; interest at the prescribed rate is told by the authority. */
export const late: LateCharge[] = [
  {
    id: "penalty",
    name: "Late payment penalty",
    kind: "penalty",
    on: "payment",
    from: "1991-09-30",
    to: null,
    way: { way: "share", percent: "10", after: 0 },
    says: "10 % of what is unpaid after the day it was due",
    source: "VAT Act s.39(1)(a); Tax Administration Act s.213",
  },
];
