import { displayMoment } from "@fiscalon/core/calendar/displayDate";
import { isDeepStrictEqual } from "node:util";
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
const VERSIONS = [
  "change",
  "create",
  "archive",
  "restore",
  "delete",
  "remove",
  "keep",
  "drop",
  "default",
  "answer",
  "explain",
  "accept",
  "unaccept",
  "name",
];

/** What is done with one version of something: with another than was seen it is refused. */
const WITH_ONE_VERSION: Partial<Record<AuditEntity, AuditAction>> = { import: "post" };

/** What tells one from another beside its number, in what is kept of it. */
const TOLD_BY: Partial<Record<AuditEntity, readonly string[]>> = {
  code: ["code"],
  schedule: ["ref"],
  series: ["kind"],
  jurisdiction: ["id"],
  return: ["period", "instalment"],
  finding: ["period", "key"],
  registration: ["agreement", "keys", "on"],
};

/** What reads the audit trail, in the transaction that changes. */
interface Trail {
  rows: <T extends object>(sql: string, bind?: Bind) => Promise<T[]>;
  one: <T extends object>(sql: string, bind?: Bind) => Promise<T>;
}

interface Later {
  id: number;
  at: string;
  by: string;
  action: AuditAction;
  before: string | null;
  after: string | null;
}

/**
 * Refuses to change what somebody else changed after it was last seen: both versions are told, and who sends it chooses.
 * @throws FiscalError `request/overtaken` with `theirs`, what is kept now, `by`, `at`, `action` and `entry`, its entry
 */
export async function refuseOvertaken(trail: Trail, seen: Seen, change: Change): Promise<void> {
  seen.began ??= (await trail.one<{ id: number }>("SELECT coalesce(max(id), 0) AS id FROM changes")).id;
  const withWhole = WITH_ONE_VERSION[change.entity] === change.action;
  if (seen.began <= seen.upTo || !(withWhole || VERSIONS.includes(change.action))) return;
  const since = await trail.rows<Later>(
    `SELECT c.id, c.at, p.name AS "by", c.action, c.before, c.after FROM changes c JOIN people p ON p.id = c.person_id
     WHERE c.id > $1 AND c.id <= $2 AND c.entity = $3 AND c.action IN (SELECT value FROM json_each($4))
       AND c.entity_id IS $5 ORDER BY c.id DESC`,
    [seen.upTo, seen.began, change.entity, JSON.stringify(VERSIONS), change.id],
  );
  const later = since.find(
    (one) => withWhole || sameThing(change, { before: read(one.before), after: read(one.after) }),
  );
  if (!later) return;
  const { id, at, by, action, after } = later;
  throw new FiscalError(
    "request/overtaken",
    `${by} changed this on ${displayMoment(at)}, after you opened it. Look at both versions, and choose.`,
    undefined,
    { entry: id, at, by, action, theirs: read(after) },
  );
}

type Kept = Pick<Change, "before" | "after">;

/** Whether two changes of what bears one number speak of the same part of it: they share a field, and what tells it. */
function sameThing({ entity, ...mine }: Kept & Pick<Change, "entity">, theirs: Kept): boolean {
  const [one, other] = [fieldsOf(mine), fieldsOf(theirs)];
  if ((TOLD_BY[entity] ?? []).some((field) => !isDeepStrictEqual(one[field], other[field]))) return false;
  const names = Object.keys(one);
  return names.length === 0 || Object.keys(other).length === 0 || names.some((name) => name in other);
}

/** What is kept, as it is written in the trail. */
function fieldsOf({ before, after }: Kept): Record<string, unknown> {
  return read(JSON.stringify(after ?? before ?? {})) as Record<string, unknown>;
}

function read(text: string | null): unknown {
  return text === null ? null : (JSON.parse(text) as unknown);
}
