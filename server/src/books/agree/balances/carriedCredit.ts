import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { addDays } from "@fiscalon/core/calendar/date";
import { filingPeriodOn, filingPeriods } from "@fiscalon/core/calendar/filingPeriods";
import { accountsOfRegion } from "@fiscalon/core/model/account";
import type { BoxResult } from "@fiscalon/core/returns/evaluateReturn";
import { parseAmount } from "@fiscalon/core/money/amount";
import type { Work } from "../../../base/work.ts";
import type { RegistrationRecord } from "../../../db/models.ts";
import type { ClientSetup } from "../../loadSetup.ts";
import { boxesNow, digitsOf, figuresOf } from "../../returns/evaluation.ts";
import { periodRule } from "../../returns/periodRule.ts";
import { ofParts } from "./apart.ts";
import type { ApartPart, ApartTables } from "./apart.ts";

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
  if (end === null || end < r.validFrom || !carriesCredit(work, r, end)) return null;
  const digits = digitsOf(work, r);
  const accounts = accountsOfRegion(plain.accounts, r.region).filter(({ role }) => role === "carried-credit");
  const codes = JSON.stringify(accounts.map(({ code }) => code));
  const parts: ApartPart[] = Object.entries(r.opening).map(([box, amount]) => ({
    cause: "brought",
    ref: null,
    date: r.validFrom,
    text: `Box ${box}`,
    amount: parseAmount(amount, digits),
  }));
  const settlements: number[] = [];
  let grown = 0;
  for (const { to, boxes, entry } of await returnsUpTo(work, r, end)) {
    const { carried } = figuresOf(work, r, to, boxes);
    grown += carried;
    const posted = entry === null ? 0 : await postedBy(work, entry, day);
    if (entry !== null) settlements.push(entry);
    parts.push({
      cause: posted === 0 ? "open" : "settled",
      ref: `position/${r.id}/${to}/carried`,
      date: to,
      text: `Return to ${displayDate(to)}`,
      amount: carried - posted,
    });
  }
  const tables: ApartTables = {
    tables: `${ENTRIES}, apart AS (
      ${ofParts("$4")}
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

/** Whether the form of the period that ends on a day carries credit. */
function carriesCredit({ packs }: Work, { pack }: RegistrationRecord, end: string): boolean {
  return packs
    .byId(pack)
    .forms.some(
      ({ net, from, to }) => net.carried !== undefined && from <= end && (to === null || end <= to),
    );
}

interface ReturnUpTo {
  to: string;
  boxes: readonly Pick<BoxResult, "box" | "amount">[];
  /** The entry that closed it, where one did. */
  entry: number | null;
}

/** Returns up to a day: the sealed ones as they are, and the open ones after them as they stand. */
async function returnsUpTo(work: Work, r: RegistrationRecord, end: string): Promise<ReturnUpTo[]> {
  const sealed = await work.rows<{ to: string; boxes: string; entry: number | null }>(
    `SELECT period_end AS "to", boxes, settlement_entry AS entry FROM returns
     WHERE registration_id = $1 AND boxes IS NOT NULL AND period_end <= $2 ORDER BY period_end`,
    [r.id, end],
  );
  const returns = sealed.map(({ boxes, ...one }): ReturnUpTo => ({
    ...one,
    boxes: JSON.parse(boxes) as BoxResult[],
  }));
  const last = returns.at(-1)?.to;
  const from = last === undefined ? r.validFrom : addDays(last, 1);
  for (const { to } of from > end ? [] : filingPeriods(periodRule(r), from, end))
    if (to <= end && carriesCredit(work, r, to))
      returns.push({ to, boxes: (await boxesNow(work, r, to)).boxes, entry: null });
  return returns.filter(({ to }) => carriesCredit(work, r, to));
}

async function postedBy(work: Work, entry: number, day: string): Promise<number> {
  const { amount } = await work.one<{ amount: number }>(
    `SELECT coalesce(sum(p.amount), 0) AS amount FROM postings p JOIN accounts a ON a.id = p.account_id
     WHERE p.entry_id = $1 AND p.live = 1 AND p.date <= $2 AND a.role = 'carried-credit'`,
    [entry, day],
  );
  return amount;
}
