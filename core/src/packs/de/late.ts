import type { LateCharge } from "../../model/lateCharge.ts";

/** What late payment costs. Three days of grace for transfers do not take the surcharge off what is paid later. */
export const late: LateCharge[] = [
  {
    id: "surcharge",
    name: "Surcharge for late payment",
    kind: "penalty",
    on: "payment",
    levies: ["VAT"],
    from: "2002-01-01",
    to: null,
    way: { way: "monthly", percent: "1", after: 0, begun: true, most: 120, downTo: 50_00 },
    says: "1 % of what is unpaid, taken down to 50, for each month begun; nothing where a transfer arrives within three days",
    source: "AO § 240",
  },
];
