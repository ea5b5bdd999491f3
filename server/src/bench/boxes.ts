import type { Work, Writing } from "../base/work.ts";
import { at } from "@fiscalon/core/at";
import { usualKind } from "@fiscalon/core/model/documentKinds";
import type { Database } from "../db/database.ts";
import { documentPage } from "../features/documents/documentPage.ts";
import { loadSetup } from "../books/loadSetup.ts";
import { postDocuments } from "../books/documents/postDocuments.ts";
import type { NewDocument } from "../books/documents/newDocument.ts";
import { boxesNow } from "../books/returns/evaluation.ts";
import { compareMethods } from "../features/returns/compareMethods.ts";
import { bridgeOver } from "../books/agree/turnover/bridge.ts";
import { trialBalance } from "../books/ledger.ts";
import type { BenchRow, Times } from "./report.ts";
import { benchBooks } from "./benchBooks.ts";
import { inMs, timesOf } from "./report.ts";

const FACTS = 100_000;
const DOCUMENTS = 100_000;
const CODES = ["S20", "R5", "Z", "EX"];

/** The boxes of a period with 100,000 facts, beside one plain SQL aggregate over the same rows. */
export async function boxesBench(dataDir: string): Promise<BenchRow[]> {
  const { work, clientId, end } = await benchBooks(dataDir, "Boxes", fillPeriod);
  const db = work.database;
  const setup = await loadSetup(work, clientId);
  const registration = at(setup.registrations, 0);
  const plain = await timesOf(7, () =>
    db.rows(
      "SELECT sum(net), sum(tax), sum(recoverable) FROM facts WHERE registration_id = $1 AND period_end = '2026-06-30' AND live = 1",
      [registration.id],
    ),
  );
  await fillUp(db, clientId);
  // Outside of a transaction answers are remembered; here each is worked out.
  const worked = (runs: number, run: (work: Work) => Promise<unknown>) =>
    timesOf(runs, () => work.atOneMoment(run));
  const boxes = await worked(7, (work) => boxesNow(work, registration, "2026-06-30"));
  const under = (scheme: string, settings: Record<string, string>) => ({
    ...registration,
    schemes: [{ scheme, from: registration.validFrom, to: null, settings }],
  });
  const flat = under("gb-flat-rate", { sector: "retail" });
  const shared = under("gb-partial-exemption", {
    yearEnds: "3",
    rate: "period",
    percent: "",
    adjusted: "next",
  });
  const underFlat = await worked(5, (work) => boxesNow(work, flat, "2026-06-30"));
  const underShared = await worked(5, (work) => boxesNow(work, shared, "2026-06-30"));
  const compared = await worked(3, (work) => compareMethods(work, setup, registration, {}));
  const page = await worked(5, (work) =>
    documentPage(work, clientId, {
      part: "both",
      search: "",
      kind: "",
      code: "",
      from: "",
      to: "",
      registration: 0,
      state: "posted",
      offset: 0,
      limit: 100,
      descending: false,
    }),
  );
  const balance = await worked(5, (work) => trialBalance(work, clientId, "2026-04-01", "2026-06-30"));
  const span = { from: "2026-04-01", to: "2026-06-30" };
  const bridge = await worked(3, (work) => bridgeOver(work, registration, span));
  const allPostings = await timesOf(5, () =>
    db.rows(
      "SELECT account_id, sum(amount), sum(abs(amount)), count(levy) FROM postings GROUP BY account_id",
    ),
  );
  await end();
  const row = (what: string, times: Times, reference = plain): BenchRow => ({
    what,
    ours: inMs(times),
    reference: `plain SQL sum ${inMs(reference)}`,
    ratio: times.median / reference.median,
  });
  return [
    row("nine boxes of a period with 100,000 facts", boxes),
    row("the same under the flat rate scheme", underFlat),
    row("the same with shared input tax", underShared),
    row("a year by every method", compared),
    row("first page and totals of 100,000 documents", page),
    row("trial balance over 1,000,000 postings", balance),
    row("turnover bridge of the quarter beside 1,000,000 postings", bridge, allPostings),
  ];
}

async function fillPeriod(work: Writing, clientId: number): Promise<void> {
  const setup = await loadSetup(work, clientId);
  for (let from = 0; from < FACTS / 2; from += 5000) {
    const documents = Array.from({ length: 5000 }, (_, n): NewDocument => document(from + n));
    await postDocuments(work, setup, documents);
  }
}

/** The books grow to 100,000 documents and a million postings in another period, row upon row in plain SQL. */
async function fillUp(db: Database, clientId: number): Promise<void> {
  await db.write(async (tx) => {
    await db.run(
      `INSERT INTO documents (client_id, kind, number, date, prices, currency, net, tax, gross, ledger_date, state,
         created_at, created_by)
       SELECT client_id, kind, number || 'x', '2026-01-15', prices, currency, net, tax, gross, '2026-01-15', state,
         created_at, created_by FROM documents WHERE client_id = $1 LIMIT $2`,
      [clientId, DOCUMENTS - FACTS / 2],
      tx,
    );
    for (let times = 0; times < 3; times += 1) {
      await db.run(
        `INSERT INTO postings (entry_id, client_id, account_id, date, amount, line, levy, text)
         SELECT entry_id, client_id, account_id, date('2026-01-15', '-' || (id % 200) || ' days'), amount, line, levy, text
         FROM postings WHERE client_id = $1 LIMIT 260000`,
        [clientId],
        tx,
      );
    }
  });
}

function document(n: number): NewDocument {
  const kind = usualKind(n % 3 === 0 ? "purchase" : "sale", n % 3 !== 0 && n % 20 === 1);
  const line = (k: number) => ({
    amount: `${10 + ((n * 31 + k) % 900)}.${10 + (n % 90)}`,
    code: CODES[(n + k) % 4] ?? "S20",
  });
  return {
    input: {
      kind,
      number: `D${n}`,
      date: `2026-0${4 + (n % 3)}-${10 + (n % 19)}`,
      prices: "exclusive",
      lines: [line(0), line(1)],
    },
    contact: null,
    place: null,
  };
}
