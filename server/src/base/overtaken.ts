import type { AuditAction, AuditEntity } from "@fiscalon/contract/audit";
import { FiscalError } from "@fiscalon/core/errors";
import type { Bind } from "../db/database.ts";
import type { Change } from "./change.ts";

/** How far whoever sends a change had seen the audit trail, and where it ended when the change began. */
export interface Seen {
  upTo: number;
  began?: number;
}

/** What makes another version of something; other entries only tell what was done with it. */
const VERSIONS = ["change", "create", "archive", "restore", "delete", "remove", "keep", "drop", "default"];

/** What tells one from another where it has no number, in what is kept of it. */
const NAMED_BY: Partial<Record<AuditEntity, string>> = {
  code: "code",
  schedule: "ref",
  series: "kind",
  jurisdiction: "id",
  template: "name",
};

/** What reads the audit trail, in the transaction that changes. */
interface Trail {
  row: <T extends object>(sql: string, bind?: Bind) => Promise<T | undefined>;
  one: <T extends object>(sql: string, bind?: Bind) => Promise<T>;
}

interface Later {
  id: number;
  at: string;
  by: string;
  action: AuditAction;
  after: string | null;
}

/**
 * Refuses to change what somebody else changed after it was last seen: both versions are told, and who sends it chooses.
 * @throws FiscalError `request/overtaken` with `theirs`, what is kept now, `by`, `at`, `action` and `entry`, its entry
 */
export async function refuseOvertaken(trail: Trail, seen: Seen, change: Change): Promise<void> {
  seen.began ??= (await trail.one<{ id: number }>("SELECT coalesce(max(id), 0) AS id FROM changes")).id;
  if (seen.began <= seen.upTo || !VERSIONS.includes(change.action)) return;
  const later = await trail.row<Later>(
    `SELECT c.id, c.at, p.name AS "by", c.action, c.after FROM changes c JOIN people p ON p.id = c.person_id
     WHERE c.id > $1 AND c.id <= $2 AND c.entity = $3 AND c.action IN (SELECT value FROM json_each($4))
       AND c.entity_id IS $5 AND ($6 IS NULL OR coalesce(c.after, c.before) ->> $6 = $7) ORDER BY c.id DESC LIMIT 1`,
    [seen.upTo, seen.began, change.entity, JSON.stringify(VERSIONS), change.id, ...nameOf(change)],
  );
  if (!later) return;
  const { id, at, by, action, after } = later;
  throw new FiscalError(
    "request/overtaken",
    `${by} changed this on ${at.slice(0, 10)} at ${at.slice(11, 16)} UTC, after you opened it. Look at both versions, and choose.`,
    undefined,
    { entry: id, at, by, action, theirs: after === null ? null : (JSON.parse(after) as unknown) },
  );
}

function nameOf({ id, entity, before, after }: Change): [path: string | null, name: string] {
  const key = NAMED_BY[entity];
  if (id !== null || key === undefined) return [null, ""];
  const name = (after ?? before) as Record<string, unknown>;
  return [`$.${key}`, String(name[key])];
}
