import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { addDays, addMonths, endOfMonth } from "@fiscalon/core/calendar/date";
import { displayAmount } from "@fiscalon/core/money/amount";
import type {
  CollectionCustomer,
  CollectionCustomers,
  CollectionMonth,
  CollectionSheet,
  CollectionView,
} from "@fiscalon/contract/collection";
import { sideOf } from "../../db/kindSql.ts";
import { notFound } from "../../base/errors.ts";
import type { Work } from "../../base/work.ts";
import { collecting, yearOf } from "../../books/collection/collects.ts";
import type { Collecting } from "../../books/collection/collects.ts";
import { customerYears, sumsOf } from "../../books/collection/customerYears.ts";
import type { CustomerYear } from "../../books/collection/customerYears.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { dueDayBy } from "../../books/returns/dueDates.ts";
import type { ReportTable } from "../../exports/reportTable.ts";

/** Months of a quarter. */
const QUARTER = 3;

/** Tax collected from customers in the fiscal year of a day: by month with the day it is paid over, by quarter with its statement. */
export async function collectionView(work: Work, setup: ClientSetup, day: string): Promise<CollectionView> {
  const own = await collecting(work, setup);
  const { rule, registration } = own;
  const year = yearOf(rule, day);
  const customers = await customerYears(work, setup, own, year.to);
  const account = accountOf(setup, "collected-at-source");
  const months: CollectionMonth[] = [];
  for (let from = year.from; from < year.to && from <= work.today; from = addMonths(from, 1)) {
    const to = endOfMonth(from);
    const within = (on: string) => from <= on && on <= to;
    months.push({
      from,
      to,
      onReceipts: sum(
        customers.flatMap(({ receipts }) => receipts).filter(({ receipt }) => within(receipt.date)),
        ({ tax }) => tax,
      ),
      onSales: sum(
        customers.flatMap(({ charges }) => charges).filter(({ kind, date }) => kind !== null && within(date)),
        ({ amount }) => amount,
      ),
      due: dueDayBy({ packs: work.packs, r: registration }, rule.deposit, to),
      paid: account === null ? 0 : await paidOver(work, setup, account, from, to),
    });
  }
  const quarters = [0, 1, 2, 3].map((no) => {
    const from = addMonths(year.from, no * QUARTER);
    const to = addDays(addMonths(from, QUARTER), -1);
    return { from, to, due: dueDayBy({ packs: work.packs, r: registration }, rule.statement.due, to) };
  });
  return {
    years: await yearsOf(work, setup, own),
    year: year.to,
    way: own.wayOn(year.to < work.today ? year.to : work.today),
    name: rule.name,
    says: rule.says,
    source: rule.source,
    above: rule.above,
    from: rule.from,
    to: rule.to,
    identification: rule.identification.name,
    statement: rule.statement.name,
    deducts: rule.deducts.name,
    kinds: rule.kinds.map(({ id, name }) => ({ id, name })),
    account: account ?? "",
    balance: account === null ? 0 : -(await balanceOf(work, setup, account, year.to)),
    months,
    quarters: quarters.filter(({ from }) => from <= work.today),
  };
}

/** Years with receipts, and the one that runs; by their last day, the latest first. */
async function yearsOf(work: Work, { client }: ClientSetup, { rule }: Collecting): Promise<string[]> {
  const { first } = await work.one<{ first: string | null }>(
    `SELECT min(first) AS first FROM (
       SELECT min(date) AS first FROM payments WHERE client_id = $1 AND state = 'posted'
       UNION ALL SELECT min(year) FROM collection_openings WHERE client_id = $1)`,
    [client.id],
  );
  const years: string[] = [];
  const oldest = first ?? work.today;
  for (let to = yearOf(rule, work.today).to; to >= oldest; to = addMonths(to, -12))
    years.push(endOfMonth(to));
  return years.length > 0 ? years : [yearOf(rule, work.today).to];
}

function accountOf(
  { plain }: ClientSetup,
  role: "collected-at-source" | "deducted-at-source",
): string | null {
  return plain.accounts.find((one) => one.role === role)?.code ?? null;
}

async function balanceOf(work: Work, setup: ClientSetup, account: string, to: string): Promise<number> {
  const { balance } = await work.one<{ balance: number }>(
    `SELECT coalesce(sum(amount), 0) AS balance FROM postings
     WHERE client_id = $1 AND live = 1 AND account_id = $2 AND date <= $3`,
    [setup.client.id, setup.accountIds.get(account), to],
  );
  return balance;
}

/** Debits of the account but those of credit notes: what was paid to the authority. */
async function paidOver(
  work: Work,
  setup: ClientSetup,
  account: string,
  from: string,
  to: string,
): Promise<number> {
  const { paid } = await work.one<{ paid: number }>(
    `SELECT coalesce(sum(o.amount), 0) AS paid FROM postings o JOIN entries e ON e.id = o.entry_id
       LEFT JOIN documents d ON d.id = e.document_id
     WHERE o.client_id = $1 AND o.live = 1 AND o.account_id = $2 AND o.date BETWEEN $3 AND $4 AND o.amount > 0
       AND coalesce(${sideOf("d.kind")}, '') <> 'sale'`,
    [setup.client.id, setup.accountIds.get(account), from, to],
  );
  return paid;
}

