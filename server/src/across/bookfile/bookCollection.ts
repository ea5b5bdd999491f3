import { valueAt } from "@fiscalon/core/at";
import { FiscalError } from "@fiscalon/core/errors";
import { formatAmount } from "@fiscalon/core/money/amount";
import type { BookFile } from "@fiscalon/contract/book";
import type { BookCollectionOpening } from "@fiscalon/contract/collection";
import { inField } from "../../base/errors.ts";
import type { Work, Writing } from "../../base/work.ts";
import { writeOpening } from "../../books/collection/openings.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";

/** What customers paid in a fiscal year before the books begin. */
export async function collectionOfBook(
  work: Work,
  { client, plain }: ClientSetup,
  contacts: ReadonlyMap<number, string>,
): Promise<Pick<BookFile, "collectionOpenings">> {
  const rows = await work.rows<{ contact: number; year: string; amount: number; evidence: string }>(
    `SELECT contact_id AS contact, year, amount, evidence FROM collection_openings WHERE client_id = $1
     ORDER BY year, contact_id`,
    [client.id],
  );
  if (rows.length === 0) return {};
  const collectionOpenings = rows.map(({ contact, amount, ...row }): BookCollectionOpening => ({
    contact: valueAt(contacts, contact),
    ...row,
    amount: formatAmount(amount, plain.digits),
  }));
  return { collectionOpenings };
}

/** Writes them for the contacts of the book. */
export async function addCollection(
  work: Writing,
  setup: ClientSetup,
  { collectionOpenings = [] }: BookFile,
  contacts: ReadonlyMap<string, number>,
): Promise<void> {
  for (const [index, { contact: ref, ...opening }] of collectionOpenings.entries()) {
    const path = `collectionOpenings[${index}]`;
    const contact = contacts.get(ref);
    if (contact === undefined)
      throw new FiscalError("book/unknown-id", `The file has no contact "${ref}".`, `${path}.contact`);
    await inField(path, () => writeOpening(work, setup, { ...opening, contact }));
  }
}
