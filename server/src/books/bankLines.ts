import type { Writing } from "../base/work.ts";

/**
 * Lines of the bank whose entry does not count any more: they go over to the entry that took its place, and are open
 * again where none did.
 */
export async function followEntries(work: Writing, clientId: number): Promise<void> {
  await work.run(
    `UPDATE bank_lines SET entry_id = (SELECT max(n.id) FROM entries o JOIN entries n ON n.live = 1
       AND ((o.document_id IS NOT NULL AND n.document_id = o.document_id) OR
            (o.payment_id IS NOT NULL AND n.payment_id = o.payment_id))
       WHERE o.id = bank_lines.entry_id)
     WHERE client_id = $1 AND entry_id IN (SELECT b.entry_id FROM bank_lines b JOIN entries e ON e.id = b.entry_id
       WHERE b.client_id = $1 AND e.live = 0)`,
    [clientId],
  );
  await work.run(
    "UPDATE bank_lines SET state = 'open' WHERE client_id = $1 AND state = 'matched' AND entry_id IS NULL",
    [clientId],
  );
}
