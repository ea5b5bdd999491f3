import type { StatementKind } from "../../model/statement.ts";

const BORDER = { direction: "purchase", of: "border", reads: "table", customs: true } as const;

/** What the customs say of import VAT. */
export const statements: readonly StatementKind[] = [
  {
    ...BORDER,
    id: "postponed",
    title: "Postponed import VAT statement",
    lead: "The monthly statement as a table: entry number, acceptance date and VAT.",
    source: "VAT Notice 702; postponed VAT accounting",
  },
  {
    ...BORDER,
    id: "certificate",
    title: "Import VAT certificate C79",
    lead: "The monthly certificate as a table: entry number, date and VAT paid.",
    source: "VAT Notice 702",
  },
];
