import type { UnpaidRule } from "../../model/unpaidRule.ts";

/** What becomes of the tax of documents that stay unpaid. From memory of the law. */
export const unpaid: UnpaidRule[] = [
  {
    id: "bad-debt",
    name: "Uncollected receivables",
    direction: "sale",
    from: "due",
    after: { days: 0 },
    falls: "following",
    claimed: true,
    relief: "UR",
    back: "UV",
    says: "on the return of the quarter after the agreed time of payment is over, for sales from 22 January 2024 on",
    source: "NIRC s. 110(D), RA 11976",
  },
];
