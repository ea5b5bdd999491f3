import { addDays } from "@fiscalon/core/calendar/date";
import { filingPeriodOn, filingPeriods } from "@fiscalon/core/calendar/filingPeriods";
import { accountsOfRegion } from "@fiscalon/core/model/account";
import { parseAmount } from "@fiscalon/core/money/amount";
import type { Work } from "../../../base/work.ts";
import type { RegistrationRecord } from "../../../db/models.ts";
import type { ClientSetup } from "../../loadSetup.ts";
import { boxesNow, digitsOf, figuresOf, formOf } from "../../returns/evaluation.ts";
import { periodRule } from "../../returns/periodRule.ts";
import { returnRecord } from "../../returns/records.ts";
import type { ApartTables } from "./apart.ts";

/** Why the account of credit carried forward and the returns differ. */
export const CARRIED_CAUSES: Readonly<Record<string, string>> = {
  brought: "Brought in with the registration",
  open: "On returns that are not settled yet",
  settled: "Settled at another amount",
  entries: "Other entries: journals, opening balances",
};

/** What the ledger credits and what the returns carry, on the last day of a filing period. */
export interface CarriedFigures {
  left: number;
  right: number;
  tables: ApartTables;
}

/** One return's part of it. */
interface CarriedPart {
  cause: "brought" | "open" | "settled";
  ref: string | null;
  date: string;
  text: string;
  amount: number;
}

/**
 * The account of credit that stays with the authority on a day, against what the returns up to then carry forward; none
 * where the form carries nothing.
 */
export async function carriedFigures(
  work: Work,
  { client, plain }: ClientSetup,
  r: RegistrationRecord,
  day: string,
): Promise<CarriedFigures | null> {
  const on = filingPeriodOn(periodRule(r), day);
  const end = on?.to === day ? day : on ? addDays(on.from, -1) : r.validTo;
  if (end === null || end < r.validFrom || formOf(work, r, end).net.carried === undefined) return null;
  const digits = digitsOf(work, r);
  const accounts = accountsOfRegion(plain.accounts, r.region).filter(({ role }) => role === "carried-credit");
  const codes = JSON.stringify(accounts.map(({ code }) => code));
  const parts: CarriedPart[] = Object.entries(r.opening).map(([box, amount]) => ({
    cause: "brought",
    ref: null,
    date: r.validFrom,
    text: `Box ${box}`,
    amount: parseAmount(amount, digits),
  }));
  const settlements: number[] = [];
  let grown = 0;
  for (const { to } of filingPeriods(periodRule(r), r.validFrom, end)) {
    if (to > end) continue;
    const record = await returnRecord(work, r.id, to);
    const boxes = record?.boxes ?? (await boxesNow(work, r, to)).boxes;
    const { carried } = figuresOf(work, r, to, boxes);
    grown += carried;
    const entry = record?.settlementEntry ?? null;
    if (entry !== null) settlements.push(entry);
    const posted = entry === null ? 0 : await postedBy(work, entry);
    parts.push({
      cause: entry === null ? "open" : "settled",
      ref: null,
      date: to,
      text: `Return to ${to}`,
      amount: carried - posted,
    });
  }
  const tables: ApartTables = {
    tables: `${ENTRIES}, apart AS (
      SELECT value ->> 'cause' AS cause, value ->> 'ref' AS ref, value ->> 'date' AS date, '' AS number, '' AS party,
        value ->> 'text' AS text, value ->> 'amount' AS amount FROM json_each($4)
      UNION ALL
      SELECT 'entries', 'entry/' || entry, date, '', '', text, -amount FROM led
      WHERE entry NOT IN (SELECT value FROM json_each($5)))`,
    bind: [client.id, day, codes, JSON.stringify(parts), JSON.stringify(settlements)],
  };
  const brought = parts.reduce((sum, { cause, amount }) => sum + (cause === "brought" ? amount : 0), 0);
  const { left } = await work.one<{ left: number }>(
    `WITH ${ENTRIES} SELECT coalesce(sum(amount), 0) AS left FROM led`,
    [client.id, day, codes],
  );
  return { left, right: brought + grown, tables };
}

/** What stands on the accounts of $3 on day $2, by entry. */
const ENTRIES = `led AS MATERIALIZED (
    SELECT e.id AS entry, e.date, e.text, sum(p.amount) AS amount
    FROM accounts a CROSS JOIN postings p ON p.client_id = $1 AND p.live = 1 AND p.account_id = a.id AND p.date <= $2
      JOIN entries e ON e.id = p.entry_id
    WHERE a.client_id = $1 AND a.code IN (SELECT value FROM json_each($3)) GROUP BY e.id)`;

async function postedBy(work: Work, entry: number): Promise<number> {
  const { amount } = await work.one<{ amount: number }>(
    `SELECT coalesce(sum(p.amount), 0) AS amount FROM postings p JOIN accounts a ON a.id = p.account_id
     WHERE p.entry_id = $1 AND p.live = 1 AND a.role = 'carried-credit'`,
    [entry],
  );
  return amount;
}
