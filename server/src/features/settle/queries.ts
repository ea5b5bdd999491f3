import { movesOwed } from "@fiscalon/core/model/taxPaymentKinds";
import { sumOfColumn } from "../../db/kindSql.ts";
import type { SettlementView } from "@fiscalon/contract/settlement";
import { at, found, valueAt } from "@fiscalon/core/at";
import { groupBy } from "@fiscalon/core/groupBy";
import type { Posting } from "@fiscalon/core/model/posting";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { balances } from "../../books/ledger.ts";
import { periodEnding } from "../../books/returns/periods.ts";
import { SEPARATELY_OWED, separateTotals } from "../../books/returns/queries.ts";
import { lateDocuments } from "../../books/returns/late.ts";
import { returnRecord } from "../../books/returns/records.ts";
import { boxesNow, figuresOf } from "../../books/returns/evaluation.ts";
import { closingEntry, SEPARATELY } from "../../books/settlement/closingEntry.ts";
import { instalmentsView } from "../../books/settlement/instalments.ts";
import { lateView } from "../../books/settlement/lateCharges.ts";
import { dueAccounts } from "../../books/settlement/taxPayments.ts";

/** What the Settle station shows of a period: the closing entry, payments, continuity, and late items. */
export async function settlementView(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  end: string,
): Promise<SettlementView> {
  const period = periodEnding(r, end);
  const record = await returnRecord(work, r.id, end);
  const now = await boxesNow(work, r, end);
  const net = record?.net ?? figuresOf(work, r, end, now.boxes).net;
  const postings = await closingEntry(work, setup, r, end, net);
  const before = await balances(work, setup.client.id, end, record?.settlementEntry ?? null);
  const payments = await paymentsOf(work, r.id, end);
  const moved = payments.reduce((sum, one) => sum + movesOwed(one), 0);
  const apart = await separateTotals(work, r.id, end);
  const disclosed = apart.reduce((sum, { output, input }) => sum + output - input, 0);
  return {
    ...period,
    state: record?.state ?? "open",
    net,
    entry: {
      date: end,
      postings: linesOf(postings, before).map((line) => ({
        ...line,
        name: found(setup.plain.accounts, ({ code }) => code === line.account, `account ${line.account}`)
          .name,
        ref: trailOf(setup, r, end, line, record?.settlementEntry ?? null),
      })),
    },
    posted: record?.settlementEntry ?? null,
    payments,
    outstanding: net + disclosed + moved,
    instalments: await instalmentsView(work, r, end),
    lateCharges: {
      proposed: await lateView(work, r, end, {
        filed: record?.state === "filed" || record?.state === "settled",
        net,
        boxes: now.boxes,
        payments,
      }),
      recorded: payments
        .filter(({ kind }) => kind === "interest" || kind === "penalty")
        .reduce((sum, { amount }) => sum + amount, 0),
    },
    continuity: await continuity(work, setup, r),
    late: await lateDocuments(work, r.id, end),
  };
}

interface ClosingLine {
  account: string;
  text: string;
  amount: number;
  before: number;
}

/**
 * The closing entry as it is read: levies that share an account are one line, and where an account has several, each
 * begins where the one before left it.
 */
function linesOf(postings: readonly Posting[], balances: ReadonlyMap<string, number>): ClosingLine[] {
  const left = new Map(balances);
  return [...groupBy(postings, ({ account, text }) => `${account} ${text}`).values()].map((same) => {
    const { account, text } = at(same, 0);
    const before = left.get(account) ?? 0;
    const amount = same.reduce((sum, one) => sum + one.amount, 0);
    left.set(account, before + amount);
    return { account, text, amount, before };
  });
}

/** Where an amount of the closing entry comes from: the entry once it is posted, until then what it will clear. */
function trailOf(
  setup: ClientSetup,
  r: RegistrationRecord,
  end: string,
  { account, text }: ClosingLine,
  entry: number | null,
): string {
  if (entry !== null) return `entry/${entry}`;
  if (text.endsWith(SEPARATELY)) return `closing/${r.id}/${end}/${account}/separately`;
  const role = setup.plain.accounts.find((one) => one.code === account)?.role;
  if (role === "due-to-authority") return `position/${r.id}/${end}/net`;
  const cleared = role === "output-tax" || role === "input-tax";
  return cleared ? `agreement/${r.id}/${end}/${account}/declared` : `closing/${r.id}/${end}/${account}`;
}

async function paymentsOf(
  work: Work,
  registrationId: number,
  end: string,
): Promise<SettlementView["payments"]> {
  return work.rows(
    `SELECT id, date, kind, amount, reference, entry_id AS entry FROM tax_payments
     WHERE registration_id = $1 AND period_end = $2 ORDER BY date, id`,
    [registrationId, end],
  );
}

/**
 * Opening + declared + disclosed apart + charges − paid + refunded = closing, period by period, beside the ledger. What is declared
 * counts from settlement on, as the ledger does.
 */
async function continuity(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
): Promise<SettlementView["continuity"]> {
  const rows = await work.rows<{
    period: string;
    state: string;
    declared: number;
    disclosed: number;
    charges: number;
    paid: number;
    refunded: number;
    ledger: number;
  }>(
    `SELECT t.period_end AS period, t.state,
       CASE WHEN t.state = 'settled' THEN t.net ELSE 0 END AS declared,
       CASE WHEN t.state = 'settled' THEN ${SEPARATELY_OWED} ELSE 0 END AS disclosed,
       ${sumOfColumn("p", "charges")} AS charges, ${sumOfColumn("p", "paid")} AS paid,
       ${sumOfColumn("p", "refunded")} AS refunded,
       (SELECT coalesce(-sum(o.amount), 0) FROM postings o JOIN entries e ON e.id = o.entry_id
         WHERE o.account_id IN (SELECT value FROM json_each($2)) AND o.live = 1 AND e.registration_id = $1 AND e.period_end <= t.period_end) AS ledger
     FROM (SELECT registration_id, period_end, state, net FROM returns
         WHERE registration_id = $1 AND state IN ('sealed', 'filed', 'settled')
       UNION SELECT x.registration_id, x.period_end, coalesce(y.state, 'open'), y.net FROM tax_payments x
         LEFT JOIN returns y ON y.registration_id = x.registration_id AND y.period_end = x.period_end
         WHERE x.registration_id = $1) t
       LEFT JOIN tax_payments p ON p.registration_id = t.registration_id AND p.period_end = t.period_end
     GROUP BY t.period_end ORDER BY t.period_end`,
    [r.id, JSON.stringify(dueAccounts(setup, r).map((code) => valueAt(setup.accountIds, code)))],
  );
  let balance = 0;
  return rows.map(({ period, state, declared, disclosed, charges, paid, refunded, ledger }) => {
    const opening = balance;
    balance = opening + declared + disclosed + charges - paid + refunded;
    return { period, state, opening, declared, disclosed, charges, paid, refunded, closing: balance, ledger };
  });
}
