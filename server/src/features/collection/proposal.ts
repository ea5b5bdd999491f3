import { accountInRole } from "@fiscalon/core/model/account";
import type { KindDefinition } from "@fiscalon/core/model/documentKinds";
import { displayAmount, parseAmount } from "@fiscalon/core/money/amount";
import { collectedByKind, collectedOnInvoice, identificationIn } from "@fiscalon/core/schemes/collection";
import type { CollectionProposal, CollectionProposalBody } from "@fiscalon/contract/collection";
import { notFound } from "../../base/errors.ts";
import type { Work } from "../../base/work.ts";
import { inKinds } from "../../db/kindSql.ts";
import { apart, shareApart } from "../../books/collection/apart.ts";
import { collecting, yearOf } from "../../books/collection/collects.ts";
import type { Collecting } from "../../books/collection/collects.ts";
import { customersOf, customerYears } from "../../books/collection/customerYears.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";

/** What an invoice that is being typed collects: on what it passes the yearly sum by, or by the kind of its goods. */
export async function collectionProposal(
  work: Work,
  setup: ClientSetup,
  { contact, date, amount: text, kind: asked, document }: CollectionProposalBody,
): Promise<CollectionProposal | null> {
  const own = await collecting(work, setup);
  const { rule, schedules } = own;
  if (own.wayOn(date) === "no") return null;
  const { digits, accounts } = setup.plain;
  const show = (sum: number) => displayAmount(sum, digits);
  const amount = parseAmount(text, digits);
  const [customer] = await customersOf(work, setup, rule, yearOf(rule, date).to, contact);
  if (!customer || customer.deducts === 1) return null;
  const identified = identificationIn(rule, customer.taxNumber) !== null;
  const common = { code: rule.code, account: accountInRole(accounts, "collected-at-source") };
  if (asked !== undefined) {
    const kind = rule.kinds.find(({ id }) => id === asked);
    if (!kind) throw notFound("This kind of goods");
    const { rate, tax } = collectedByKind(kind, schedules, identified, { date, amount });
    return {
      ...common,
      tax,
      text: `${rule.name}: ${kind.name}`,
      arithmetic: `${show(amount)} × ${rate} % = ${show(tax)}`,
    };
  }
  if (own.wayOn(date) !== "invoice") return null;
  const years = await customerYears(work, setup, own, date, contact);
  const receipts = years.flatMap((year) => year.receipts);
  const exposure = {
    received: customer.opening + receipts.reduce((sum, { receipt }) => sum + receipt.amount, 0),
    advances: receipts.reduce((sum, { receipt }) => sum + receipt.advance, 0),
    open: await openInvoices(work, setup, own, { contact, date, but: document }),
  };
  const { before, excess, rate, tax } = collectedOnInvoice(rule, schedules, identified, exposure, {
    date,
    amount,
  });
  if (tax === 0) return null;
  return {
    ...common,
    tax,
    text: rule.name,
    arithmetic: `${show(before)} paid and billed before, ${show(amount)} with this one; ${show(excess)} above ${show(rule.above)} × ${rate} % = ${show(tax)}`,
  };
}

/** What a customer owes on invoices of the fiscal year up to a day, as far as it counts. */
async function openInvoices(
  work: Work,
  { client }: ClientSetup,
  { rule }: Collecting,
  { contact, date, but = 0 }: { contact: number; date: string; but: number | undefined },
): Promise<number> {
  const { from } = yearOf(rule, date);
  const rows = await work.rows<{ gross: number; unpaid: number; apart: number }>(
    `SELECT d.gross, ${apart("$4")} AS apart, d.gross - coalesce((SELECT sum(a.base + a.difference) FROM allocations a
         WHERE a.document_id = d.id AND a.live = 1), 0) AS unpaid
     FROM documents d JOIN lines l ON l.document_id = d.id
     WHERE d.client_id = $1 AND d.state = 'posted' AND d.contact_id = $2 AND d.id <> $6
       AND ${inKinds("d.kind", owedByCustomers)} AND d.date BETWEEN $3 AND $5 GROUP BY d.id`,
    [client.id, contact, from, rule.code, date, but],
  );
  return rows.reduce((sum, row) => sum + row.unpaid - shareApart(row, row.unpaid), 0);
}

const owedByCustomers = ({ direction, sign, counter }: KindDefinition) =>
  direction === "sale" && sign > 0 && counter === "receivable";