export interface CustomerFilter {
  day: string;
  search: string;
  /** Only who has something to be charged. */
  left: boolean;
  offset: number;
  limit: number;
  sort?: keyof typeof CUSTOMER_ORDERS;
  descending: boolean;
}

type Compare = (a: CollectionCustomer, b: CollectionCustomer) => number;

/** What customers can be ordered by. */
export const CUSTOMER_ORDERS = {
  name: (a, b) => a.name.localeCompare(b.name),
  received: (a, b) => a.received - b.received,
  tax: (a, b) => a.tax - b.tax,
  left: (a, b) => a.left - b.left,
} as const satisfies Record<string, Compare>;

/** Customers of a fiscal year, by pages; who paid most first. */
export async function collectionCustomers(
  work: Work,
  setup: ClientSetup,
  { day, search, left, offset, limit, sort, descending }: CustomerFilter,
): Promise<CollectionCustomers> {
  const own = await collecting(work, setup);
  const words = search.toLowerCase();
  const rows = (await customerYears(work, setup, own, day))
    .map(rowOf)
    .filter((row) => `${row.name} ${row.identification ?? ""}`.toLowerCase().includes(words))
    .filter((row) => !left || row.left !== 0)
    .sort(sort === undefined ? (a, b) => b.received - a.received : CUSTOMER_ORDERS[sort]);
  if (sort !== undefined && descending) rows.reverse();
  return {
    total: rows.length,
    sum: {
      received: sum(rows, (row) => row.received),
      tax: sum(rows, (row) => row.tax),
      charged: sum(rows, (row) => row.charged),
      left: sum(rows, (row) => row.left),
    },
    rows: rows.slice(offset, offset + limit),
  };
}

function rowOf(customer: CustomerYear): CollectionCustomer {
  const { contact, name, identification, deducts, opening } = customer;
  return { contact, name, identification, deducts, opening, ...sumsOf(customer) };
}

/** A customer's year: every receipt with its running total, and what was charged. */
export async function collectionSheet(
  work: Work,
  setup: ClientSetup,
  contact: number,
  day: string,
): Promise<CollectionSheet> {
  const own = await collecting(work, setup);
  const [customer] = await customerYears(work, setup, own, day, contact);
  if (!customer) throw notFound("This customer's year");
  return {
    ...rowOf(customer),
    evidence: customer.evidence,
    receipts: customer.receipts.map(({ receipt, ...worked }) => ({
      ref: receipt.ref,
      date: receipt.date,
      number: receipt.number,
      paid: receipt.paid,
      amount: receipt.amount,
      ...worked,
    })),
    charges: customer.charges,
  };
}

/** The statement of a quarter: one row a receipt that bears tax, or a sale of a kind of goods. */
export async function statementTable(
  work: Work,
  setup: ClientSetup,
  from: string,
  to: string,
): Promise<ReportTable> {
  const own = await collecting(work, setup);
  const { rule } = own;
  const within = (on: string) => from <= on && on <= to;
  const customers = await customerYears(work, setup, own, to);
  const rows = customers.flatMap(({ name, identification, receipts, charges }) => [
    ...receipts
      .filter(({ receipt, tax }) => tax !== 0 && within(receipt.date))
      .map(({ receipt, excess, rate, tax }) => ({
        on: receipt.date,
        cells: [
          identification ?? "",
          name,
          receipt.date,
          receipt.number,
          "1H",
          receipt.amount,
          excess,
          rate ?? "",
          tax,
        ],
      })),
    ...charges
      .filter(({ kind, date }) => kind !== null && within(date))
      .map(({ kind, date, number, amount }) => ({
        on: date,
        cells: [identification ?? "", name, date, number, kind ?? "", "", "", "", amount],
      })),
  ]);
  rows.sort((a, b) => (a.on < b.on ? -1 : a.on > b.on ? 1 : 0));
  const { digits } = setup.plain;
  const total = sum(rows, ({ cells }) => Number(cells.at(-1)));
  return {
    title: `${rule.statement.name}: ${rule.name}`,
    about: `${setup.client.name}, ${displayDate(from)} to ${displayDate(to)}; above ${displayAmount(rule.above, digits)} a year and customer`,
    digits,
    columns: [
      { name: rule.identification.name, width: 90 },
      { name: "Customer", width: 150 },
      { name: "Date", date: true, width: 70 },
      { name: "Number", width: 80 },
      { name: "Goods", width: 60 },
      { name: "Received", amount: true },
      { name: "Of it above", amount: true },
      { name: "Rate %", width: 50 },
      { name: "Collected", amount: true },
    ],
    rows: [
      ...rows.map(({ cells }) => ({ cells })),
      { cells: ["", "", "", "", "", "", "", "", total], total: true },
    ],
  };
}

function sum<T>(list: readonly T[], of: (one: T) => number): number {
  return list.reduce((all, one) => all + of(one), 0);
}
