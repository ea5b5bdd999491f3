import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { found } from "@fiscalon/core/at";
import { addDays } from "@fiscalon/core/calendar/date";
import { FiscalError } from "@fiscalon/core/errors";
import type { TrailPart, TrailStep } from "@fiscalon/contract/trail";
import type { Bind } from "../../db/database.ts";
import type { Work } from "../../base/work.ts";
import { controlAgreement } from "../../books/agree/controlAgreement.ts";
import { registrationIn } from "../../books/loadSetup.ts";
import { accountEntries } from "../../books/ledger.ts";
import { belongsTo, isEntryRow, leviesOn, taxSideOf } from "../../books/returns/controlSql.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { declaredParts, timingParts } from "./declaredSteps.ts";
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
    words: [
      `Balance on ${displayDate(to)}, debit positive: what it was before ${displayDate(from)}, and every entry since.`,
    ],
    parts: [
      { ref: null, label: `Balance before ${displayDate(from)}`, detail: "", amount: page.opening },
      ...page.rows.map((row): TrailPart => ({
        ref: row.documentId === null ? `entry/${row.entry}` : `document/${row.documentId}`,
        label: row.text,
        detail: displayDate(row.date),
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
    words: [`Dated ${displayDate(entry.date)}. Made by ${entry.by}, ${displayDate(entry.at)}.`],
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
    parts: await agreementParts(work, setup, r, account, row, view),
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
  r: RegistrationRecord,
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
        detail: displayDate(to),
        amount: null,
      },
    ];
  }
  const known = found(setup.plain.accounts, ({ code }) => code === account, `account ${account}`);
  const side = taxSideOf(known);
  const levies = leviesOn(r, known);
  if (row === "declared") return side === null ? [] : declaredParts(work, r.id, view.to, side, levies);
  if (!isEntryRow(row)) return side === null ? [] : timingParts(work, r.id, view, side, levies);
  const rows = await work.rows<{ entry: number; text: string; date: string; amount: number }>(
    `SELECT e.id AS entry, e.text, p.date, sum(p.amount) AS amount FROM accounts a
       CROSS JOIN postings p ON p.client_id = $1 AND p.live = 1 AND p.account_id = a.id AND p.date BETWEEN $3 AND $4
       JOIN entries e ON e.id = p.entry_id
     WHERE a.client_id = $1 AND a.code = $2 AND ${belongsTo(row)}
     GROUP BY e.id ORDER BY p.date LIMIT ${LISTED}`,
    [setup.client.id, account, view.from, view.to],
  );
  return rows.map((one) => ({
    ref: `entry/${one.entry}`,
    label: one.text,
    detail: displayDate(one.date),
    amount: one.amount,
  }));
}
