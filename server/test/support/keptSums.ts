import { expect } from "vitest";
import type { BalanceView } from "@fiscalon/contract/balances";
import { bringsMoney } from "@fiscalon/core/model/documentKinds";
import type { DocumentKind } from "@fiscalon/core/model/documentKinds";
import { inBooks, inBooksOf } from "./sound.ts";
import type { TestServer } from "./testServer.ts";

/** 1 where the money of a document `d` comes in, -1 where it goes out, by side; 0 on the other side. */
const WAYS = {
  receivable: `CASE d.kind WHEN 'sales-invoice' THEN 1 WHEN 'sales-credit-note' THEN -1 ELSE 0 END`,
  payable: `CASE WHEN d.kind IN ('purchase-bill', 'import-declaration', 'self-billed-bill') THEN -1
    WHEN d.kind = 'purchase-credit-note' THEN 1 ELSE 0 END`,
};
type Side = keyof typeof WAYS;

/** What entries have on the account of a side. */
const onAccounts = (side: Side, where: string) => `coalesce((SELECT sum(p.amount) FROM entries e
  JOIN postings p ON p.entry_id = e.id AND p.live = 1 JOIN accounts a ON a.id = p.account_id AND a.role = '${side}' WHERE ${where}), 0)`;
const restOf = (
  side: Side,
) => `${onAccounts(side, "e.payment_id = y.id")} + coalesce((SELECT sum(${WAYS[side]} * x.base)
  FROM allocations x JOIN documents d ON d.id = x.document_id WHERE x.payment_id = y.id AND x.live = 1), 0)`;
const ownOn = (side: Side) =>
  `abs(${WAYS[side]}) * ${onAccounts(side, "e.document_id = d.id AND e.payment_id IS NULL AND p.date = d.ledger_date")}`;

const BOTH_WAYS: readonly (readonly [string, string])[] = [
  [
    "SELECT account_id, month, amount FROM month_sums WHERE amount <> 0",
    `SELECT account_id, substr(date, 1, 7), sum(amount) FROM postings WHERE live = 1 GROUP BY 1, 2 HAVING sum(amount) <> 0`,
  ],
  [
    `SELECT registration_id, period_end, bucket, net, tax, recoverable, base, count FROM fact_sums WHERE count <> 0`,
    `SELECT registration_id, period_end, bucket, sum(net), sum(tax), sum(recoverable), sum(base), count(*)
     FROM facts WHERE live = 1 AND registration_id IS NOT NULL AND period_end IS NOT NULL GROUP BY 1, 2, 3`,
  ],
  [
    "SELECT id, settled, settled_base FROM documents WHERE settled <> 0 OR settled_base <> 0",
    `SELECT document_id, sum(amount + difference), sum(base) FROM allocations WHERE live = 1
     GROUP BY 1 HAVING sum(amount + difference) <> 0 OR sum(base) <> 0`,
  ],
  [
    "SELECT document_id, amount FROM document_gaps WHERE amount <> 0",
    `SELECT * FROM (SELECT d.id, (d.state = 'posted') * (${WAYS.receivable} + ${WAYS.payable}) * d.gross
       - ${ownOn("receivable")} - ${ownOn("payable")} AS amount FROM documents d) WHERE amount <> 0`,
  ],
  [
    "SELECT payment_id, debtors, creditors FROM payment_gaps WHERE debtors <> 0 OR creditors <> 0",
    `SELECT * FROM (SELECT y.id, ${restOf("receivable")} AS debtors, ${restOf("payable")} AS creditors FROM payments y)
     WHERE debtors <> 0 OR creditors <> 0`,
  ],
  [
    "SELECT terminal_id, day, document_id, count, gross, fees, surcharge, tips, refunds FROM terminal_sums",
    `SELECT terminal_id, day, coalesce(document_id, 0), count(*), sum(payload ->> 'gross'), sum(payload ->> 'fee'),
       sum(payload ->> 'surcharge'), sum(payload ->> 'tip'),
       coalesce(sum(CASE WHEN payload ->> 'kind' = 'refund' THEN payload ->> 'gross' END), 0)
     FROM terminal_transactions GROUP BY 1, 2, 3`,
  ],
  [
    "SELECT account_id, entry_id, amount, lines FROM bank_gaps",
    `SELECT account, entry, posted, lines FROM (
       SELECT a.id AS account, e.id AS entry,
         coalesce((SELECT sum(amount) FROM postings WHERE entry_id = e.id AND account_id = a.id AND live = 1), 0) AS posted,
         (SELECT count(*) FROM bank_lines WHERE entry_id = e.id AND account = a.code) AS lines,
         coalesce((SELECT sum(amount) FROM bank_lines WHERE entry_id = e.id AND account = a.code), 0) AS taken,
         (SELECT max(date <> e.date) FROM bank_lines WHERE entry_id = e.id AND account = a.code) AS later
       FROM accounts a JOIN entries e ON e.client_id = a.client_id
       WHERE a.code IN (SELECT account FROM bank_lines)) WHERE posted <> taken OR later = 1`,
  ],
];

