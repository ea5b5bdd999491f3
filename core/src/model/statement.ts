import type { Direction } from "./taxCode.ts";

/** A list in which somebody else tells of documents that are also in our books. */
export interface StatementKind {
  id: string;
  title: string;
  /** Where it comes from, in a sentence. */
  lead: string;
  /** Whether it tells of what we bought or of what we sold. */
  direction: Extract<Direction, "sale" | "purchase">;
  /** Of one party alone, of all of them, of goods at the border, where no party is told, or of our account there. */
  of: "party" | "all" | "border" | "authority";
  /** How its file is read: any table with headings, or the authority's list of what suppliers furnished. */
  reads: "table" | "furnished";
  /** Imports of goods are told by the customs, not by the supplier. */
  customs?: boolean;
  /** Levies by the names the file has for them. */
  heads?: Readonly<Record<string, string>>;
  /** Our levies that the file has under the head of another. */
  sameHead?: Readonly<Record<string, string>>;
  /** First and last place, from 0, of what all registrations of one person share in a tax number. */
  kin?: readonly [number, number];
  /** The hold that a credit goes under when the other side does not tell of it. */
  hold?: string;
  source: string;
}

/** Lists that any party sends; every client can match them. */
export const GENERAL_STATEMENTS: readonly StatementKind[] = [
  {
    id: "supplier",
    title: "Supplier's statement",
    lead: "What one supplier says it billed: CSV or XLSX with date, number and amounts.",
    direction: "purchase",
    of: "party",
    reads: "table",
    source: "common practice, no source",
  },
  {
    id: "customer",
    title: "Customer's statement",
    lead: "What one customer says it was billed: CSV or XLSX with date, number and amounts.",
    direction: "sale",
    of: "party",
    reads: "table",
    source: "common practice, no source",
  },
  {
    id: "suppliers",
    title: "List of all suppliers",
    lead: "What suppliers declared, or another system holds: one row a bill with the supplier's tax number.",
    direction: "purchase",
    of: "all",
    reads: "table",
    source: "common practice, no source",
  },
  {
    id: "customers",
    title: "List of all customers",
    lead: "What customers declared, such as acquisitions from us: one row a document, or a sum, with the customer's tax number.",
    direction: "sale",
    of: "all",
    reads: "table",
    source: "common practice, no source",
  },
  {
    id: "authority",
    title: "Account at the authority",
    lead: "What the authority says was charged and paid: CSV or XLSX with date, charges and payments.",
    direction: "purchase",
    of: "authority",
    reads: "table",
    source: "common practice, no source",
  },
];
