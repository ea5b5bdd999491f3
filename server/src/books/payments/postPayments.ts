import { FiscalError, withinField } from "@fiscalon/core/errors";
import { baseOfAllocation, onAccount, paymentPostings } from "@fiscalon/core/ledger/paymentPostings";
import type { PayableDocument } from "@fiscalon/core/ledger/paymentPostings";
import { PAYMENT_KINDS } from "@fiscalon/core/model/paymentKinds";
import type { PaymentKind } from "@fiscalon/core/model/paymentKinds";
import type { Work, Writing } from "../../base/work.ts";
import type { ClientSetup } from "../loadSetup.ts";
import { followEntries } from "../bankLines.ts";
import { releaseFacts } from "./releaseFacts.ts";

/**
 * A payment ready to be posted. Amounts in minor units of its currency, `base` what the bank made of it in the
 * currency of the books; `account` is a code of the chart, null for the bank.
 */
export interface NewPayment {
  kind: PaymentKind;
  number: string;
  date: string;
  contact: number | null;
  account: string | null;
  currency: string;
  amount: number;
  base: number;
  reference: string;
  note: string;
  allocations: { document: number; amount: number; difference: number; differenceAccount: string | null }[];
  supersedes?: number;
  sourceKey?: string | null;
}

interface OpenDocument extends PayableDocument {
  id: number;
  contact: number | null;
}

const PAYMENT_COLUMNS = [
  "id",
  "client_id",
  "kind",
  "number",
  "date",
  "contact_id",
  "account",
  "currency",
  "amount",
  "base",
  "on_account",
  "reference",
  "note",
  "state",
  "supersedes",
  "source_key",
  "created_at",
  "created_by",
];

/** What remains to be settled of a document, in the currency of the document (alias d). */
export const OPEN_AMOUNT = `(coalesce(d.foreign_gross, d.gross) - d.settled)`;

/**
 * Posts payments set by set: entry, allocations, and what becomes reportable because documents are paid.
 * @returns ids of the payments, in order
 * @throws FiscalError with the path `payments[n]…` of the first that cannot be posted; nothing is written then
 */
export async function postPayments(
  work: Writing,
  setup: ClientSetup,
  payments: readonly NewPayment[],
): Promise<number[]> {
  const documents = await openDocuments(work, setup.client.id, payments);
  const firstPayment = (await work.lastId("payments")) + 1;
  const firstEntry = (await work.lastId("entries")) + 1;
  const rows = { payments: [], allocations: [], entries: [], postings: [] } as Record<
    "payments" | "allocations" | "entries" | "postings",
    unknown[][]
  >;
  payments.forEach((payment, index) =>
    withinField(`payments[${index}]`, () =>
      takePayment(
        rows,
        payment,
        { payment: firstPayment + index, entry: firstEntry + index },
        documents,
        setup,
        work,
      ),
    ),
  );
  await work.insertRows("payments", PAYMENT_COLUMNS, rows.payments);
  await work.insertRows(
    "allocations",
    ["payment_id", "document_id", "amount", "difference", "difference_account", "base"],
    rows.allocations,
  );
  await work.insertRows(
    "entries",
    ["id", "client_id", "kind", "date", "payment_id", "text", "created_at", "created_by"],
    rows.entries,
  );
  await work.insertRows(
    "postings",
    ["entry_id", "client_id", "account_id", "date", "amount", "line", "levy", "text"],
    rows.postings,
  );
  await releaseFacts(work, setup, [...documents.keys()]);
  return payments.map((_, index) => firstPayment + index);
}

/** The documents payments name, with what is open of each before these payments. */
async function openDocuments(
  work: Writing,
  clientId: number,
  payments: readonly NewPayment[],
): Promise<Map<number, OpenDocument>> {
  const ids = [...new Set(payments.flatMap(({ allocations }) => allocations.map((one) => one.document)))];
  const rows = await work.rows<OpenDocument>(
    `SELECT d.id, d.kind, d.number, d.contact_id AS contact, d.currency, ${OPEN_AMOUNT} AS open,
       coalesce(d.foreign_gross, d.gross) AS toPay, d.gross AS baseGross, d.settled_base AS baseSettled
     FROM documents d
     WHERE d.client_id = $1 AND d.state = 'posted' AND d.id IN (SELECT value FROM json_each($2))`,
    [clientId, JSON.stringify(ids)],
  );
  return new Map(rows.map((row) => [row.id, row]));
}

