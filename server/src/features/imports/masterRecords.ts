import type { ContactRow, ItemRow } from "@fiscalon/core/formats/tables/masterTables";
import type { Account } from "@fiscalon/core/model/account";
import type { Work, Writing } from "../../base/work.ts";
import type { ImportRecord } from "../../db/models.ts";

/** Accounts a file names and the chart lacks, with following numbers. Returns the number before the first. */
export async function addAccounts(
  work: Writing,
  clientId: number,
  accounts: readonly Account[],
): Promise<number> {
  const last = await work.lastId("accounts");
  await work.models.accounts.bulkCreate(
    accounts.map((account, index) => ({ id: last + 1 + index, clientId, ...account, ...work.made })),
    work.options,
  );
  return last;
}

/** Contacts a file lists; those whose name is there already are left as they are. Returns the new ids. */
export async function addContacts(
  work: Writing,
  clientId: number,
  contacts: readonly Omit<ContactRow, "row">[],
): Promise<number[]> {
  const next = (await work.lastId("contacts")) + 1;
  const { createdAt, createdBy } = work.made;
  await work.insertRows(
    "contacts",
    CONTACT_COLUMNS,
    contacts.map(({ name, country, region, taxNumber }, index) => [
      next + index,
      clientId,
      `i${next + index}`,
      name,
      country,
      region,
      taxNumber,
      taxNumber === null ? null : 1,
      createdAt,
      createdBy,
    ]),
  );
  return contacts.map((_, index) => next + index);
}

export async function addItems(
  work: Writing,
  clientId: number,
  items: readonly ItemRow[],
): Promise<number[]> {
  const next = (await work.lastId("items")) + 1;
  await work.models.items.bulkCreate(
    items.map(({ row: _row, ...item }, index) => ({
      id: next + index,
      clientId,
      ref: `i${next + index}`,
      ...item,
      ...work.made,
    })),
    work.options,
  );
  return items.map((_, index) => next + index);
}

const CONTACT_COLUMNS = [
  "id",
  "client_id",
  "ref",
  "name",
  "country",
  "region",
  "tax_number",
  "registered",
  "created_at",
  "created_by",
];

/** Names that are there already, in lower case. */
export async function knownNames(
  work: Work,
  clientId: number,
  table: "contacts" | "items",
): Promise<Set<string>> {
  const rows = await work.rows<{ name: string }>(
    `SELECT lower(name) AS name FROM ${table} WHERE client_id = $1`,
    [clientId],
  );
  return new Set(rows.map(({ name }) => name));
}

/** What a file tells of contacts that the books did not know. */
export async function fillContacts(
  work: Writing,
  filled: readonly (Omit<ContactRow, "row" | "name"> & { id: number })[],
): Promise<void> {
  await work.run(
    `UPDATE contacts SET country = t.value ->> 'country', region = t.value ->> 'region',
       tax_number = t.value ->> 'taxNumber'
     FROM json_each($1) t WHERE contacts.id = t.value ->> 'id'`,
    [JSON.stringify(filled)],
  );
}

/** Takes away what an import made and nothing uses. */
export async function removeMade(work: Writing, clientId: number, { report }: ImportRecord): Promise<void> {
  const { contacts = [], items = [] } = report?.made ?? {};
  await work.run(
    `DELETE FROM contacts WHERE client_id = $1 AND id IN (SELECT value FROM json_each($2))
       AND NOT EXISTS (SELECT 1 FROM documents d WHERE d.contact_id = contacts.id)
       AND NOT EXISTS (SELECT 1 FROM payments p WHERE p.contact_id = contacts.id)`,
    [clientId, JSON.stringify(contacts)],
  );
  await work.run(
    `DELETE FROM items WHERE client_id = $1 AND id IN (SELECT value FROM json_each($2))
       AND NOT EXISTS (SELECT 1 FROM lines l JOIN documents d ON d.id = l.document_id
         WHERE d.client_id = $1 AND l.item = items.ref)`,
    [clientId, JSON.stringify(items)],
  );
}
