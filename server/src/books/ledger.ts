import type { LedgerAccountRow, LedgerEntryPage, LedgerEntryRow } from "@fiscalon/contract/ledger";
import type { Work } from "../base/work.ts";
import { balanceSql } from "./balanceSql.ts";

/**
 * The trial balance: every account with its balance before `from`, its movements, and its balance on `to`. With a
 * levy, only what was posted for it.
 */
export async function trialBalance(
  work: Work,
  clientId: number,
  from: string,
  to: string,
  levy = "",
): Promise<LedgerAccountRow[]> {
  // Without a levy kept sums and the index by account and date alone answer; naming the column has every row read.
  const postings = `FROM postings p WHERE p.client_id = $1 AND p.live = 1 AND p.account_id = a.id ${levy === "" ? "" : "AND p.levy = $4"}`;
  const within = "AND p.date BETWEEN $2 AND $3";
  return work.rows<LedgerAccountRow>(
    `WITH sums AS MATERIALIZED (
       SELECT a.code, a.name, a.type, a.role,
         ${levy === "" ? balanceSql("$1", "a.id", "$2", false) : `(SELECT coalesce(sum(p.amount), 0) ${postings} AND p.date < $2)`} AS opening,
         (SELECT coalesce(sum(max(p.amount, 0)), 0) ${postings} ${within}) AS debit,
         (SELECT coalesce(sum(max(-p.amount, 0)), 0) ${postings} ${within}) AS credit
       FROM accounts a WHERE a.client_id = $1)
     SELECT *, opening + debit - credit AS closing FROM sums ORDER BY code`,
    [clientId, from, to, ...(levy === "" ? [] : [levy])],
  );
}

/** One page of an account, oldest first, with the running balance. */
export async function accountEntries(
  work: Work,
  clientId: number,
  account: string,
  from: string,
  to: string,
  page: { offset: number; limit: number },
): Promise<LedgerEntryPage> {
  const head = await work.one<{ opening: number; total: number }>(
    `SELECT coalesce((SELECT ${balanceSql("$1", "a.id", "$3", false)} FROM accounts a WHERE a.client_id = $1 AND a.code = $2), 0)
         AS opening,
       (SELECT count(DISTINCT p.entry_id) FROM accounts a
         CROSS JOIN postings p ON p.client_id = $1 AND p.live = 1 AND p.account_id = a.id AND p.date BETWEEN $3 AND $4
         WHERE a.client_id = $1 AND a.code = $2) AS total`,
    [clientId, account, from, to],
  );
  const rows = await work.rows<LedgerEntryRow>(
    `WITH page AS MATERIALIZED (
       SELECT entry, date, amount, $5 + sum(amount) OVER (ORDER BY date, entry) AS balance FROM (
         SELECT p.entry_id AS entry, p.date, sum(p.amount) AS amount FROM accounts a
           CROSS JOIN postings p ON p.client_id = $1 AND p.live = 1 AND p.account_id = a.id AND p.date BETWEEN $3 AND $4
         WHERE a.client_id = $1 AND a.code = $2
         GROUP BY p.entry_id, p.date) ORDER BY date, entry LIMIT $6 OFFSET $7)
     SELECT entry, page.date, e.text || coalesce(', ' || c.name, '') AS text, e.document_id AS documentId, amount, balance
     FROM page JOIN entries e ON e.id = entry
       LEFT JOIN documents d ON d.id = e.document_id LEFT JOIN contacts c ON c.id = d.contact_id
     ORDER BY page.date, entry`,
    [clientId, account, from, to, head.opening, page.limit, page.offset],
  );
  return { ...head, rows };
}

/** Balances of all accounts at the end of a day, leaving out one entry. */
export async function balances(
  work: Work,
  clientId: number,
  day: string,
  exceptEntry: number | null,
): Promise<Map<string, number>> {
  const rows = await work.rows<{ code: string; balance: number }>(
    `SELECT a.code, ${balanceSql("$1", "a.id", "$2", true)} - coalesce((SELECT sum(p.amount) FROM postings p
         WHERE p.entry_id = $3 AND p.account_id = a.id AND p.live = 1 AND p.date <= $2), 0) AS balance
     FROM accounts a WHERE a.client_id = $1`,
    [clientId, day, exceptEntry],
  );
  return new Map(rows.map((row) => [row.code, row.balance]));
}
