import { FiscalError } from "@fiscalon/core/errors";
import { notFound } from "../../base/errors.ts";
import type { Work } from "../../base/work.ts";

/** Says why an entry without a code is right as it is. */
export async function explainEntry(
  work: Work,
  clientId: number,
  entryId: number,
  reason: string,
): Promise<void> {
  await work.write(async (work) => {
    const entry = await work.row<{ kind: string }>(
      "SELECT kind FROM entries WHERE id = $1 AND client_id = $2 AND live = 1",
      [entryId, clientId],
    );
    if (!entry) throw notFound("This entry");
    if (entry.kind !== "document")
      throw new FiscalError(
        "agree/not-a-journal",
        "This entry explains itself; only journals need a reason.",
      );
    const { createdAt, createdBy } = work.made;
    await work.run(
      `INSERT INTO explanations (client_id, entry_id, reason, created_at, created_by) VALUES ($1, $2, $3, $4, $5)
       ON CONFLICT (entry_id) DO UPDATE SET reason = excluded.reason, created_at = excluded.created_at, created_by = excluded.created_by`,
      [clientId, entryId, reason, createdAt, createdBy],
    );
    await work.record({
      action: "explain",
      entity: "entry",
      id: entryId,
      after: { reason },
    });
  });
}