/** What is kept as a sum is the sum, in the books of every client. */
export async function expectKeptSums(on: TestServer, since = 0): Promise<void> {
  for (const [kept, summed] of BOTH_WAYS)
    for (const sql of [`${kept} EXCEPT ${summed}`, `${summed} EXCEPT ${kept}`])
      expect(await inBooks(on, `SELECT * FROM (${sql})`, since)).toEqual([]);
}

/** Documents and payments that are kept as perhaps apart. */
export async function partyGaps(on: TestServer, base: string): Promise<object[]> {
  const client = base.split("/")[2] ?? "";
  return [
    ...(await inBooksOf<object>(on, client, "SELECT * FROM document_gaps ORDER BY document_id")),
    ...(await inBooksOf<object>(on, client, "SELECT * FROM payment_gaps ORDER BY payment_id")),
  ];
}

interface Rows {
  documents: { id: number; kind: DocumentKind; state: string; date: string; ledger: string; gross: number }[];
  payments: { id: number; state: string; date: string }[];
  postings: {
    entry: number;
    document: number | null;
    payment: number | null;
    date: string;
    amount: number;
  }[];
  allocations: { payment: number; document: number; base: number }[];
}

const SIDES = {
  receivable: ["sales-invoice", "sales-credit-note"],
  payable: ["purchase-bill", "purchase-credit-note", "import-declaration", "self-billed-bill"],
};

/**
 * What debtors and creditors and the open items hold apart on days, worked out once more from every document, payment
 * and entry, one by one and without any sum that is kept, against what the server says.
 */
export async function expectPartiesApart(
  on: TestServer,
  base: string,
  days: readonly string[],
): Promise<void> {
  const client = base.split("/")[2] ?? "";
  const sides = await Promise.all(
    Object.entries(SIDES).map(async ([side, kinds]) => ({
      side,
      kinds,
      rows: await rowsOf(on, client, side),
    })),
  );
  for (const day of days) {
    const views = await on.ok<BalanceView[]>("GET", `${base}/balances?on=${day}`);
    for (const { side, kinds, rows } of sides) {
      const view = views.find(({ id }) => id === side);
      if (!view) continue;
      const told = Object.fromEntries(
        view.causes.map(({ id, amount, rows: count }) => [id, [amount, count]]),
      );
      expect([day, side, view.rest, told]).toEqual([day, side, 0, apartOn(rows, kinds, day)]);
    }
  }
}

async function rowsOf(on: TestServer, client: string, role: string): Promise<Rows> {
  const ask = <T>(sql: string) => inBooksOf<T>(on, client, sql);
  return {
    documents: await ask("SELECT id, kind, state, date, ledger_date AS ledger, gross FROM documents"),
    payments: await ask("SELECT id, state, date FROM payments"),
    postings: await ask(
      `SELECT p.entry_id AS entry, e.document_id AS document, e.payment_id AS payment, p.date, p.amount
       FROM postings p JOIN entries e ON e.id = p.entry_id JOIN accounts a ON a.id = p.account_id
       WHERE p.live = 1 AND a.role = '${role}'`,
    ),
    allocations: await ask(
      "SELECT payment_id AS payment, document_id AS document, base FROM allocations WHERE live = 1",
    ),
  };
}

function apartOn(
  { documents, payments, postings, allocations }: Rows,
  kinds: readonly string[],
  day: string,
): Record<string, [number, number]> {
  const found: Record<string, [number, number]> = {};
  const tell = (cause: string, amount: number) => {
    if (amount === 0) return;
    const [sum, count] = found[cause] ?? [0, 0];
    found[cause] = [sum + amount, count + 1];
  };
  const way = (kind: DocumentKind) => (bringsMoney(kind) ? 1 : -1);
  const upTo = postings.filter(({ date }) => date <= day);
  const total = (list: readonly { amount: number }[]) => list.reduce((sum, { amount }) => sum + amount, 0);
  const open = documents.filter(
    ({ kind, state, date, ledger }) =>
      state === "posted" && kinds.includes(kind) && (date <= day || ledger <= day),
  );
  for (const { id, kind, date, gross } of open) {
    const own = upTo.filter(({ document, payment }) => document === id && payment === null);
    const due = date <= day ? way(kind) * gross : 0;
    tell(date <= day && own.length === 0 ? "late" : "posted", due - total(own));
  }
  for (const { id, state, date } of payments) {
    const settled = allocations.map(({ payment, document, base }) => {
      const of = documents.find((one) => one.id === document);
      const counts = payment === id && state === "posted" && date <= day && of?.state === "posted";
      return counts && kinds.includes(of.kind) && of.date <= day ? -way(of.kind) * base : 0;
    });
    const paid = total(upTo.filter(({ payment }) => payment === id));
    tell("account", settled.reduce((sum, one) => sum + one, 0) - paid);
  }
  const rest = upTo.filter(
    ({ document, payment }) =>
      payment === null && (document === null || !open.some(({ id }) => id === document)),
  );
  for (const entry of new Set(rest.map((one) => one.entry)))
    tell("journals", -total(rest.filter((one) => one.entry === entry)));
  return found;
}
