import type { Database } from "../../db/database.ts";

/** What must come to the same in both: what boxes are summed from, ledgers, open items, and how many rows there are. */
const FIGURES: Readonly<Record<string, string>> = {
  boxes: `SELECT registration_id, period_end, bucket, count(*), sum(net), sum(tax) FROM facts
    WHERE client_id = $1 AND live = 1 GROUP BY 1, 2, 3 ORDER BY 1, 2, 3`,
  balances: `SELECT account_id, count(*), sum(amount) FROM postings WHERE client_id = $1 AND live = 1 GROUP BY 1 ORDER BY 1`,
  documents: `SELECT kind, state, count(*), sum(net), sum(tax), sum(gross) FROM documents WHERE client_id = $1
    GROUP BY 1, 2 ORDER BY 1, 2`,
  payments: `SELECT state, count(*), sum(amount) FROM payments WHERE client_id = $1 GROUP BY 1 ORDER BY 1`,
  returns: `SELECT id, state, net, hash, boxes FROM returns WHERE client_id = $1 ORDER BY id`,
  adjustments: `SELECT count(*), sum(amount) FROM adjustments WHERE client_id = $1`,
  bank: `SELECT count(*), sum(amount) FROM bank_lines WHERE client_id = $1`,
  pieces: `SELECT count(*) FROM pieces WHERE client_id = $1`,
  setup: `SELECT (SELECT count(*) FROM contacts WHERE client_id = $1), (SELECT count(*) FROM accounts WHERE client_id = $1),
    (SELECT count(*) FROM codes WHERE client_id = $1), (SELECT count(*) FROM rules WHERE client_id = $1),
    (SELECT count(*) FROM registrations WHERE client_id = $1), (SELECT count(*) FROM attachments WHERE client_id = $1)`,
};

/** The figures of one client, in a database of whichever shape. */
export async function figuresOf(db: Database, client: number): Promise<Record<string, object[]>> {
  const figures: Record<string, object[]> = {};
  for (const [name, sql] of Object.entries(FIGURES)) figures[name] = await db.rows(sql, [client]);
  return figures;
}
