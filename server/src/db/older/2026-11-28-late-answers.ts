import type { Migration } from "../migration.ts";

const CASE = (says: string, when: string, way: string) =>
  `json_object('when', json(${when}), 'way', '${way}', 'says', '${says}')`;
const AMOUNT = "definition ->> '$.correction.amount'";
const LIMIT = "json_object('years', definition ->> '$.correction.yearsBack', 'from', 'own-period')";

/**
 * What a person says of a late item, and where it is put right; rules for corrections of jurisdictions of one's own as
 * cases in place of one limit.
 */
export const lateAnswers: Migration = {
  name: "2026-11-28-late-answers",
  statements: [
    `CREATE TABLE late_answers (
      id INTEGER PRIMARY KEY, client_id INTEGER NOT NULL REFERENCES clients(id),
      registration_id INTEGER NOT NULL REFERENCES registrations(id),
      document_id INTEGER NOT NULL REFERENCES documents(id),
      period_end TEXT NOT NULL, kind TEXT, separately INTEGER NOT NULL DEFAULT 0, reason TEXT NOT NULL,
      created_at TEXT NOT NULL, created_by INTEGER NOT NULL REFERENCES people(id),
      UNIQUE (registration_id, document_id))`,
    `CREATE INDEX late_answers_of_period ON late_answers (registration_id, period_end)`,
    `UPDATE jurisdictions SET definition = json_set(definition, '$.correction', json_object(
      'claims', json_object('limit', ${LIMIT}, 'after', 'barred', 'source', definition ->> '$.correction.source'),
      'limit', ${LIMIT}, 'per', 'return', 'counts', 'net', 'source', definition ->> '$.correction.source',
      'cases', CASE WHEN ${AMOUNT} IS NULL
        THEN json_array(${CASE("corrected on this return", "'{}'", "on-return")})
        ELSE json_array(${CASE("corrected on this return", `json_object('upTo', ${AMOUNT})`, "on-return")},
          ${CASE("to be disclosed separately", "'{}'", "separately")}) END))
     WHERE definition ->> '$.correction.yearsBack' IS NOT NULL`,
  ],
};
