import type { LateCharge } from "../../model/lateCharge.ts";

/** What late filing costs a small entity; the general interest charge moves by the quarter and is told by the authority. */
export const late: LateCharge[] = [
  {
    id: "failure",
    name: "Failure to lodge on time",
    kind: "penalty",
    on: "filing",
    levies: ["GST"],
    from: "2024-11-07",
    to: null,
    way: { way: "fee", each: "28 days", amount: 330_00, nil: 330_00, most: 1_650_00 },
    says: "one penalty unit of 330 for each 28 days begun, five at most; twice as much for a medium entity",
    source: "TAA 1953 Sch. 1 s.286-75, 286-80; Crimes Act s.4AA; from memory",
    doubt: "the unit is indexed every third July",
  },
];
