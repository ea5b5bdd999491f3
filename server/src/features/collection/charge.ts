import { FiscalError } from "@fiscalon/core/errors";
import { accountInRole } from "@fiscalon/core/model/account";
import { displayAmount, formatAmount, parseAmount } from "@fiscalon/core/money/amount";
import { collectedByKind, collectedOnInvoice, identificationIn } from "@fiscalon/core/schemes/collection";
import type {
  CollectionChargeBody,
  CollectionProposal,
  CollectionProposalBody,
} from "@fiscalon/contract/collection";
import { notFound } from "../../base/errors.ts";
import type { Work, Writing } from "../../base/work.ts";
import { inKinds } from "../../db/kindSql.ts";
import { collecting, yearOf } from "../../books/collection/collects.ts";
import type { Collecting } from "../../books/collection/collects.ts";
import { customerYears, sumsOf } from "../../books/collection/customerYears.ts";
import type { CustomerYear } from "../../books/collection/customerYears.ts";
import type { NewDocument } from "../../books/documents/newDocument.ts";
import { postDocuments } from "../../books/documents/postDocuments.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";

/** How numbers of debit notes for collected tax begin. */
const PREFIX = "TCS-";
const DIGITS = 4;

/**
 * Charges customers what their receipts up to a day came to and no document has charged: a debit note each, with its
 * arithmetic. It is taken back by taking the note out.
 * @returns how many were posted
 */
export async function chargeCustomers(
  work: Work,
  clientId: number,
  { to, customers }: CollectionChargeBody,
): Promise<number> {
  return work.write(async (work) => {
    const setup = await loadSetup(work, clientId);
    const own = await collecting(work, setup);
    const years = new Map((await customerYears(work, setup, own, to)).map((one) => [one.contact, one]));
    let next = await nextNumber(work, clientId);
    const notes = customers.map((contact): NewDocument => {
      const year = years.get(contact);
      if (!year || sumsOf(year).left <= 0) throw nothingLeft(contact);
      const number = PREFIX + String(next).padStart(DIGITS, "0");
      next += 1;
      return noteOf(setup, own, year, number, to < work.today ? to : work.today);
    });
    const ids = await postDocuments(work, setup, notes);
    for (const [index, id] of ids.entries())
      await work.record({
        client: clientId,
        action: "post",
        entity: "document",
        id,
        after: { ...notes[index]?.input },
      });
    return ids.length;
  });
}

function nothingLeft(contact: number): FiscalError {
  return new FiscalError(
    "collection/nothing-left",
    `Nothing is left to charge to customer ${contact}: it was charged, or its receipts changed, in between. Look at the list again.`,
    "customers",
  );
}

async function nextNumber(work: Writing, clientId: number): Promise<number> {
  const { last } = await work.one<{ last: number | null }>(
    `SELECT max(CAST(substr(number, $2) AS INTEGER)) AS last FROM documents
     WHERE client_id = $1 AND kind = 'sales-invoice' AND number GLOB $3`,
    [clientId, PREFIX.length + 1, `${PREFIX}[0-9]*`],
  );
  return (last ?? 0) + 1;
}

function noteOf(
  { plain }: ClientSetup,
  { rule }: Collecting,
  year: CustomerYear,
  number: string,
  date: string,
): NewDocument {
  const { left, charged } = sumsOf(year);
  const show = (amount: number) => displayAmount(amount, plain.digits);
  const steps = year.receipts
    .filter(({ tax }) => tax !== 0)
    .map(
      ({ receipt, excess, rate, tax }) =>
        `${receipt.number} of ${receipt.date}: ${show(excess)} × ${rate} % = ${show(tax)}`,
    );
  const before = charged === 0 ? "" : ` Charged before: ${show(charged)}.`;
  return {
    input: {
      kind: "sales-invoice",
      number,
      date,
      prices: "exclusive",
      lines: [
        {
          text: rule.name,
          code: rule.code,
          account: accountInRole(plain.accounts, "collected-at-source"),
          amount: formatAmount(left, plain.digits),
        },
      ],
    },
    contact: year.contact,
    place: null,
    note: `Receipts above ${show(rule.above)} in the fiscal year: ${steps.join("; ")}.${before}`,
  };
}

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
  const [year] = await customerYears(work, setup, own, date, contact);
  const identified = year
    ? year.identification !== null
    : await isIdentifiedContact(work, setup, own, contact);
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
  if (own.wayOn(date) !== "invoice" || (await leftOut(work, setup, own, contact))) return null;
  const receipts = year?.receipts ?? [];
  const exposure = {
    received: (year?.opening ?? 0) + receipts.reduce((sum, { receipt }) => sum + receipt.amount, 0),
    advances: receipts.reduce((sum, { receipt }) => sum + receipt.advance, 0),
    open: await openInvoices(work, setup, own, contact, date, document ?? 0),
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

async function isIdentifiedContact(
  work: Work,
  { client }: ClientSetup,
  { rule }: Collecting,
  contact: number,
): Promise<boolean> {
  const row = await work.row<{ number: string | null }>(
    "SELECT tax_number AS number FROM contacts WHERE client_id = $1 AND id = $2",
    [client.id, contact],
  );
  if (!row) throw notFound("This customer");
  return identificationIn(rule, row.number) !== null;
}

/** Whether nothing is collected from a customer: abroad, or one who deducts tax himself. */
async function leftOut(
  work: Work,
  { client }: ClientSetup,
  { rule }: Collecting,
  contact: number,
): Promise<boolean> {
  const { out } = await work.one<{ out: number }>(
    `SELECT coalesce(country, $3) <> $3 OR standing ->> ('$.' || $4) IS NOT NULL AS out
     FROM contacts WHERE client_id = $1 AND id = $2`,
    [client.id, contact, client.country, rule.deducts.standing],
  );
  return out === 1;
}

/** What a customer owes on invoices of the fiscal year up to a day, without services and the tax itself. */
async function openInvoices(
  work: Work,
  { client }: ClientSetup,
  { rule }: Collecting,
  contact: number,
  date: string,
  but: number,
): Promise<number> {
  const { from } = yearOf(rule, date);
  const { open } = await work.one<{ open: number }>(
    `SELECT coalesce(sum(unpaid * (gross - apart) / gross), 0) AS open FROM (
       SELECT d.gross, d.gross - coalesce((SELECT sum(a.base + a.difference) FROM allocations a WHERE a.document_id = d.id AND a.live = 1), 0) AS unpaid,
         coalesce((SELECT sum(l.gross) FROM lines l WHERE l.document_id = d.id AND (l.code = $5 OR l.supply = 'services')), 0) AS apart
       FROM documents d WHERE d.client_id = $1 AND d.state = 'posted' AND d.contact_id = $2 AND d.gross > 0 AND d.id <> $6
         AND ${inKinds("d.kind", ({ direction, sign, counter }) => direction === "sale" && sign > 0 && counter === "receivable")}
         AND d.date BETWEEN $3 AND $4)`,
    [client.id, contact, from, date, rule.code, but],
  );
  return open;
}
