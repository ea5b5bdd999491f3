import type { Migration } from "../migration.ts";
import { serialOf } from "../serialSql.ts";

const { stem, n } = serialOf("number");

/**
 * What large books are asked for and would walk from end to end: the next number of a series and its gaps, documents
 * with a code, and what a party has in all.
 */
export const lookUps: Migration = {
  name: "2026-11-30-look-ups",
  statements: [
    `CREATE INDEX documents_in_series ON documents (client_id, kind, ${stem}, ${n}, date)`,
    `CREATE INDEX payments_in_series ON payments (client_id, kind, ${stem}, ${n}, date)`,
    `DROP INDEX lines_uncoded`,
    `CREATE INDEX lines_of_code ON lines (code, document_id, net, gross)`,
    `DROP INDEX documents_by_party_day`,
    `CREATE INDEX documents_by_party_day ON documents (contact_id, date, gross, state, kind, net) WHERE contact_id IS NOT NULL`,
  ],
};
