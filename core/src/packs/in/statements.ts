import type { StatementKind } from "../../model/statement.ts";

/** What suppliers furnished, as the portal lists it for the buyer. */
export const statements: readonly StatementKind[] = [
  {
    id: "furnished",
    title: "GSTR-2B, what suppliers furnished",
    lead: "The static statement of a month, or the running GSTR-2A: the portal's JSON or workbook.",
    direction: "purchase",
    of: "all",
    reads: "furnished",
    customs: true,
    heads: { igst: "IGST", cgst: "CGST", sgst: "SGST", cess: "CESS" },
    sameHead: { UTGST: "SGST" },
    kin: [2, 11],
    hold: "furnished",
    source: "CGST s.16(2)(aa), R.36(4), R.60",
  },
];
