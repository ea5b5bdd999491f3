import { addDays, addMonths } from "@fiscalon/core/calendar/date";
import { FiscalError } from "@fiscalon/core/errors";
import type { BankAccountView, StatementReport } from "@fiscalon/contract/bank";
import type { Work } from "../../base/work.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import type { BankFeed } from "../../outside/bankFeed.ts";
import { takeStatements } from "./statements.ts";

/** The accounts money can be on, with their connection to a bank. */
export async function bankAccounts(work: Work, clientId: number): Promise<BankAccountView[]> {
  return work.rows<BankAccountView>(
    `SELECT a.code AS account, a.name, b.number, b.consent_until AS consentUntil, b.fetched_to AS fetchedTo,
       (SELECT count(*) FROM bank_lines l WHERE l.client_id = a.client_id AND l.account = a.code AND l.state = 'open') AS open,
       (SELECT count(*) FROM bank_lines l WHERE l.client_id = a.client_id AND l.account = a.code AND l.state = 'matched') AS matched,
       coalesce((SELECT sum(p.amount) FROM postings p
         WHERE p.client_id = a.client_id AND p.live = 1 AND p.account_id = a.id), 0) AS ledger,
       coalesce((SELECT sum(l.amount) FROM bank_lines l WHERE l.client_id = a.client_id AND l.account = a.code), 0) AS bank
     FROM accounts a LEFT JOIN bank_accounts b ON b.client_id = a.client_id AND b.account = a.code
     WHERE a.client_id = $1 AND (a.role = 'bank' OR b.id IS NOT NULL) ORDER BY a.code`,
    [clientId],
  );
}

/** Connects an account of the chart with one at the bank, with the holder's consent. */
export async function connectAccount(
  work: Work,
  clientId: number,
  feed: BankFeed,
  { account, number }: { account: string; number: string },
): Promise<void> {
  const setup = await loadSetup(work, clientId);
  if (!setup.accountIds.has(account))
    throw new FiscalError("ledger/unknown-account", `There is no account ${account}.`, "account");
  const { consent, until } = await feed.consent(number);
  const { createdAt, createdBy } = work.made;
  await work.write(async (work) => {
    await work.run(
      `INSERT INTO bank_accounts (client_id, account, number, consent, consent_until, created_at, created_by)
       VALUES ($1, $2, $3, $4, $5, $6, $7)
       ON CONFLICT (client_id, account) DO UPDATE SET number = excluded.number, consent = excluded.consent,
         consent_until = excluded.consent_until`,
      [clientId, account, number, consent, until, createdAt, createdBy],
    );
    await work.record({
      action: "connect",
      entity: "bank-account",
      id: null,
      after: { account, number, until },
    });
  });
}

/** Fetches what is new since the last time, with some days before in case the bank booked late. */
export async function fetchAccount(
  work: Work,
  clientId: number,
  feed: BankFeed,
  account: string,
): Promise<StatementReport> {
  const row = await work.row<{ number: string; consent: string; fetched: string | null }>(
    "SELECT number, consent, fetched_to AS fetched FROM bank_accounts WHERE client_id = $1 AND account = $2",
    [clientId, account],
  );
  if (!row) {
    throw new FiscalError(
      "bank/not-connected",
      "This account is not connected with a bank. Connect it first.",
    );
  }
  const to = work.today;
  const from = row.fetched === null ? addMonths(to, -24) : addDays(row.fetched, -10);
  const statements = await feed.statements(row.number, row.consent, from, to);
  const report = await takeStatements(work, clientId, account, statements, "feed");
  await work.write((work) =>
    work.run("UPDATE bank_accounts SET fetched_to = $3 WHERE client_id = $1 AND account = $2", [
      clientId,
      account,
      to,
    ]),
  );
  return report;
}
