import { DOCUMENT_KINDS } from "@fiscalon/core/tax/documentInput";
import type { DocumentKind } from "@fiscalon/core/tax/documentInput";

export const KIND_NAMES = Object.fromEntries(
  Object.entries(DOCUMENT_KINDS).map(([kind, { name }]) => [kind, name]),
) as Record<DocumentKind, string>;

/** Kinds a person types, in the order they are offered. */
export const TYPED_KINDS: DocumentKind[] = [
  "sales-invoice",
  "purchase-bill",
  "sales-credit-note",
  "purchase-credit-note",
  "cash-sale",
  "expense",
  "journal",
];
