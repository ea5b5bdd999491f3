import type { ImportBatch, ImportContent } from "@fiscalon/contract/imports";

/** What a person says a file holds. */
export type Holds = "sale" | "purchase" | Exclude<ImportContent, "register" | "e-invoice">;

export const NAMES: Record<Holds, string> = {
  sale: "Sales",
  purchase: "Purchases",
  journal: "Journal",
  "trial-balance": "Trial balance",
  contacts: "Contacts",
  items: "Items",
  "audit-file": "Audit file",
};

/** With an article, for the place to drop it. */
export const WHAT: Record<Holds, string> = {
  sale: "a register of sales, or an e-invoice that was sent,",
  purchase: "a register of purchases, or an e-invoice that came in,",
  journal: "a journal",
  "trial-balance": "a trial balance",
  contacts: "a list of customers and suppliers",
  items: "a list of items",
  "audit-file": "an audit file (SAF-T)",
};

export const QUERY: Record<Holds, Record<string, string>> = {
  sale: { direction: "sale" },
  purchase: { direction: "purchase" },
  journal: { content: "journal" },
  "trial-balance": { content: "trial-balance" },
  contacts: { content: "contacts" },
  items: { content: "items" },
  "audit-file": { content: "audit-file" },
};

/** What a file holds, in a word or two. */
export function holdsWords({ content, direction }: Pick<ImportBatch, "content" | "direction">): string {
  if (content === "register") return direction === "sale" ? "sales" : "purchases";
  if (content === "e-invoice") return direction === "sale" ? "e-invoice, sent" : "e-invoice, received";
  return NAMES[content].toLowerCase();
}

/** What posting makes of the file, counted. */
export function recordWord({ content }: Pick<ImportBatch, "content">): string {
  return { contacts: "contact", items: "item", journal: "entry" }[content as string] ?? "document";
}
