import { valueAt } from "@fiscalon/core/at";
import { agreeControlAccount } from "@fiscalon/core/agree/controlAccount";
import type { ControlAccountFigures } from "@fiscalon/core/agree/controlAccount";
import type { ControlAgreementView } from "@fiscalon/contract/settlement";
import type { Work } from "../../base/work.ts";
import { accountsOfRegion, bears } from "@fiscalon/core/model/account";
import type { Account } from "@fiscalon/core/model/account";
import type { RegistrationRecord } from "../../db/models.ts";
import type { ClientSetup } from "../loadSetup.ts";
import { balanceSql } from "../balanceSql.ts";
import { periodEnding } from "../returns/periods.ts";
import { AS_ENTERED } from "../returns/queries.ts";
import { belongsTo, DECLARED, leviesOn, MOVED, TIMED, taxSideOf, timedBy } from "../returns/controlSql.ts";
import type { Span } from "./turnover/apartRows.ts";
import type { Bind } from "../../db/database.ts";

type Figures = Omit<ControlAccountFigures, "account" | "uncoded">;
const CONTROL_ROLES = ["output-tax", "input-tax", "due-to-authority"];

/**
 * The control accounts of a levy in a period: opening + tax declared + timing + settlement + payments + entries
 * without a code = closing. Debit positive, as in the ledger.
 */
export function controlAgreement(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  end: string,
): Promise<ControlAgreementView> {
  return work.remembered("control", [r, end], (work) => agreed(work, setup, r, end));
}

async function agreed(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  end: string,
): Promise<ControlAgreementView> {
  const period = periodEnding(r, end);
  const levy = work.packs.levyNames(r.levies);
  const accounts = controlAccounts(setup, r);
  const uncoded = await uncodedEntries(work, setup, r, period);
  const columns = [];
  for (const account of accounts) {
    const ofAccount = uncoded.filter((entry) => entry.account === account.code);
    const figures = await accountFigures(work, setup, r, account, period.from, period.to);
    const { uncoded: _, ...agreed } = agreeControlAccount({
      account: account.code,
      ...figures,
      uncoded: ofAccount.map((e) => ({ entry: e.entry, amount: e.amount, explained: e.reason !== null })),
    });
    columns.push({
      ...agreed,
      name: account.name,
      uncodedTotal: ofAccount.reduce((sum, entry) => sum + entry.amount, 0),
    });
  }
  return { ...period, levy, columns, uncoded, left: columns.reduce((sum, column) => sum + column.left, 0) };
}

function controlAccounts({ plain }: ClientSetup, r: RegistrationRecord): Account[] {
  return accountsOfRegion(plain.accounts, r.region).filter(
    (a) => CONTROL_ROLES.includes(a.role ?? "") && r.levies.some((one) => bears(a, one)),
  );
}

async function accountFigures(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  account: Pick<Account, "code" | "role" | "levy">,
  from: string,
  to: string,
): Promise<Figures> {
  const id = valueAt(setup.accountIds, account.code);
  const ledger = await work.one<Omit<Figures, "declared" | "timing">>(
    `SELECT ${balanceSql("$4", "$1", "$2", false)} AS opening, ${balanceSql("$4", "$1", "$3", true)} AS closing,
       coalesce(sum(CASE WHEN ${belongsTo("settlement")} THEN p.amount END), 0) AS settlement,
       coalesce(sum(CASE WHEN ${belongsTo("payments")} THEN p.amount END), 0) AS payments
     FROM postings p JOIN entries e ON e.id = p.entry_id
     WHERE p.client_id = $4 AND p.live = 1 AND p.account_id = $1 AND p.date BETWEEN $2 AND $3`,
    [id, from, to, setup.client.id],
  );
  const side = taxSideOf(account);
  if (side === null) return { ...ledger, declared: 0, timing: 0 };
  const levies = leviesOn(r, account);
  return {
    ...ledger,
    declared: await sumOf(
      work,
      `${MOVED[side]}`,
      `${AS_ENTERED.from} WHERE ${AS_ENTERED.where} AND ${DECLARED}`,
      [r.id, to, levies],
    ),
    timing: await sumOf(
      work,
      timedBy(side),
      `facts f JOIN documents d ON d.id = f.document_id WHERE ${TIMED}`,
      [r.id, from, to, levies],
    ),
  };
}

async function sumOf(work: Work, what: string, rows: string, bind: Bind): Promise<number> {
  const { sum } = await work.one<{ sum: number }>(
    `SELECT coalesce(sum(${what}), 0) AS sum FROM ${rows}`,
    bind,
  );
  return sum;
}

/** Entries of a period on the control accounts that did not come through a tax code: journals. */
export async function uncodedEntries(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  { from, to }: Span,
): Promise<ControlAgreementView["uncoded"]> {
  return work.rows(
    `SELECT e.id AS entry, e.document_id AS documentId, p.date, e.text || coalesce(': ' || nullif(p.text, ''), '') AS text,
       a.code AS account, sum(p.amount) AS amount, x.reason
     FROM accounts a
       CROSS JOIN postings p ON p.client_id = $1 AND p.live = 1 AND p.account_id = a.id AND p.date BETWEEN $2 AND $3
       JOIN entries e ON e.id = p.entry_id LEFT JOIN explanations x ON x.entry_id = e.id
     WHERE a.client_id = $1 AND a.code IN (SELECT value FROM json_each($4)) AND ${belongsTo("uncodedTotal")}
     GROUP BY e.id, a.code ORDER BY p.date, e.id`,
    [setup.client.id, from, to, JSON.stringify(controlAccounts(setup, r).map(({ code }) => code))],
  );
}
