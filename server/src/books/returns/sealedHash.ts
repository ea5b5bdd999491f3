import { createHash } from "node:crypto";
import type { Work } from "../../base/work.ts";
import type { ReturnRecord } from "../../db/models.ts";

/** What stands for a sealed return: SHA-256 over its boxes and the ids of the facts they come from. */
export async function sealedHash(
  work: Work,
  registrationId: number,
  end: string,
  boxes: NonNullable<ReturnRecord["boxes"]>,
): Promise<string> {
  const { ids } = await work.one<{ ids: string }>(
    `SELECT coalesce(group_concat(id, ','), '') AS ids FROM
       (SELECT id FROM facts WHERE registration_id = $1 AND period_end = $2 AND live = 1 ORDER BY id)`,
    [registrationId, end],
  );
  return createHash("sha256").update(JSON.stringify(boxes)).update(ids).digest("hex");
}
