import type { ContactPage, ContactView } from "@fiscalon/contract/views";
import type { Work } from "../base/work.ts";
import { listOrder } from "../db/listOrder.ts";
import type { ListOrder, SortColumns } from "../db/listOrder.ts";

const CONTACT = `SELECT c.id, c.ref, c.name, c.country, c.region, c.tax_number AS taxNumber, c.registered, c.standing,
  c.sale_code AS saleCode, c.purchase_code AS purchaseCode,
  (SELECT count(*) FROM documents d WHERE d.contact_id = c.id AND d.state = 'posted') AS documents FROM contacts c`;

type ContactRow = Omit<ContactView, "registered" | "standing"> & {
  registered: number | null;
  standing: string | null;
};

export interface ContactFilter extends ListOrder {
  search: string;
  offset: number;
  limit: number;
}

/** What contacts can be ordered by. */
export const CONTACT_ORDER: SortColumns = {
  name: "c.name COLLATE NOCASE",
  country: "c.country",
  taxNumber: "c.tax_number",
};

export async function contactView(work: Work, contactId: number): Promise<ContactView | null> {
  const row = await work.row<ContactRow>(`${CONTACT} WHERE c.id = $1`, [contactId]);
  return row ? withFlag(row) : null;
}

/** A page of contacts whose name or number contains the text, by name unless asked otherwise. */
export async function contactPage(work: Work, clientId: number, filter: ContactFilter): Promise<ContactPage> {
  const where = "c.client_id = $1 AND (c.name LIKE $2 OR c.tax_number LIKE $2)";
  const bind = [clientId, `%${filter.search}%`];
  const { total } = await work.one<{ total: number }>(
    `SELECT count(*) AS total FROM contacts c WHERE ${where}`,
    bind,
  );
  const rows = await work.rows<ContactRow>(
    `${CONTACT} WHERE ${where} ORDER BY ${listOrder(CONTACT_ORDER, filter, "c.name COLLATE NOCASE, c.id")} LIMIT $3 OFFSET $4`,
    [...bind, filter.limit, filter.offset],
  );
  return { total, rows: rows.map(withFlag) };
}

/** Where contacts are: each country and region once. */
export function contactRegions(
  work: Work,
  clientId: number,
): Promise<{ country: string | null; region: string | null }[]> {
  return work.rows("SELECT DISTINCT country, region FROM contacts WHERE client_id = $1", [clientId]);
}

/** Letters and digits of a tax number, as they are compared. */
const PLAIN = "upper(replace(replace(replace(replace(c.tax_number, ' ', ''), '-', ''), '.', ''), '/', ''))";

/**
 * The contact that somebody else's list means: by the number, also where it is told without its country; by the very
 * name where it tells no number, or none is known of the contact.
 */
export async function contactMeant(
  work: Work,
  clientId: number,
  { name, number }: { name: string; number: string },
): Promise<ContactView | null> {
  const plain = number.toUpperCase().replace(/[^A-Z0-9]/g, "");
  const row = await work.row<ContactRow>(
    `${CONTACT} WHERE c.client_id = $1
       AND (CASE WHEN $2 <> '' AND c.tax_number <> '' THEN substr(${PLAIN}, -length($2)) = $2 ELSE c.name = $3 END)
     ORDER BY coalesce(c.tax_number, '') = '', c.id LIMIT 1`,
    [clientId, plain, name],
  );
  return row ? withFlag(row) : null;
}

function withFlag(row: ContactRow): ContactView {
  return {
    ...row,
    registered: row.registered === null ? null : row.registered === 1,
    standing: row.standing === null ? {} : (JSON.parse(row.standing) as ContactView["standing"]),
  };
}
