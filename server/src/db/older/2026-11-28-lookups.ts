import type { Migration } from "../migration.ts";

/** One figure of tax for several levies, and indexes for what is looked up by party, version and tax point. */
export const lookups: Migration = {
  name: "2026-11-28-lookups",
  statements: [
    "ALTER TABLE documents ADD COLUMN typed_total TEXT",
    "ALTER TABLE lines ADD COLUMN typed_total TEXT",
    `CREATE INDEX documents_of_contact ON documents (contact_id, state, number COLLATE NOCASE)`,
    `CREATE INDEX documents_by_party_day ON documents (contact_id, date, gross) WHERE contact_id IS NOT NULL`,
    `CREATE INDEX documents_superseding ON documents (supersedes) WHERE supersedes IS NOT NULL`,
    `CREATE INDEX documents_by_any_number ON documents (client_id, kind, number COLLATE NOCASE)`,
    `CREATE INDEX payments_superseding ON payments (supersedes) WHERE supersedes IS NOT NULL`,
    `CREATE INDEX facts_by_client_period ON facts (client_id, period_end) WHERE live = 1`,
    `CREATE INDEX facts_by_client_point ON facts (client_id, tax_point) WHERE live = 1`,
    `CREATE INDEX facts_released ON facts (release_of) WHERE release_of IS NOT NULL`,
    `CREATE INDEX contacts_by_number ON contacts (client_id, tax_number) WHERE tax_number IS NOT NULL`,
  ],
};
