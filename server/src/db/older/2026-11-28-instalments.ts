import type { Migration } from "../migration.ts";

/**
 * What a person says of one payment of a period: what the authority asks for, an estimate of the period, and why. Checks
 * of own jurisdictions on a line attribute name several codes.
 */
export const instalments: Migration = {
  name: "2026-11-28-instalments",
  statements: [
    `CREATE TABLE instalments (
      id INTEGER PRIMARY KEY, client_id INTEGER NOT NULL REFERENCES clients(id),
      registration_id INTEGER NOT NULL REFERENCES registrations(id),
      period_end TEXT NOT NULL, no INTEGER NOT NULL, asked INTEGER, estimate INTEGER, reason TEXT NOT NULL,
      created_at TEXT NOT NULL, created_by INTEGER NOT NULL REFERENCES people(id),
      UNIQUE (registration_id, period_end, no))`,
    `UPDATE jurisdictions SET definition = json_set(definition, '$.checks', (
       SELECT json_group_array(json(CASE WHEN c.value ->> '$.kind' = 'attribute' AND c.value ->> '$.code' IS NOT NULL
         THEN json_remove(json_set(c.value, '$.codes', json_array(c.value ->> '$.code')), '$.code') ELSE c.value END))
       FROM json_each(definition, '$.checks') c))
     WHERE json_type(definition, '$.checks') = 'array'`,
  ],
};
