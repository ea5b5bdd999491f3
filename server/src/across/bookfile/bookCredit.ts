import type { BookFile } from "@fiscalon/contract/book";
import type { Writing } from "../../base/work.ts";
import { inField } from "../../base/errors.ts";
import { keepRelease } from "../../books/credit/releaseCredit.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { releaseFacts } from "../../books/payments/releaseFacts.ts";
import type { PlacedRows } from "./pointers.ts";

/** Releases held credit as the book file says: what is reported in its own period, or late in one that is named. */
export async function addCreditReleases(
  work: Writing,
  setup: ClientSetup,
  { documents = [] }: BookFile,
  placed: PlacedRows,
  isNow: (reportedIn: string | undefined) => boolean,
): Promise<void> {
  const ids: number[] = [];
  for (const [index, { creditReleased: release }] of documents.entries()) {
    const id = placed.documents[index];
    if (release === undefined || id === undefined || !isNow(release.reportedIn)) continue;
    if (await work.row("SELECT 1 FROM credit_releases WHERE document_id = $1", [id])) continue;
    await inField(`documents[${index}].creditReleased`, () => keepRelease(work, setup, id, release));
    ids.push(id);
  }
  if (ids.length > 0) await releaseFacts(work, setup, ids);
}
