import { FiscalError } from "@fiscalon/core/errors";
import { formatAmount } from "@fiscalon/core/money/amount";
import type { BookFile } from "@fiscalon/contract/book";
import type { BookCapitalItem } from "@fiscalon/contract/capitalItems";
import { inField } from "../../base/errors.ts";
import type { Work, Writing } from "../../base/work.ts";
import { itemsOf } from "../../books/capital/items.ts";
import { writeItem } from "../../books/capital/keepItem.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";

/** The capital items of every registration. */
export async function capitalOfBook(
  work: Work,
  { registrations, plain }: ClientSetup,
): Promise<Pick<BookFile, "capitalItems">> {
  const capitalItems: BookCapitalItem[] = [];
  const text = (amount: number) => formatAmount(amount, plain.digits);
  for (const r of registrations) {
    for (const { net, taxes, ...item } of await itemsOf(work, r)) {
      capitalItems.push({
        registration: r.ref,
        ...item,
        net: text(net),
        taxes: Object.fromEntries(Object.entries(taxes).map(([levy, tax]) => [levy, text(tax)])),
      });
    }
  }
  return capitalItems.length === 0 ? {} : { capitalItems };
}

/** Puts them on the lists of the book's registrations: before anything is sealed. */
export async function addCapitalItems(
  work: Writing,
  { registrations }: ClientSetup,
  { capitalItems = [] }: BookFile,
): Promise<void> {
  for (const [index, { registration, no, ...item }] of capitalItems.entries()) {
    const path = `capitalItems[${index}]`;
    const r = registrations.find(({ ref }) => ref === registration);
    if (!r) {
      throw new FiscalError(
        "book/unknown-id",
        `The file has no registration "${registration}".`,
        `${path}.registration`,
      );
    }
    await inField(path, () => writeItem(work, r, no, item));
  }
}
