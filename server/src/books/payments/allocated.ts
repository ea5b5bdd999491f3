import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { FiscalError } from "@fiscalon/core/errors";
import { displayAmount } from "@fiscalon/core/money/amount";
import type { Writing } from "../../base/work.ts";
import type { ClientSetup } from "../loadSetup.ts";
import type { StoredDocument } from "../documents/loadDocuments.ts";
import { releaseFacts } from "./releaseFacts.ts";

/** A document that payments settle stays until they let go of it. */
export async function refusePaid(work: Writing, documentIds: readonly number[]): Promise<void> {
  const row = await work.row<{ document: string; payment: string; date: string }>(
    `SELECT d.number AS document, p.number AS payment, p.date FROM allocations a JOIN payments p ON p.id = a.payment_id
       JOIN documents d ON d.id = a.document_id
     WHERE a.live = 1 AND a.document_id IN (SELECT value FROM json_each($1)) ORDER BY p.date, p.id LIMIT 1`,
    [JSON.stringify(documentIds)],
  );
  if (!row) return;
  throw new FiscalError(
    "document/paid",
    `${row.document} is settled by ${row.payment} of ${displayDate(row.date)}. Take it off that payment first.`,
  );
}

/** What settled a document settles its corrected version. */
export async function moveAllocations(
  work: Writing,
  setup: ClientSetup,
  old: Pick<StoredDocument, "id" | "input" | "contact" | "gross" | "foreignGross">,
  newId: number,
): Promise<void> {
  const settled = await work.row<{ settled: number | null }>(
    "SELECT sum(amount + difference) AS settled FROM allocations WHERE document_id = $1 AND live = 1",
    [old.id],
  );
  if (settled?.settled === null || settled === undefined) return;
  const now = await work.row<{
    kind: string;
    contact: number | null;
    currency: string;
    gross: number;
    toPay: number;
  }>(
    `SELECT kind, contact_id AS contact, currency, gross, coalesce(foreign_gross, gross) AS toPay
     FROM documents WHERE id = $1`,
    [newId],
  );
  const otherMoney =
    now?.currency !== old.input.currency || (old.foreignGross !== null && now?.gross !== old.gross);
  if (now && otherMoney) {
    throw new FiscalError(
      "document/paid",
      `${old.input.number} is settled by payments in its currency at its rate. Take it off the payments first.`,
      "currency",
    );
  }
  if (now?.kind !== old.input.kind || now.contact !== old.contact || now.toPay < settled.settled) {
    throw new FiscalError(
      "document/paid",
      `${displayAmount(settled.settled, setup.plain.digits)} of ${old.input.number} is settled by payments. Kind and party must stay, and it cannot become less than that; take it off the payments first.`,
    );
  }
  await work.run("UPDATE allocations SET document_id = $2 WHERE document_id = $1 AND live = 1", [
    old.id,
    newId,
  ]);
  await releaseFacts(work, setup, [newId]);
}
