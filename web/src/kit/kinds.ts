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
  "import-declaration",
  "self-billed-bill",
  "journal",
  "opening-balance",
];

/** Every kind a document can have, those that only feeds make at the end. */
export const ALL_KINDS: DocumentKind[] = [
  ...TYPED_KINDS,
  ...(Object.keys(DOCUMENT_KINDS) as DocumentKind[]).filter((kind) => !TYPED_KINDS.includes(kind)),
];
