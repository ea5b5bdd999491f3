import type { Work, Writing } from "../../base/work.ts";
import { followEntries } from "../bankLines.ts";
import type { ClientSetup } from "../loadSetup.ts";
import type { StoredDocument } from "./loadDocuments.ts";
import { endEffects } from "./postDocuments.ts";

/** The sealed period that keeps a document from being changed, if there is one. */
export async function lockOf(
  work: Work,
  setup: ClientSetup,
  document: Pick<StoredDocument, "id" | "ledgerDate">,
): Promise<{ period: string; state: string } | null> {
  const row = await work.row<{ period: string; state: string }>(
    `SELECT r.period_end AS period, r.state FROM returns r
     WHERE r.client_id = $1 AND r.state IN ('sealed', 'filed', 'settled')
       AND (($2 BETWEEN r.period_from AND r.period_end) OR EXISTS
         (SELECT 1 FROM facts f WHERE f.document_id = $3 AND f.live = 1
            AND f.registration_id = r.registration_id AND f.period_end = r.period_end))
     ORDER BY r.period_end LIMIT 1`,
    [setup.client.id, document.ledgerDate, document.id],
  );
  return row ?? null;
}

/** A document stops counting; it stays on record with the reason. */
export async function endDocument(
  work: Writing,
  setup: ClientSetup,
  document: Pick<StoredDocument, "id">,
  state: "superseded" | "void",
  reason: string,
): Promise<void> {
  await work.run(
    "UPDATE documents SET state = $1, ended_at = $2, ended_by = $3, end_reason = $4 WHERE id = $5",
    [state, work.at, work.person, reason, document.id],
  );
  await endEffects(work, [document.id]);
  await followEntries(work, setup.client.id);
}
