import type { LateCharge } from "../../model/lateCharge.ts";

const ACT = "ETA 280.1";

/** What late filing costs; interest at the prescribed rate is compounded daily and told by the authority. */
export const late: LateCharge[] = [
  {
    id: "failure",
    name: "Failure to file, one percent",
    kind: "penalty",
    on: "filing",
    levies: ["GST", "HST", "QST"],
    from: "2007-04-01",
    to: null,
    way: { way: "share", percent: "1", after: 0 },
    says: "1 % of what was owing when the return was due",
    source: ACT,
  },
  {
    id: "failure-months",
    name: "Failure to file, by month",
    kind: "penalty",
    on: "filing",
    levies: ["GST", "HST", "QST"],
    from: "2007-04-01",
    to: null,
    way: { way: "monthly", percent: "0.25", after: 0, begun: false, most: 12 },
    says: "0.25 % of it for each full month, twelve at most",
    source: ACT,
  },
];
