import type { Migration } from "../migration.ts";

const ofTerminals = (prefix: string) => `UPDATE documents SET source_key =
    '${prefix}:' || t.merchant || substr(documents.source_key, length('${prefix}:' || t.id) + 1)
  FROM terminals t
  WHERE t.client_id = documents.client_id AND documents.source_key LIKE '${prefix}:' || t.id || ':%'`;

/** What a document was made from is told by names from outside, so that it means the same in another database. */
export const sourceKeys: Migration = {
  name: "2026-11-25-source-keys",
  statements: [
    ofTerminals("terminal"),
    ofTerminals("terminal-fees"),
    ofTerminals("payout"),
    `UPDATE documents SET source_key = 'bank-line:' || b.account || ':' || b.external_id FROM bank_lines b
     WHERE documents.source_key = 'bank-line:' || b.id AND b.client_id = documents.client_id`,
    `UPDATE documents SET source_key = 'template:' || t.name || ':' || substr(source_key, -10) FROM templates t
     WHERE t.client_id = documents.client_id AND documents.source_key LIKE 'template:' || t.id || ':%'`,
  ],
};
