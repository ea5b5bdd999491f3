import type { Caller } from "./caller.ts";
import { addDays } from "./quarters.ts";

interface OpenItem {
  document: number;
  kind: string;
  number: string;
  date: string;
  contact: number | null;
  currency: string;
  open: number;
}

/** Days a debtor or creditor usually has. */
const TERM = 30;
/** One in so many stays unpaid. */
const FORGOTTEN = 40;
const MOST_ALLOCATIONS = 200;

/**
 * Pays what is open by party and quarter, a month after its end, as payment runs do; a few documents stay unpaid. Only
 * money of the books, and only where tax does not wait for payment.
 */
export async function payOpenItems(call: Caller, client: number, today: string): Promise<void> {
  const { currency, registrations } = await call<{ currency: string; registrations: { basis: string }[] }>(
    "GET",
    `/clients/${client}`,
  );
  if (registrations.some(({ basis }) => basis !== "accrual")) return;
  const runs = new Map<string, OpenItem[]>();
  for (const item of await allOpen(call, client, today)) {
    const credit = item.kind.endsWith("credit-note");
    if (credit || item.contact === null || item.currency !== currency || item.document % FORGOTTEN === 0)
      continue;
    const paid = addDays(quarterEnd(item.date), TERM);
    if (paid > today) continue;
    const side = item.kind === "sales-invoice" ? "receipt" : "payment";
    const key = JSON.stringify([side, item.contact, paid]);
    runs.set(key, [...(runs.get(key) ?? []), item]);
  }
  for (const [key, items] of runs) {
    const [kind, contact, date] = JSON.parse(key) as [string, number, string];
    for (let at = 0; at < items.length; at += MOST_ALLOCATIONS) {
      const allocations = items
        .slice(at, at + MOST_ALLOCATIONS)
        .map(({ document, open }) => ({ document, amount: (open / 100).toFixed(2) }));
      const sum = items.slice(at, at + MOST_ALLOCATIONS).reduce((total, { open }) => total + open, 0);
      await call("POST", `/clients/${client}/payments`, {
        kind,
        date,
        contact,
        amount: (sum / 100).toFixed(2),
        allocations,
      });
    }
  }
}

async function allOpen(call: Caller, client: number, today: string): Promise<OpenItem[]> {
  const items: OpenItem[] = [];
  for (;;) {
    const page = await call<{ total: number; rows: OpenItem[] }>(
      "GET",
      `/clients/${client}/open-items?limit=500&offset=${items.length}&on=${today}`,
    );
    items.push(...page.rows);
    if (page.rows.length === 0 || items.length >= page.total) return items;
  }
}

/** Last day of the calendar quarter a day lies in. */
function quarterEnd(day: string): string {
  const year = Number(day.slice(0, 4));
  const quarter = Math.floor((Number(day.slice(5, 7)) - 1) / 3);
  return addDays(new Date(Date.UTC(year, quarter * 3 + 3, 1)).toISOString().slice(0, 10), -1);
}
