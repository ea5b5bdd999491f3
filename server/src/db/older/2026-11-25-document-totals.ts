import type { Migration } from "../migration.ts";

/** Totals of a whole grid are read from an index alone. */
export const documentTotals: Migration = {
  name: "2026-11-25-document-totals",
  statements: ["CREATE INDEX documents_totals ON documents (client_id, state, kind, net, tax, gross)"],
};