function takePayment(
  rows: Record<"payments" | "allocations" | "entries" | "postings", unknown[][]>,
  payment: NewPayment,
  ids: { payment: number; entry: number },
  documents: ReadonlyMap<number, OpenDocument>,
  setup: ClientSetup,
  work: Work,
): void {
  const client = setup.client.id;
  const input = inputOf(payment, documents, setup);
  const postings = paymentPostings(input, setup.plain.accounts, setup.plain.digits);
  const { kind, number, date } = payment;
  rows.payments.push([
    ids.payment,
    client,
    kind,
    number,
    date,
    payment.contact,
    payment.account,
    payment.currency,
    payment.amount,
    payment.base,
    onAccount(input),
    payment.reference,
    payment.note,
    "posted",
    payment.supersedes ?? null,
    payment.sourceKey ?? null,
    work.at,
    work.person,
  ]);
  for (const allocation of input.allocations) {
    const { amount, difference, differenceAccount, document } = allocation;
    const base = baseOfAllocation(allocation);
    rows.allocations.push([ids.payment, document.id, amount, difference, differenceAccount, base]);
    document.open -= amount + difference;
    document.baseSettled += base;
  }
  const text = `${PAYMENT_KINDS[kind].name} ${number}`;
  rows.entries.push([ids.entry, client, "payment", date, ids.payment, text, work.at, work.person]);
  for (const { account, amount, line, levy, text: words } of postings) {
    rows.postings.push([ids.entry, client, setup.accountIds.get(account), date, amount, line, levy, words]);
  }
}

function inputOf(payment: NewPayment, documents: ReadonlyMap<number, OpenDocument>, setup: ClientSetup) {
  const allocations = payment.allocations.map((one, index) => {
    const document = documents.get(one.document);
    if (!document) {
      throw new FiscalError(
        "payment/unknown-document",
        "This document is not in the books, or no longer. Choose another.",
        `allocations[${index}].document`,
      );
    }
    if (payment.contact !== null && document.contact !== null && document.contact !== payment.contact) {
      throw new FiscalError(
        "payment/other-party",
        `${document.number} belongs to another party. Take it off, or leave the party of the payment open.`,
        `allocations[${index}].document`,
      );
    }
    return { ...one, document };
  });
  const { kind, currency, amount, account } = payment;
  if (currency !== setup.client.currency && payment.base <= 0 && (amount !== 0 || moved(allocations))) {
    throw new FiscalError(
      "payment/bank-amount",
      `Type what the bank made of it in ${setup.client.currency}.`,
      "bankAmount",
    );
  }
  return { kind, currency, amount, base: payment.base, account, allocations };
}

const moved = (allocations: readonly { difference: number }[]) =>
  allocations.some(({ difference }) => difference !== 0);

/** Entries and allocations of payments stop counting, and what they made reportable with them. */
export async function endPayments(
  work: Writing,
  setup: ClientSetup,
  ids: readonly number[],
  end: { state: "superseded" | "void"; reason: string },
): Promise<void> {
  const json = JSON.stringify(ids);
  const touched = await work.rows<{ document: number }>(
    `SELECT DISTINCT document_id AS document FROM allocations
     WHERE payment_id IN (SELECT value FROM json_each($1)) AND live = 1`,
    [json],
  );
  await work.run(
    `UPDATE payments SET state = $2, ended_at = $3, ended_by = $4, end_reason = $5
     WHERE id IN (SELECT value FROM json_each($1))`,
    [json, end.state, work.at, work.person, end.reason],
  );
  for (const sql of [
    `UPDATE allocations SET live = 0 WHERE payment_id IN (SELECT value FROM json_each($1))`,
    `UPDATE postings SET live = 0 WHERE entry_id IN
       (SELECT id FROM entries WHERE payment_id IN (SELECT value FROM json_each($1)))`,
    `UPDATE entries SET live = 0 WHERE payment_id IN (SELECT value FROM json_each($1))`,
  ]) {
    await work.run(sql, [json]);
  }
  await followEntries(work, setup.client.id);
  await releaseFacts(
    work,
    setup,
    touched.map((row) => row.document),
  );
}
