import { inKinds, movesMoney, whichWay } from "../../db/kindSql.ts";
import { listOrder } from "../../db/listOrder.ts";
import type { ListOrder, SortColumns } from "../../db/listOrder.ts";
import type {
  OpenItem,
  OpenItemPage,
  PaymentPage,
  PaymentRow,
  PaymentView,
} from "@fiscalon/contract/payments";
import { accountInRole } from "@fiscalon/core/model/account";
import type { Work } from "../../base/work.ts";
import { notFound } from "../../base/errors.ts";
import type { ClientSetup } from "../loadSetup.ts";
import { OPEN_AMOUNT } from "./postPayments.ts";
import { lockOfPayment } from "./service.ts";

export interface Paging {
  offset: number;
  limit: number;
}
export interface PaymentFilter extends Paging, ListOrder {
  search: string;
  from: string;
  to: string;
}
export interface OpenFilter extends Paging, ListOrder {
  search: string;
  contact: number;
  /** One of them only; 0 for all. */
  document: number;
  side: "" | "sale" | "purchase";
  /** Empty for today, where the client is. */
  on: string;
}

/** What payments can be ordered by. */
export const PAYMENT_ORDER: SortColumns = {
  date: "p.date",
  kind: "p.kind",
  number: "p.number COLLATE NOCASE",
  party: "c.name COLLATE NOCASE",
  reference: "p.reference COLLATE NOCASE",
  amount: `CASE WHEN ${movesMoney("p", true)} THEN p.base ELSE -p.base END`,
  rest: "p.on_account",
};

/** What open items can be ordered by. */
export const OPEN_ORDER: SortColumns = {
  date: "d.date",
  kind: "d.kind",
  number: "d.number COLLATE NOCASE",
  party: "c.name COLLATE NOCASE",
  days: "julianday($2) - julianday(d.date)",
  gross: "coalesce(d.foreign_gross, d.gross)",
  open: "o.open",
};

/** Documents a payment can settle: those that go to debtors or creditors. */
const ON_SIDE = {
  sale: inKinds("d.kind", ({ direction }) => direction === "sale"),
  purchase: inKinds("d.kind", ({ direction }) => direction === "purchase"),
};
/** 1 where the business is to receive, -1 where it is to pay. */
const COMES_IN = whichWay("d.kind");

/** Payments, newest first, with what came in and went out of all that match. */
export async function paymentPage(work: Work, clientId: number, filter: PaymentFilter): Promise<PaymentPage> {
  const where = `p.client_id = $1 AND p.state = 'posted' AND ($2 = '' OR p.date >= $2) AND ($3 = '' OR p.date <= $3)
    AND ($4 = '%%' OR p.number LIKE $4 OR p.reference LIKE $4 OR p.note LIKE $4 OR c.name LIKE $4)`;
  const bind = [clientId, filter.from, filter.to, `%${filter.search}%`];
  const from = "payments p LEFT JOIN contacts c ON c.id = p.contact_id";
  const totals = work.remembered("payments", bind, (work) =>
    work.one<Omit<PaymentPage, "rows">>(
      `SELECT count(*) AS total, coalesce(sum(CASE WHEN ${movesMoney("p", true)} THEN p.base END), 0) AS received,
         coalesce(sum(CASE WHEN ${movesMoney("p", false)} THEN p.base END), 0) AS paid FROM ${from} WHERE ${where}`,
      bind,
    ),
  );
  const rows = work.rows<PaymentRow>(
    `SELECT p.id, p.kind, p.number, p.date, coalesce(c.name, '') AS party, coalesce(p.account, '') AS account, p.reference,
       p.base AS amount, p.on_account AS onAccount, p.state,
       coalesce((SELECT group_concat(d.number, ', ') FROM allocations a JOIN documents d ON d.id = a.document_id
         WHERE a.payment_id = p.id), '') AS documents
     FROM ${from} WHERE ${where} ORDER BY ${listOrder(PAYMENT_ORDER, filter, "p.date DESC, p.id DESC")} LIMIT $5 OFFSET $6`,
    [...bind, filter.limit, filter.offset],
  );
  const [sums, page] = await Promise.all([totals, rows]);
  return { ...sums, rows: page };
}

