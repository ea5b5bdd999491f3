import { groupBy } from "@fiscalon/core/groupBy";
import type { KindDefinition } from "@fiscalon/core/model/documentKinds";
import type { CollectionRule } from "@fiscalon/core/model/collection";
import { collectedOnReceipts, identificationIn } from "@fiscalon/core/schemes/collection";
import type { CollectedReceipt, CollectionReceipt } from "@fiscalon/core/schemes/collection";
import type { Work } from "../../base/work.ts";
import { inKinds, movesMoney, signOf } from "../../db/kindSql.ts";
import type { ClientSetup } from "../loadSetup.ts";
import { apart, shareApart } from "./apart.ts";
import { yearOf } from "./collects.ts";
import type { Collecting } from "./collects.ts";

/** A receipt of a customer; `paid` is all of it, `amount` what counts. */
export interface CustomerReceipt extends CollectionReceipt {
  ref: string;
  number: string;
  paid: number;
  /** Of what counts, what settles no document. */
  advance: number;
}

/** A line that charges the tax; `kind` where it is of a kind of goods. */
export interface Charge {
  document: number;
  number: string;
  date: string;
  kind: string | null;
  amount: number;
}

/** A customer in a fiscal year. */
export interface CustomerYear {
  contact: number;
  name: string;
  identification: string | null;
  deducts: boolean;
  opening: number;
  evidence: string;
  receipts: CollectedReceipt<CustomerReceipt>[];
  charges: Charge[];
}

interface Customer {
  contact: number;
  name: string;
  taxNumber: string | null;
  deducts: number;
  opening: number;
  evidence: string;
}

/**
 * Customers who paid in the fiscal year of a day, up to that day, with what is collected on each receipt, and all that was
 * charged for the year. Who is abroad is left out; so is what was paid for services or for the tax itself. Nothing is collected on
 * receipts of who deducts tax itself.
 */
export async function customerYears(
  work: Work,
  setup: ClientSetup,
  { rule, schedules, wayOn }: Collecting,
  day: string,
  only: number | null = null,
): Promise<CustomerYear[]> {
  const { from, to } = yearOf(rule, day);
  const until = day < to ? day : to;
  const customers = await customersOf(work, setup, rule, to, only);
  const known = new Set(customers.map(({ contact }) => contact));
  const receipts = groupBy(
    (await receiptsOf(work, setup.client.id, rule.code, from, until, only)).filter(({ contact }) =>
      known.has(contact),
    ),
    ({ contact }) => contact,
  );
  const charges = groupBy(
    await chargesOf(work, setup.client.id, rule.code, from, to, only),
    ({ contact }) => contact,
  );
  return customers.flatMap(({ taxNumber, deducts, ...customer }) => {
    const own = receipts.get(customer.contact) ?? [];
    const charged = charges.get(customer.contact) ?? [];
    if (own.length === 0 && charged.length === 0 && customer.opening === 0) return [];
    const identification = identificationIn(rule, taxNumber);
    return {
      ...customer,
      deducts: deducts === 1,
      identification,
      receipts: collectedOnReceipts(
        rule,
        schedules,
        identification !== null,
        customer.opening,
        own.map(({ contact: _, ...receipt }) => ({
          ...receipt,
          collects: deducts === 0 && wayOn(receipt.date) !== "no",
        })),
      ),
      charges: charged.map(({ contact: _, ...charge }) => charge),
    };
  });
}

/** Customers here, with their number and what they paid in a year before these books; `only` one of them. */
export async function customersOf(
  work: Work,
  { client }: ClientSetup,
  { deducts }: CollectionRule,
  year: string,
  only: number | null,
): Promise<Customer[]> {
  return work.rows<Customer>(
    `SELECT c.id AS contact, c.name, c.tax_number AS taxNumber,
       c.standing ->> ('$.' || $4) IS NOT NULL AS deducts, coalesce(o.amount, 0) AS opening, coalesce(o.evidence, '') AS evidence
     FROM contacts c LEFT JOIN collection_openings o ON o.contact_id = c.id AND o.year = $3
     WHERE c.client_id = $1 AND coalesce(c.country, $2) = $2 AND ($5 IS NULL OR c.id = $5)
     ORDER BY c.name COLLATE NOCASE, c.id`,
    [client.id, client.country, year, deducts.standing, only],
  );
}

type Row = Omit<CustomerReceipt, "collects"> & { contact: number };

