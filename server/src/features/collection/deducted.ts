import type { DeductedRows } from "@fiscalon/contract/collection";
import type { Work } from "../../base/work.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";

/** What operators and customers deducted from us: every entry on its account, with who it was. */
export async function deductedRows(
  work: Work,
  { client, plain, accountIds }: ClientSetup,
  { from, to }: { from: string; to: string },
): Promise<DeductedRows> {
  const account = plain.accounts.find(({ role }) => role === "deducted-at-source")?.code ?? null;
  if (account === null) return { account, balance: 0, rows: [] };
  const bind = [client.id, accountIds.get(account), from, to];
  const { balance } = await work.one<{ balance: number }>(
    `SELECT coalesce(sum(amount), 0) AS balance FROM postings
     WHERE client_id = $1 AND live = 1 AND account_id = $2 AND date <= $4 AND $3 <= $4`,
    bind,
  );
  const rows = await work.rows<DeductedRows["rows"][number]>(
    `SELECT o.date, CASE WHEN p.id IS NOT NULL THEN 'payment/' || p.id WHEN d.id IS NOT NULL THEN 'document/' || d.id
         ELSE 'entry/' || e.id END AS ref,
       coalesce(p.number, d.number, '') AS number, coalesce(c.name, '') AS party, e.text, o.amount
     FROM postings o JOIN entries e ON e.id = o.entry_id LEFT JOIN payments p ON p.id = e.payment_id
       LEFT JOIN documents d ON d.id = e.document_id LEFT JOIN contacts c ON c.id = coalesce(p.contact_id, d.contact_id)
     WHERE o.client_id = $1 AND o.live = 1 AND o.account_id = $2 AND o.date BETWEEN $3 AND $4
     ORDER BY o.date, o.id LIMIT 5000`,
    bind,
  );
  return { account, balance, rows };
}
