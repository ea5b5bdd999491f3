import { amendedTags } from "@fiscalon/core/returns/amendedTags";
import type { Writing } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { formOf } from "./evaluation.ts";
import { SEPARATE } from "./queries.ts";

/** Late facts `f` of given documents that count, with what was said of them as `a`. */
const ANSWERED = `f.live = 1 AND f.late = 1 AND a.registration_id = f.registration_id AND a.document_id = f.document_id
  AND f.document_id IN (SELECT value FROM json_each($1))`;

/**
 * Puts the facts of late documents where the answers about them say: off the return, or among its amendments. Facts
 * are made without knowing the answers, so this follows whenever they are made anew.
 */
export async function applyLateAnswers(
  work: Writing,
  registrations: readonly RegistrationRecord[],
  documents: readonly number[],
): Promise<void> {
  const ids = JSON.stringify(documents);
  await work.run(
    `UPDATE facts AS f SET period_end = CASE WHEN a.separately = 1 THEN f.own_end ELSE a.period_end END
     FROM late_answers a WHERE ${ANSWERED} AND (f.period_end = a.period_end OR (${SEPARATE}))`,
    [ids],
  );
  await work.run(
    `UPDATE facts AS f SET tags = f.plain_tags, plain_tags = NULL
     FROM late_answers a WHERE ${ANSWERED} AND f.plain_tags IS NOT NULL`,
    [ids],
  );
  const amending = await work.rows<{
    id: number;
    registration: number;
    tags: string;
    original: string | null;
    end: string;
  }>(
    `SELECT f.id, f.registration_id AS registration, f.tags, a.period_end AS end,
       (SELECT o.tags FROM documents od JOIN facts o ON o.document_id = od.id AND o.levy = f.levy AND o.live = 1
        WHERE od.client_id = d.client_id AND od.number = d.corrects AND od.state = 'posted' LIMIT 1) AS original
     FROM facts f JOIN late_answers a JOIN documents d ON d.id = f.document_id
     WHERE ${ANSWERED} AND a.amends = 1`,
    [ids],
  );
  const moved = amending.flatMap(({ id, registration, tags, original, end }) => {
    const r = registrations.find((one) => one.id === registration);
    if (!r) return [];
    const to = amendedTags(tags, formOf(work, r, end), original ?? tags);
    return to === tags ? [] : [{ id, to }];
  });
  await work.run(
    `UPDATE facts SET plain_tags = tags, tags = m.value ->> 'to' FROM json_each($1) m WHERE facts.id = m.value ->> 'id'`,
    [JSON.stringify(moved)],
  );
}
