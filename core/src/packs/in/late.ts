import type { LateCharge } from "../../model/lateCharge.ts";
import { WHOLE_NEAREST } from "../shared/formBoxes.ts";

const HEADS = Object.fromEntries(
  ["IGST", "CGST", "SGST", "CESS"].map((head) => {
    const box = head.toLowerCase();
    return [head, `[6.1A.${box}.cash] + [6.1B.${box}.cash]`];
  }),
);

/** What late filing costs. Both belong in table 5.1 of the return itself, or of the next one. */
export const late: LateCharge[] = [
  {
    id: "interest",
    name: "Interest, s.50",
    kind: "interest",
    on: "filing",
    levies: ["CGST"],
    from: "2017-07-01",
    to: null,
    way: { way: "yearly", schedule: "in.LATE", after: 0 },
    heads: HEADS,
    rounding: WHOLE_NEAREST,
    says: "18 % a year on what is paid in cash with a return filed late, head by head, to the rupee; cash that lay in the ledger on the due day does not bear it",
    source: "CGST s.50, R.88B",
  },
  {
    id: "fee",
    name: "Late fee, s.47",
    kind: "penalty",
    on: "filing",
    levies: ["CGST"],
    from: "2021-07-01",
    to: null,
    way: { way: "fee", each: "day", amount: 50_00, nil: 20_00, most: 10_000_00 },
    says: "25 and 25 a day, 10 and 10 for a nil return; at most 10,000 in all, 5,000 up to 5 crore of turnover, 2,000 up to 1.5 crore, 500 for a nil return",
    source: "CGST s.47, N 19/2021-CT",
    doubt: "the most of smaller turnovers is not told apart",
  },
];
