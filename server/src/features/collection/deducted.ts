import type { DeductedRow, DeductedRows } from "@fiscalon/contract/collection";
import type { Work } from "../../base/work.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { listOrder } from "../../db/listOrder.ts";
import type { ListOrder, SortColumns } from "../../db/listOrder.ts";

/** What it can be ordered by. */
export const DEDUCTED_ORDER: SortColumns = {
  date: "o.date",
  number: "number COLLATE NOCASE",
  party: "party COLLATE NOCASE",
  amount: "o.amount",
};

export interface DeductedFilter extends ListOrder {
  from: string;
  to: string;
  search: string;
  offset: number;
  limit: number;
}

const FROM = `FROM postings o JOIN entries e ON e.id = o.entry_id LEFT JOIN payments p ON p.id = e.payment_id
    LEFT JOIN documents d ON d.id = e.document_id LEFT JOIN contacts c ON c.id = coalesce(p.contact_id, d.contact_id)
  WHERE o.client_id = $1 AND o.live = 1 AND o.account_id = $2 AND o.date BETWEEN $3 AND $4
    AND ($5 = '%%' OR p.number LIKE $5 OR d.number LIKE $5 OR c.name LIKE $5 OR e.text LIKE $5)`;

/** What operators and customers deducted from us: the entries on its account, with who it was. */
export async function deductedRows(
  work: Work,
  { client, plain, accountIds }: ClientSetup,
  filter: DeductedFilter,
): Promise<DeductedRows> {
  const account = plain.accounts.find(({ role }) => role === "deducted-at-source")?.code ?? null;
  if (account === null) return { account, balance: 0, deducted: 0, total: 0, rows: [] };
  const id = accountIds.get(account);
  const { balance } = await work.one<{ balance: number }>(
    `SELECT coalesce(sum(amount), 0) AS balance FROM postings
     WHERE client_id = $1 AND live = 1 AND account_id = $2 AND date <= $3`,
    [client.id, id, filter.to],
  );
  const bind = [client.id, id, filter.from, filter.to, `%${filter.search}%`];
  const sums = await work.one<{ total: number; deducted: number }>(
    `SELECT count(*) AS total, coalesce(sum(o.amount), 0) AS deducted ${FROM}`,
    bind,
  );
  const rows = await work.rows<DeductedRow>(
    `SELECT o.id, o.date, CASE WHEN p.id IS NOT NULL THEN 'payment/' || p.id WHEN d.id IS NOT NULL THEN 'document/' || d.id
         ELSE 'entry/' || e.id END AS ref,
       coalesce(p.number, d.number, '') AS number, coalesce(c.name, '') AS party, e.text, o.amount
     ${FROM} ORDER BY ${listOrder(DEDUCTED_ORDER, filter, "o.date, o.id")} LIMIT $6 OFFSET $7`,
    [...bind, filter.limit, filter.offset],
  );
  return { account, balance, ...sums, rows };
}