/** Documents that are not settled, oldest first; `days` since their date, on the day asked. */
export async function openItems(work: Work, clientId: number, filter: OpenFilter): Promise<OpenItemPage> {
  const side = { "": "", sale: `AND ${ON_SIDE.sale}`, purchase: `AND ${ON_SIDE.purchase}` };
  const open = `SELECT d.id, d.open_amount AS open, d.open_base AS base FROM documents d LEFT JOIN contacts c ON c.id = d.contact_id
    WHERE d.client_id = $1 AND d.open_amount <> 0 ${side[filter.side]}
      AND d.date <= $2 AND ($3 = 0 OR d.contact_id = $3) AND ($4 = '%%' OR d.number LIKE $4 OR c.name LIKE $4)
      AND ($5 = 0 OR d.id = $5)`;
  const bind = [clientId, filter.on || work.today, filter.contact, `%${filter.search}%`, filter.document];
  const totals = work.remembered("open items", [bind, filter.side], (work) =>
    work.one<{ total: number; open: number }>(
      `SELECT count(*) AS total, coalesce(sum(${COMES_IN} * o.base), 0) AS open
       FROM (${open}) o JOIN documents d ON d.id = o.id`,
      bind,
    ),
  );
  const rows = work.rows<OpenItem>(
    `SELECT d.id AS document, d.kind, d.number, d.date, d.contact_id AS contact, coalesce(c.name, '') AS party, d.currency,
       coalesce(d.foreign_gross, d.gross) AS gross, o.open, CAST(julianday($2) - julianday(d.date) AS INTEGER) AS days
     FROM (${open}) o JOIN documents d ON d.id = o.id LEFT JOIN contacts c ON c.id = d.contact_id
     ORDER BY ${listOrder(OPEN_ORDER, filter, "d.date, d.id")} LIMIT $6 OFFSET $7`,
    [...bind, filter.limit, filter.offset],
  );
  const [sums, page] = await Promise.all([totals, rows]);
  return { ...sums, rows: page };
}

export async function paymentView(work: Work, setup: ClientSetup, paymentId: number): Promise<PaymentView> {
  const row = await work.row<
    Omit<PaymentView, "contact" | "allocations" | "locked" | "history"> & {
      contact: number | null;
      name: string | null;
    }
  >(
    `SELECT p.id, p.state, p.kind, p.number, p.date, p.contact_id AS contact, c.name, coalesce(p.account, '') AS account,
       p.currency, p.amount, p.base, p.on_account AS onAccount, p.reference, p.note,
       (SELECT max(e.id) FROM entries e WHERE e.payment_id = p.id) AS entry
     FROM payments p LEFT JOIN contacts c ON c.id = p.contact_id WHERE p.id = $1 AND p.client_id = $2`,
    [paymentId, setup.client.id],
  );
  if (!row) throw notFound("This payment");
  const { name, contact, ...rest } = row;
  return {
    ...rest,
    account: row.account || accountInRole(setup.plain.accounts, "bank"),
    contact: contact === null ? null : { id: contact, name: name ?? "" },
    allocations: await allocationsOf(work, paymentId, row.date),
    locked: row.state === "posted" ? await lockOfPayment(work, paymentId) : null,
    history: await historyOf(work, paymentId),
  };
}

async function allocationsOf(work: Work, paymentId: number, on: string): Promise<PaymentView["allocations"]> {
  return work.rows(
    `SELECT x.document_id AS document, d.kind, d.number, d.date, d.contact_id AS contact, coalesce(c.name, '') AS party, d.currency,
       coalesce(d.foreign_gross, d.gross) AS gross, ${OPEN_AMOUNT} + x.live * (x.amount + x.difference) AS open,
       CAST(julianday($2) - julianday(d.date) AS INTEGER) AS days, x.amount, x.difference,
       x.difference_account AS differenceAccount
     FROM allocations x JOIN documents d ON d.id = x.document_id LEFT JOIN contacts c ON c.id = d.contact_id
     WHERE x.payment_id = $1 ORDER BY x.id`,
    [paymentId, on],
  );
}

async function historyOf(work: Work, paymentId: number): Promise<PaymentView["history"]> {
  return work.rows(
    `WITH RECURSIVE versions(id) AS (
       SELECT $1 UNION SELECT p.id FROM payments p JOIN versions v ON p.supersedes = v.id
       UNION SELECT p.supersedes FROM payments p JOIN versions v ON p.id = v.id WHERE p.supersedes IS NOT NULL)
     SELECT y.created_at AS at, p.name AS "by", CASE WHEN y.supersedes IS NULL THEN 'posted' ELSE 'corrected' END AS what
     FROM versions v JOIN payments y ON y.id = v.id JOIN people p ON p.id = y.created_by
     UNION ALL SELECT y.ended_at, p.name, 'taken out: ' || y.end_reason FROM versions v JOIN payments y ON y.id = v.id
       JOIN people p ON p.id = y.ended_by WHERE y.state = 'void' ORDER BY at`,
    [paymentId],
  );
}

/** The payments that settled a document, oldest first. */
export async function paymentsOfDocument(
  work: Work,
  documentId: number,
): Promise<
  { payment: number; kind: string; number: string; date: string; amount: number; difference: number }[]
> {
  return work.rows(
    `SELECT p.id AS payment, p.kind, p.number, p.date, a.amount, a.difference FROM allocations a
       JOIN payments p ON p.id = a.payment_id WHERE a.document_id = $1 AND a.live = 1 ORDER BY p.date, p.id`,
    [documentId],
  );
}
