import type { Caller } from "./caller.ts";

/** A customer without a number, so that the higher rate holds. */
export const UNKNOWN_CUSTOMER = {
  id: "c90",
  name: "Hosur Drapers",
  country: "IN",
  region: "TN",
  registered: false,
};

/** What three customers paid in the last fiscal year in which income tax was collected on it. */
const RECEIPTS: readonly (readonly [contact: string, invoiced: string, paid: string, amount: string])[] = [
  ["c0", "2024-04-18", "2024-05-20", "1850000.00"],
  ["c0", "2024-08-08", "2024-09-12", "2100000.00"],
  // This one passes 50 lakh.
  ["c0", "2024-12-02", "2025-01-15", "2240000.00"],
  ["c0", "2025-02-20", "2025-03-25", "960000.00"],
  // From here on nothing is collected any more.
  ["c0", "2025-03-12", "2025-04-10", "880000.00"],
  ["c1", "2024-05-06", "2024-06-11", "3900000.00"],
  [UNKNOWN_CUSTOMER.id, "2024-06-01", "2024-07-01", "3300000.00"],
  [UNKNOWN_CUSTOMER.id, "2024-11-04", "2024-12-05", "2150000.00"],
];

const numberOf = (index: number) => `HB/${String(index + 1).padStart(3, "0")}`;

/** The invoices of those books, brought forward: their tax was declared before these books begin. */
export const olderInvoices = RECEIPTS.map(([contact, date, , amount], index) => ({
  kind: "sales-invoice",
  number: numberOf(index),
  date,
  contact,
  prices: "inclusive",
  opening: true,
  lines: [{ text: "Balance of the books before", amount, code: "S5", account: "4000", supply: "goods" }],
}));

export const olderReceipts = RECEIPTS.map(([contact, , date, amount], index) => ({
  kind: "receipt",
  date,
  contact,
  amount,
  reference: numberOf(index),
  allocations: [{ document: numberOf(index), kind: "sales-invoice", amount }],
}));

/** Charges the first of them what January brought, and pays it over; March, and who is not known, are left. */
export async function chargeJanuary(call: Caller, client: number): Promise<void> {
  const base = `/clients/${client}`;
  const { rows } = await call<{ rows: { contact: number; identification: string | null; left: number }[] }>(
    "GET",
    `${base}/collection/customers?day=2025-01-31`,
  );
  const known = rows.filter(({ identification, left }) => identification !== null && left > 0);
  await call("POST", `${base}/collection/charges`, {
    to: "2025-01-31",
    customers: known.map(({ contact }) => contact),
  });
  const sum = (known.reduce((total, { left }) => total + left, 0) / 100).toFixed(2);
  await call("POST", `${base}/documents`, {
    kind: "journal",
    number: "TCS-JAN",
    date: "2025-02-07",
    lines: [
      { text: "Income tax collected in January, paid over", account: "2350", amount: sum },
      { text: "Income tax collected in January, paid over", account: "1000", amount: `-${sum}` },
    ],
  });
}
