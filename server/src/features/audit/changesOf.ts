import { at } from "@fiscalon/core/at";
import type { AuditEntity, ChangeView } from "@fiscalon/contract/audit";
import type { Work } from "../../base/work.ts";
import { namesOf, referencesIn, subjectOf } from "./subjects.ts";

/** Which entries of the audit trail: of one kind of thing, or of all that made the return of a period. */
export interface ChangesAsked {
  /** Only entries older than this one. */
  before?: number;
  entity?: AuditEntity;
  registration?: number;
  /** The end of the period. */
  period?: string;
  limit: number;
}

/**
 * The entries that made a return: those of the return itself, with its findings, adjustments and payments, those of its
 * registration, and those of the documents that are or were on it, with their imports and payments.
 */
const OF_RETURN = `WITH documents_on AS MATERIALIZED (
    SELECT DISTINCT document_id AS id FROM facts WHERE registration_id = $4 AND period_end = $5
    UNION SELECT document_id FROM facts WHERE registration_id = $4 AND own_end = $5 AND late = 1 AND live = 1),
  parts AS (
    SELECT id FROM changes WHERE entity IN ('return', 'finding') AND entity_id = $4
      AND coalesce(after, before) ->> '$.period' = $5
    UNION ALL SELECT id FROM changes WHERE entity = 'registration' AND entity_id = $4
    UNION ALL SELECT id FROM changes WHERE entity = 'adjustment'
      AND before ->> '$.registrationId' = $4 AND before ->> '$.periodEnd' = $5
    UNION ALL SELECT c.id FROM entries e CROSS JOIN changes c ON c.entity = 'tax-payment' AND c.entity_id = e.id
      WHERE e.registration_id = $4 AND coalesce(c.after ->> '$.period', c.before ->> '$.period_end') = $5
    UNION ALL SELECT c.id FROM documents_on d CROSS JOIN changes c
      ON c.entity IN ('document', 'late-item') AND c.entity_id = d.id
    UNION ALL SELECT c.id FROM (SELECT DISTINCT import_id AS id FROM documents_on d CROSS JOIN documents b ON b.id = d.id) i
      CROSS JOIN changes c ON c.entity = 'import' AND c.entity_id = i.id
    UNION ALL SELECT c.id FROM (SELECT DISTINCT payment_id AS id FROM facts WHERE registration_id = $4 AND period_end = $5) p
      CROSS JOIN changes c ON c.entity = 'payment' AND c.entity_id = p.id)`;

/** Entries of the audit trail, newest first, with the names of what they are about. */
export async function changesOf(
  work: Work,
  clientId: number,
  { before, entity, registration, period, limit }: ChangesAsked,
): Promise<ChangeView[]> {
  const ofReturn = registration !== undefined && period !== undefined;
  const rows = await work.rows<
    Omit<ChangeView, "before" | "after" | "subject" | "names"> & { before: string; after: string }
  >(
    `${ofReturn ? OF_RETURN : ""} SELECT c.id, c.at, p.name AS "by", c.action, c.entity, c.entity_id AS entityId,
       c.before, c.after
     FROM changes c JOIN people p ON p.id = c.person_id
     WHERE c.id < $1 AND ($2 = '' OR c.entity = $2) ${ofReturn ? "AND c.id IN (SELECT id FROM parts)" : ""}
     ORDER BY c.id DESC LIMIT $3`,
    [before ?? Number.MAX_SAFE_INTEGER, entity ?? "", limit, ...(ofReturn ? [registration, period] : [])],
  );
  const changes = rows.map((row) => ({ ...row, before: parsed(row.before), after: parsed(row.after) }));
  const references = changes.map((row) => ({
    subject: subjectOf(row.entity, row.entityId),
    inside: referencesIn([row.before, row.after]),
  }));
  const known = await namesOf(
    work,
    clientId,
    references.flatMap(({ subject, inside }) => (subject ? [subject, ...inside] : inside)),
  );
  return changes.map((row, index) => {
    const { subject, inside } = at(references, index);
    const keysInside = inside
      .map(({ entity, id: number }) => `${entity}/${number}`)
      .filter((key) => key in known);
    return {
      ...row,
      subject: subject ? (known[`${subject.entity}/${subject.id}`] ?? null) : null,
      names: Object.fromEntries(keysInside.map((key) => [key, known[key] ?? key])),
    };
  });
}

function parsed(json: string | null): unknown {
  return json === null ? null : JSON.parse(json);
}
