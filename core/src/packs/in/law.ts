import { lawKnown } from "../shared/lawKnown.ts";

/** How far the law is known here, and what to look up. */
export const law = lawKnown(
  [
    "rule 44(6): what is owed when capital goods are sold",
    "refund applications",
    "e-invoices and e-way bills",
    "the yearly returns",
  ],
  ["The list at 40 %, tobacco and bricks", "their days", "N 9 to 19/2025-CTR, N 2/2025-Cess"],
  [
    "Negative liability",
    "the columns of the portal since it carries it, also for CMP-08",
    "portal advisories",
  ],
  ["Use of credit", "the order of paying integrated tax of 2026", "portal advisories"],
  ["Tables 4C, 5B, 7A(2) and 7B(2)", "they are merged with those beside them", "GSTR-1"],
  ["Changes of the Finance Act 2026", "sections 34 and 13(8)(b)", "Finance Act 2026"],
  ["Council decisions after early 2026", "none is known here", "GST Council"],
);