const paidAtOnce = ({ direction, counter }: KindDefinition) => direction === "sale" && counter === "bank";

/** What customers paid, receipts and cash sales, without the part that is for services or for the tax itself. */
async function receiptsOf(
  work: Work,
  clientId: number,
  code: string,
  from: string,
  to: string,
  only: number | null,
): Promise<Row[]> {
  const paid = await work.rows<{ id: number; date: string; number: string; contact: number; base: number }>(
    `SELECT id, date, number, contact_id AS contact, base FROM payments p
     WHERE client_id = $1 AND state = 'posted' AND ${movesMoney("p", true)} AND date BETWEEN $2 AND $3
       AND contact_id IS NOT NULL AND ($4 IS NULL OR contact_id = $4)`,
    [clientId, from, to, only],
  );
  const parts = await work.rows<{ payment: number; base: number; gross: number; apart: number }>(
    `SELECT a.payment_id AS payment, a.base, d.gross, ${apart("$4")} AS apart
     FROM payments p JOIN allocations a ON a.payment_id = p.id AND a.live = 1 JOIN documents d ON d.id = a.document_id
       JOIN lines l ON l.document_id = d.id
     WHERE p.client_id = $1 AND p.state = 'posted' AND ${movesMoney("p", true)} AND p.date BETWEEN $2 AND $3
       AND ($5 IS NULL OR p.contact_id = $5) GROUP BY a.id`,
    [clientId, from, to, code, only],
  );
  const byPayment = groupBy(parts, ({ payment }) => payment);
  const receipts = paid.map(({ id, base, ...receipt }): Row => {
    const own = byPayment.get(id) ?? [];
    const notCounted = own.reduce((sum, part) => sum + shareApart(part, part.base), 0);
    const settled = own.reduce((sum, part) => sum + part.base, 0);
    return {
      ...receipt,
      ref: `payment/${id}`,
      paid: base,
      amount: base - notCounted,
      advance: base - settled,
    };
  });
  const cash = await work.rows<{
    id: number;
    date: string;
    number: string;
    contact: number;
    gross: number;
    apart: number;
  }>(
    `SELECT d.id, d.date, d.number, d.contact_id AS contact, d.gross, ${apart("$4")} AS apart
     FROM documents d JOIN lines l ON l.document_id = d.id
     WHERE d.client_id = $1 AND d.state = 'posted' AND ${inKinds("d.kind", paidAtOnce)} AND d.date BETWEEN $2 AND $3
       AND d.contact_id IS NOT NULL AND ($5 IS NULL OR d.contact_id = $5) GROUP BY d.id`,
    [clientId, from, to, code, only],
  );
  return [
    ...receipts,
    ...cash.map(({ id, gross, apart: notCounted, ...sale }): Row => ({
      ...sale,
      ref: `document/${id}`,
      paid: gross,
      amount: gross - notCounted,
      advance: 0,
    })),
  ].sort((a, b) => (a.date === b.date ? (a.ref < b.ref ? -1 : 1) : a.date < b.date ? -1 : 1));
}

/** Lines that charged the tax, credit notes against it. */
async function chargesOf(
  work: Work,
  clientId: number,
  code: string,
  from: string,
  to: string,
  only: number | null,
): Promise<(Charge & { contact: number })[]> {
  return work.rows(
    `SELECT d.id AS document, d.number, d.date, d.contact_id AS contact, l.attributes ->> '$.collected' AS kind,
       l.gross * ${signOf("d.kind")} AS amount
     FROM documents d JOIN lines l ON l.document_id = d.id
     WHERE d.client_id = $1 AND d.state = 'posted' AND d.date BETWEEN $2 AND $3 AND l.code = $4
       AND ($5 IS NULL OR d.contact_id = $5) ORDER BY d.date, d.id, l.no`,
    [clientId, from, to, code, only],
  );
}

/** What is collected of a customer on receipts, what was charged for it, and what is left to charge. */
export function sumsOf({ receipts, charges }: CustomerYear): {
  received: number;
  excess: number;
  tax: number;
  charged: number;
  left: number;
} {
  const tax = receipts.reduce((sum, one) => sum + one.tax, 0);
  const charged = charges.filter(({ kind }) => kind === null).reduce((sum, { amount }) => sum + amount, 0);
  return {
    received: receipts.reduce((sum, { receipt }) => sum + receipt.amount, 0),
    excess: receipts.reduce((sum, { excess }) => sum + excess, 0),
    tax,
    charged,
    left: tax - charged,
  };
}
