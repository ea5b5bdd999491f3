import { addDays } from "@fiscalon/core/calendar/date";
import { FiscalError } from "@fiscalon/core/errors";
import type { TrailPart, TrailStep } from "@fiscalon/contract/trail";
import type { Bind } from "../../db/database.ts";
import type { Work } from "../../base/work.ts";
import { controlAgreement } from "../../features/agree/controlAgreement.ts";
import { registrationIn } from "../../books/loadSetup.ts";
import { accountEntries } from "../../books/ledger.ts";
import { ON_OUTPUT_ACCOUNT } from "../../books/returns/queries.ts";
import type { TrailScope } from "./trailScope.ts";

const LISTED = 200;

/** An account between two days: opening balance and every entry. */
export async function accountStep(
  { work, setup }: TrailScope,
  parts: string[],
  ref: string,
): Promise<TrailStep> {
  const [code = "", from = "", to = ""] = parts;
  const account = setup.plain.accounts.find((one) => one.code === code);
  if (!account) throw new FiscalError("trail/not-found", `There is no account ${code}.`, "ref");
  const page = await accountEntries(work, setup.client.id, code, from, to, { offset: 0, limit: LISTED });
  const rest = page.total - page.rows.length;
  return {
    ref,
    title: `${code} ${account.name}`,
    amount: rest > 0 ? null : (page.rows.at(-1)?.balance ?? page.opening),
    digits: setup.plain.digits,
    words: [`Balance on ${to}, debit positive: what it was before ${from}, and every entry since.`],
    parts: [
      { ref: null, label: `Balance before ${from}`, detail: "", amount: page.opening },
      ...page.rows.map((row): TrailPart => ({
        ref: row.documentId === null ? `entry/${row.entry}` : `document/${row.documentId}`,
        label: row.text,
        detail: row.date,
        amount: row.amount,
      })),
    ],
    arithmetic: [],
    total: page.total,
    open: { label: "Open account", path: `books/ledger/${code}` },
  };
}

/** One journal entry with its postings. */
export async function entryStep(
  { work, setup }: TrailScope,
  [id = ""]: string[],
  ref: string,
): Promise<TrailStep> {
  const entry = await work.row<{
    text: string;
    date: string;
    by: string;
    at: string;
    kind: string;
    document: number | null;
    payment: number | null;
  }>(
    `SELECT e.text, e.date, p.name AS "by", e.created_at AS at, e.kind, e.document_id AS document, e.payment_id AS payment
     FROM entries e JOIN people p ON p.id = e.created_by WHERE e.id = $1 AND e.client_id = $2`,
    [Number(id), setup.client.id],
  );
  if (!entry) throw new FiscalError("trail/not-found", "This entry does not exist.", "ref");
  return {
    ref,
    title: entry.text,
    amount: null,
    digits: setup.plain.digits,
    words: [`Dated ${entry.date}. Made by ${entry.by}, ${entry.at.slice(0, 10)}.`],
    parts: await entryParts(work, "e.id = $1", [Number(id)]),
    arithmetic: [],
    ...(entry.document === null
      ? entry.payment === null
        ? {}
        : { open: { label: "Open payment", path: `books/payments/${entry.payment}` } }
      : { open: { label: "Open document", path: `books/documents/${entry.document}` } }),
  };
}

/** The postings of entries, summed by account. */
export async function entryParts(work: Work, condition: string, bind: Bind): Promise<TrailPart[]> {
  const rows = await work.rows<{ code: string; name: string; amount: number }>(
    `SELECT a.code, a.name, sum(p.amount) AS amount FROM entries e JOIN postings p ON p.entry_id = e.id
       JOIN accounts a ON a.id = p.account_id WHERE ${condition} GROUP BY a.id ORDER BY min(p.id)`,
    bind,
  );
  return rows.map((row) => ({
    ref: null,
    label: `${row.code} ${row.name}`,
    detail: row.amount < 0 ? "credit" : "debit",
    amount: row.amount,
  }));
}

const ROW_WORDS: Record<string, string> = {
  declared: "The tax of every fact reported in the period, from the same rows the return is summed from.",
  timing: "Tax whose ledger date and tax point lie in different periods.",
  settlement: "What closing entries moved to what is due to the authority.",
  payments: "Money that moved between the business and the authority, and charges.",
  uncodedTotal: "Entries made straight to the account, without a tax code.",
};

/** One cell of the control-account agreement. */
export async function agreementStep(
  { work, setup }: TrailScope,
  parts: string[],
  ref: string,
): Promise<TrailStep> {
  const [rid = "", end = "", account = "", row = ""] = parts;
  const r = registrationIn(setup, rid);
  const view = await controlAgreement(work, setup, r, end);
  const column = view.columns.find((one) => one.account === account);
  const amount = column?.[row as keyof typeof column];
  if (!column || typeof amount !== "number")
    throw new FiscalError("trail/not-found", `There is no trail for "${ref}".`, "ref");
  return {
    ref,
    title: `${column.account} ${column.name}: ${ROW_NAMES[row] ?? row}`,
    amount,
    digits: setup.plain.digits,
    words: [ROW_WORDS[row] ?? "Balance of the account in the ledger, debit positive."],
    parts: await agreementParts(work, setup, r.id, account, row, view),
    arithmetic: [],
    open: { label: "Open account", path: `books/ledger/${account}` },
  };
}

