import type { ContactRow, ItemRow } from "@fiscalon/core/formats/tables/masterTables";
import type { Account } from "@fiscalon/core/ledger/account";
import { made } from "../../actor.ts";
import type { Actor } from "../../actor.ts";
import type { Database, Tx } from "../../db/database.ts";
import type { ImportRecord } from "../../db/models.ts";

/** Accounts a file names and the chart lacks. */
export async function addAccounts(
  db: Database,
  tx: Tx,
  actor: Actor,
  clientId: number,
  accounts: readonly Account[],
): Promise<void> {
  if (accounts.length === 0) return;
  await db.models.accounts.bulkCreate(
    accounts.map((account) => ({ clientId, ...account, ...made(actor) })),
    { transaction: tx },
  );
}

/** Contacts by name; those whose name is there already are left as they are. Returns the new ids. */
export async function addContacts(
  db: Database,
  tx: Tx,
  actor: Actor,
  clientId: number,
  contacts: readonly ContactRow[],
): Promise<number[]> {
  const next = (await db.lastId("contacts", tx)) + 1;
  const { createdAt, createdBy } = made(actor);
  await db.insertRows(
    "contacts",
    [
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
    ],
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
    tx,
  );
  return contacts.map((_, index) => next + index);
}

export async function addItems(
  db: Database,
  tx: Tx,
  actor: Actor,
  clientId: number,
  items: readonly ItemRow[],
): Promise<number[]> {
  const last = await db.row<{ id: number | null }>("SELECT max(id) AS id FROM items", [], tx);
  const next = (last?.id ?? 0) + 1;
  await db.models.items.bulkCreate(
    items.map(({ row: _row, ...item }, index) => ({
      id: next + index,
      clientId,
      ref: `i${next + index}`,
      ...item,
      ...made(actor),
    })),
    { transaction: tx },
  );
  return items.map((_, index) => next + index);
}

/** Names that are there already, in lower case. */
export async function knownNames(
  db: Database,
  clientId: number,
  table: "contacts" | "items",
  tx?: Tx,
): Promise<Set<string>> {
  const rows = await db.rows<{ name: string }>(
    `SELECT lower(name) AS name FROM ${table} WHERE client_id = $1`,
    [clientId],
    tx,
  );
  return new Set(rows.map(({ name }) => name));
}

/** Takes away what an import made and nothing uses. */
export async function removeMade(
  db: Database,
  tx: Tx,
  clientId: number,
  { report }: ImportRecord,
): Promise<void> {
  const { contacts = [], items = [] } = report?.made ?? {};
  await db.run(
    `DELETE FROM contacts WHERE client_id = $1 AND id IN (SELECT value FROM json_each($2))
       AND NOT EXISTS (SELECT 1 FROM documents d WHERE d.contact_id = contacts.id)
       AND NOT EXISTS (SELECT 1 FROM payments p WHERE p.contact_id = contacts.id)`,
    [clientId, JSON.stringify(contacts)],
    tx,
  );
  await db.run(
    `DELETE FROM items WHERE client_id = $1 AND id IN (SELECT value FROM json_each($2))
       AND NOT EXISTS (SELECT 1 FROM lines l JOIN documents d ON d.id = l.document_id
         WHERE d.client_id = $1 AND l.item = items.ref)`,
    [clientId, JSON.stringify(items)],
    tx,
  );
}
