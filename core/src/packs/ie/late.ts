import type { LateCharge } from "../../model/lateCharge.ts";

/** What late payment costs. */
export const late: LateCharge[] = [
  {
    id: "interest",
    name: "Interest on late payment",
    kind: "interest",
    on: "payment",
    levies: ["VAT"],
    from: "2009-07-01",
    to: null,
    way: { way: "yearly", schedule: "ie.LATE", after: 0 },
    says: "0.0274 % a day, simple, from the day after it was due",
    source: "VATCA 2010 s.114(1); from memory",
  },
];