const ROW_NAMES: Record<string, string> = {
  opening: "opening balance",
  declared: "tax declared",
  timing: "timing",
  settlement: "settlement",
  payments: "payments and charges",
  uncodedTotal: "entries without a code",
  closing: "closing balance",
};

async function agreementParts(
  work: Work,
  setup: TrailScope["setup"],
  registrationId: number,
  account: string,
  row: string,
  view: { from: string; to: string },
): Promise<TrailPart[]> {
  if (row === "opening" || row === "closing") {
    const to = row === "opening" ? addDays(view.from, -1) : view.to;
    return [
      {
        ref: `account/${account}/1900-01-01/${to}`,
        label: "Every entry up to that day",
        detail: to,
        amount: null,
      },
    ];
  }
  const role = setup.plain.accounts.find((one) => one.code === account)?.role;
  const input = role === "input-tax";
  if (role === "due-to-authority" && (row === "declared" || row === "timing")) return [];
  if (row === "declared") return declaredParts(work, registrationId, view.to, input);
  const kind = { settlement: "settlement", payments: "tax-payment", uncodedTotal: "document" }[row];
  const coded = row === "uncodedTotal" ? "AND p.levy IS NULL" : "";
  if (kind === undefined) return timingParts(work, registrationId, view, input);
  const rows = await work.rows<{ entry: number; text: string; date: string; amount: number }>(
    `SELECT e.id AS entry, e.text, p.date, sum(p.amount) AS amount FROM postings p JOIN entries e ON e.id = p.entry_id
       JOIN accounts a ON a.id = p.account_id
     WHERE a.client_id = $1 AND a.code = $2 AND p.live = 1 AND e.kind = $3 AND p.date BETWEEN $4 AND $5 ${coded}
     GROUP BY e.id ORDER BY p.date LIMIT ${LISTED}`,
    [setup.client.id, account, kind, view.from, view.to],
  );
  return rows.map((one) => ({
    ref: `entry/${one.entry}`,
    label: one.text,
    detail: one.date,
    amount: one.amount,
  }));
}

async function declaredParts(
  work: Work,
  registrationId: number,
  end: string,
  input: boolean,
): Promise<TrailPart[]> {
  const amount = input ? "sum(recoverable)" : `sum(CASE WHEN ${ON_OUTPUT_ACCOUNT} THEN -tax ELSE 0 END)`;
  const rows = await work.rows<{
    code: string;
    direction: string;
    rate: string | null;
    credit: number;
    late: number;
    amount: number;
    count: number;
  }>(
    `SELECT code, direction, rate, credit, late, ${amount} AS amount, count(*) AS count FROM facts
     WHERE registration_id = $1 AND period_end = $2 AND live = 1 GROUP BY code, direction, rate, credit, late HAVING ${amount} <> 0
     ORDER BY abs(${amount}) DESC`,
    [registrationId, end],
  );
  return rows.map((row) => ({
    ref: `group/${registrationId}/${end}/${input ? "4" : "1"}/${row.code}/${row.direction}/${row.rate ?? "-"}/${input ? "r" : "t"}/${row.credit}/${row.late}`,
    label: `${row.code}${row.rate === null ? "" : ` ${row.rate} %`}${row.credit === 1 ? ", credit notes" : ""}`,
    detail: `${row.count} ${row.count === 1 ? "line" : "lines"}`,
    amount: row.amount,
  }));
}

async function timingParts(
  work: Work,
  registrationId: number,
  view: { from: string; to: string },
  input: boolean,
): Promise<TrailPart[]> {
  const amount = input ? "f.recoverable" : `CASE WHEN ${ON_OUTPUT_ACCOUNT} THEN -f.tax ELSE 0 END`;
  const rows = await work.rows<{
    document: number;
    number: string;
    ledger: string;
    reported: string | null;
    amount: number;
    held: number;
  }>(
    `SELECT f.document_id AS document, d.number, d.ledger_date AS ledger, f.period_end AS reported,
       sum(((d.ledger_date BETWEEN $2 AND $3 AND f.release_of IS NULL)
         - (f.period_end IS $3 AND f.registration_id IS $1)) * (${amount})) AS amount, max(f.held) AS held
     FROM facts f JOIN documents d ON d.id = f.document_id
     WHERE f.client_id = (SELECT client_id FROM registrations WHERE id = $1) AND f.live = 1
       AND ((f.registration_id = $1 AND f.period_end = $3) OR d.ledger_date BETWEEN $2 AND $3)
       AND NOT (f.registration_id IS $1 AND f.period_end IS $3 AND d.ledger_date BETWEEN $2 AND $3 AND f.release_of IS NULL)
     GROUP BY f.document_id HAVING amount <> 0 ORDER BY d.ledger_date LIMIT ${LISTED}`,
    [registrationId, view.from, view.to],
  );
  return rows.map((row) => ({
    ref: `document/${row.document}`,
    label: `${row.number}: in the ledger on ${row.ledger}`,
    detail:
      row.held === 1
        ? "reported as it is paid"
        : row.reported === null
          ? "on no return"
          : `reported in the period to ${row.reported}`,
    amount: row.amount,
  }));
}
