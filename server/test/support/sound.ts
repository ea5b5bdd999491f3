import sqlite3 from "sqlite3";
import { readdirSync, statSync } from "node:fs";
import { join } from "node:path";
import { expect } from "vitest";
import type { Land } from "./lands.ts";
import type { Books, Item, Page } from "./life.ts";
import type { TestServer } from "./testServer.ts";

type Balances = { code: string; closing: number }[];
const RANGE = "from=2026-01-01&to=2026-12-31";

/** What holds of any books, whatever was done to them. */
export async function expectSound(
  on: TestServer,
  land: Land,
  { base, registration }: Pick<Books, "base" | "registration">,
) {
  const balances = await on.ok<Balances>("GET", `${base}/trial-balance?${RANGE}`);
  const of = (code: string) => balances.find((row) => row.code === code)?.closing ?? 0;
  expect(balances.reduce((sum, row) => sum + row.closing, 0)).toBe(0);

  // What customers and suppliers owe by the ledger is what is open by document, less what is on account.
  const { rows: items } = await on.ok<Page<Item>>("GET", `${base}/open-items?limit=500`);
  const { rows: payments } = await on.ok<Page<{ kind: string; onAccount: number; state: string }>>(
    "GET",
    `${base}/payments?limit=500`,
  );
  const open = items.reduce((sum, item) => {
    const owed = item.kind === "sales-invoice" || item.kind === "purchase-credit-note" ? 1 : -1;
    return sum + owed * Math.abs(item.open);
  }, 0);
  const onAccount = payments
    .filter(({ state }) => state === "posted")
    .reduce((sum, { kind, onAccount: rest }) => sum + (kind === "receipt" ? -rest : rest), 0);
  expect(of("1100") + of("2100")).toBe(open + onAccount);

  for (const end of land.ends) {
    const control = await on.ok<{ left: number }>("GET", `${registration}/agreements/${end}/control`);
    expect([end, control.left]).toEqual([end, 0]);
    const { findings } = await on.ok<{ findings: { check: string }[] }>(
      "GET",
      `${registration}/returns/${end}`,
    );
    expect([end, ...findings.map(({ check }) => check)]).not.toContain("more-than-rounding");
  }
  return balances;
}

/** Asks the file of the practice itself. */
export function inPractice<T>({ dataDir }: TestServer, sql: string): Promise<T[]> {
  return inFile<T>(join(dataDir, "practice.sqlite"), sql);
}

/**
 * Asks the books of every client themselves; what any of them answers.
 * @param since only those that were written to since, in milliseconds: the others are as they were
 */
export async function inBooks<T>({ dataDir }: TestServer, sql: string, since = 0): Promise<T[]> {
  const clients = readdirSync(join(dataDir, "clients")).filter(
    (client) => writtenAt(bookOf(dataDir, client)) >= since,
  );
  const answers = await Promise.all(clients.map((client) => inFile<T>(bookOf(dataDir, client), sql)));
  return answers.flat();
}

/** Asks the books of one client. */
export function inBooksOf<T>({ dataDir }: TestServer, client: string, sql: string): Promise<T[]> {
  return inFile<T>(bookOf(dataDir, client), sql);
}

function writtenAt(book: string): number {
  const [file, log] = [book, `${book}-wal`].map((path) => statSync(path, { throwIfNoEntry: false }));
  return Math.max(file?.mtimeMs ?? 0, log && log.size > 0 ? log.mtimeMs : 0);
}

const bookOf = (dataDir: string, client: string) => join(dataDir, "clients", client, "books.sqlite");

function inFile<T>(file: string, sql: string): Promise<T[]> {
  const db = new sqlite3.Database(file, sqlite3.OPEN_READONLY);
  return new Promise((resolve, reject) => {
    db.all<T>(sql, (error, rows) => {
      db.close();
      if (error) reject(error);
      else resolve(rows);
    });
  });
}

/** What holds of the file, whoever wrote it last. */
export async function expectWholeDatabase(on: TestServer, since = 0) {
  expect(await inBooks(on, "PRAGMA foreign_key_check", since)).toEqual([]);
  // What is not late is reported in its own period.
  expect(
    await inBooks(
      on,
      `SELECT id FROM facts WHERE live = 1 AND late = 0 AND period_end IS NOT NULL AND own_end IS NOT period_end`,
      since,
    ),
  ).toEqual([]);
  expect(
    await inBooks(
      on,
      `SELECT e.id FROM entries e JOIN postings p ON p.entry_id = e.id WHERE e.live = 1 GROUP BY e.id HAVING sum(p.amount) <> 0`,
      since,
    ),
  ).toEqual([]);
  expect(
    await inBooks(
      on,
      `SELECT l.id FROM bank_lines l JOIN entries e ON e.id = l.entry_id JOIN accounts a ON a.code = l.account AND a.client_id = l.client_id
       WHERE e.live = 0 OR l.amount <> (SELECT sum(p.amount) FROM postings p WHERE p.entry_id = e.id AND p.account_id = a.id)`,
      since,
    ),
  ).toEqual([]);
  expect(
    await inBooks(
      on,
      `SELECT d.id FROM allocations a JOIN documents d ON d.id = a.document_id JOIN payments p ON p.id = a.payment_id
       WHERE a.live = 1 AND (d.state <> 'posted' OR p.state <> 'posted')`,
      since,
    ),
  ).toEqual([]);
  expect(
    await inBooks(
      on,
      `SELECT d.id FROM documents d JOIN (SELECT document_id, sum(amount + difference) AS paid FROM allocations WHERE live = 1
         GROUP BY document_id) a ON a.document_id = d.id WHERE abs(a.paid) > abs(d.gross)`,
      since,
    ),
  ).toEqual([]);
  expect(await on.ok("GET", "/audit")).toMatchObject({ broken: [] });
}
