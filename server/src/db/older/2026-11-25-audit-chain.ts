import type { Migration } from "../migration.ts";

/** The audit trail becomes a chain: each entry carries a hash over itself and the one before, and none can be changed. */
export const auditChain: Migration = {
  name: "2026-11-25-audit-chain",
  statements: [
    `ALTER TABLE changes ADD COLUMN hash TEXT`,
    `CREATE TRIGGER changes_stay BEFORE UPDATE ON changes BEGIN
       SELECT RAISE(ABORT, 'the audit trail is append-only'); END`,
    `CREATE TRIGGER changes_are_kept BEFORE DELETE ON changes BEGIN
       SELECT RAISE(ABORT, 'the audit trail is append-only'); END`,
  ],
};
