import { accountInRole, accountsOfRegion } from "@fiscalon/core/model/account";
import { ledgerDateOf } from "@fiscalon/core/facts/documentEffect";
import { groupBy } from "@fiscalon/core/groupBy";
import { valueAt } from "@fiscalon/core/at";
import type { Writing } from "../../base/work.ts";
import type { ClientSetup } from "../loadSetup.ts";

interface ReleasedTax {
  document: number;
  number: string;
  on: string;
  line: number;
  levy: string;
  amount: number;
  region: string | null;
}

/**
 * The entries that move released credit from the account of what is not deducted yet to input tax: one a document, on the
 * day of its release or in the first period that is open. Those that are there and right stay.
 */
export async function bringReleaseEntries(
  work: Writing,
  setup: ClientSetup,
  ids: readonly [string],
): Promise<void> {
  await work.run(
    `UPDATE postings SET live = 0 WHERE entry_id IN (SELECT e.id FROM entries e WHERE e.kind = 'credit-release' AND e.live = 1
       AND e.document_id IN (SELECT value FROM json_each($1))
       AND NOT EXISTS (SELECT 1 FROM credit_releases c WHERE c.document_id = e.document_id))`,
    [...ids],
  );
  await work.run(
    `UPDATE entries SET live = 0 WHERE kind = 'credit-release' AND live = 1
       AND document_id IN (SELECT value FROM json_each($1))
       AND NOT EXISTS (SELECT 1 FROM credit_releases c WHERE c.document_id = entries.document_id)`,
    [...ids],
  );
  const rows = await work.rows<ReleasedTax>(
    `SELECT f.document_id AS document, d.number, c.released_on AS "on", f.line, f.levy, f.recoverable AS amount, r.region
     FROM facts f LEFT JOIN registrations r ON r.id = f.registration_id JOIN credit_releases c ON c.document_id = f.document_id JOIN documents d ON d.id = f.document_id
     WHERE f.document_id IN (SELECT value FROM json_each($1)) AND f.live = 1 AND f.awaits IS NOT NULL
       AND f.recoverable <> 0 AND d.opening = 0
       AND NOT EXISTS (SELECT 1 FROM entries e WHERE e.document_id = f.document_id AND e.kind = 'credit-release' AND e.live = 1)
     ORDER BY f.document_id, f.line`,
    [...ids],
  );
  let id = await work.lastId("entries");
  const entries: unknown[][] = [];
  const postings: unknown[][] = [];
  for (const [document, taxes] of groupBy(rows, (row) => row.document)) {
    id += 1;
    const [{ number, on, region } = { number: "", on: work.today, region: null }] = taxes;
    const date = ledgerDateOf(on, setup.effect, region);
    const accounts = accountsOfRegion(setup.plain.accounts, region);
    const text = `Credit of ${number} released`;
    entries.push([id, setup.client.id, "credit-release", date, document, text, work.at, work.person]);
    for (const { line, levy, amount } of taxes)
      for (const [role, value] of [
        ["input-tax", amount],
        ["held-credit", -amount],
      ] as const) {
        const account = valueAt(setup.accountIds, accountInRole(accounts, role, levy));
        postings.push([id, setup.client.id, account, date, value, line, levy, text]);
      }
  }
  if (entries.length === 0) return;
  await work.insertRows(
    "entries",
    ["id", "client_id", "kind", "date", "document_id", "text", "created_at", "created_by"],
    entries,
  );
  await work.insertRows(
    "postings",
    ["entry_id", "client_id", "account_id", "date", "amount", "line", "levy", "text"],
    postings,
  );
}
