import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import sqlite3 from "sqlite3";
import { afterAll, beforeAll, expect, test, vi } from "vitest";
import { apartSums } from "../dist/books/agree/balances/apart.js";
import { createClient } from "../dist/books/createClient.js";
import { trialBalance } from "../dist/books/ledger.js";
import { loadSetup } from "../dist/books/loadSetup.js";
import { openItemFigures, openItemTables } from "../dist/books/agree/balances/openItems.js";
import { findingsOf } from "../dist/books/findings/service.js";
import { openItems } from "../dist/books/payments/queries.js";
import { boxesNow } from "../dist/books/returns/evaluation.js";
import { periodTiles } from "../dist/books/returns/periods.js";
import { documentPage } from "../dist/features/documents/documentPage.js";
import { Practice } from "../dist/practice/practice.js";
import type { HeldWork } from "../dist/practice/practice.js";

const dataDir = mkdtempSync(join(tmpdir(), "fiscalon-plans-"));
let practice: Practice;
let held: HeldWork;
let client: number;
beforeAll(async () => {
  practice = await Practice.open(dataDir, "Test person");
  const registration = {
    pack: "gb",
    from: "2025-01-01",
    to: null,
    frequency: "quarterly",
    basis: "accrual",
  } as const;
  ({ client } = await practice.make(await practice.begin(), {
    name: "Plans",
    fill: (work, id) => createClient(work, id, { name: "Plans", country: "GB", registration }),
  }));
  held = await practice.hold(client);
});
afterAll(async () => {
  held.letGo();
  await practice.close();
  rmSync(dataDir, { recursive: true, force: true });
});

/** Every step of the plans of the statements that some work sends. */
async function plansOf(run: () => Promise<unknown>): Promise<string[]> {
  const { database } = held.work;
  const rows = vi.spyOn(database, "rows");
  await run();
  const sent = rows.mock.calls.map(([sql]) => sql);
  rows.mockRestore();
  const file = new sqlite3.Database(database.file, sqlite3.OPEN_READONLY);
  const planOf = (sql: string) =>
    new Promise<{ detail: string }[]>((done, failed) =>
      file.all<{ detail: string }>(`EXPLAIN QUERY PLAN ${sql}`, (error, steps) =>
        error ? failed(error) : done(steps),
      ),
    );
  const plans: { detail: string }[][] = [];
  for (const sql of sent) plans.push(await planOf(sql));
  await new Promise((closed) => file.close(closed));
  return plans.flat().map(({ detail }) => detail);
}

const PAGE = { offset: 0, limit: 100, descending: false };

/** Tables that grow with the age of the books are found through an index, and never walked from end to end. */
const GROWING = /^SCAN (d|documents|p|postings|f|facts|l|lines|e|entries|x|a)( USING INTEGER PRIMARY KEY)?$/;

test.each<[what: string, index: RegExp, run: () => Promise<unknown>]>([
  [
    "open items, by what is open",
    /documents_open/,
    () =>
      openItems(held.work, client, {
        ...PAGE,
        search: "",
        side: "",
        contact: 0,
        document: 0,
        on: "2026-06-30",
      }),
  ],
  [
    "debtors on a day, by what is open and the months of the account",
    /documents_open/,
    () => openItemFigures(held.work, client, "2026-06-30", "receivable"),
  ],
  [
    "why debtors and open items differ, by what is apart",
    /documents_in_ledger_later/,
    () => apartSums(held.work, openItemTables(client, "2026-06-30", "receivable")),
  ],
  [
    "entries of neither document nor payment, by an index of their own",
    /entries_alone/,
    () => apartSums(held.work, openItemTables(client, "2026-06-30", "payable")),
  ],
  [
    "a trial balance, by months and the days of one",
    /month_sums|sqlite_autoindex_month_sums|PRIMARY KEY \(account_id=\? AND month<\?\)/,
    () => trialBalance(held.work, client, "2026-04-01", "2026-06-30"),
  ],
  [
    "documents searched, by three indexes",
    /documents_by_number/,
    () =>
      documentPage(held.work, client, {
        ...PAGE,
        part: "both",
        search: "x",
        kind: "",
        code: "",
        from: "",
        to: "",
        registration: 0,
        state: "posted",
      }),
  ],
  [
    "periods, by the sums of the open ones",
    /SEARCH fact_sums USING PRIMARY KEY \(registration_id=\? AND period_end=\?/,
    async () => {
      const { registrations } = await loadSetup(held.work, client);
      for (const r of registrations) await periodTiles(held.work, r);
    },
  ],
  [
    "findings of a period, uncoded lines and reliefs by indexes of their own",
    /lines_of_code/,
    async () => {
      const setup = await loadSetup(held.work, client);
      for (const r of setup.registrations)
        await findingsOf(
          held.work,
          setup,
          r,
          { from: "2026-04-01", to: "2026-06-30" },
          (await boxesNow(held.work, r, "2026-06-30")).boxes,
        );
    },
  ],
])("%s", async (_what, index, run) => {
  const steps = await plansOf(run);
  expect(steps.some((step) => index.test(step))).toBe(true);
  // The rows of one page stand under the name of documents, too.
  const page = steps.filter((step) => /^(CO-ROUTINE|MATERIALIZE) page$/.test(step)).map(() => "SCAN d");
  expect(steps.filter((step) => GROWING.test(step))).toEqual(page);
});
