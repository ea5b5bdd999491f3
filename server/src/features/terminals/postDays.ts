import type { DocumentKind } from "@fiscalon/core/model/documentKinds";
import { feesOfDay, summaryOfDay, unmappedTaxes } from "@fiscalon/core/incoming/terminalDay";
import type { TerminalTransaction } from "@fiscalon/core/incoming/terminalDay";
import { accountInRole } from "@fiscalon/core/model/account";
import { formatAmount } from "@fiscalon/core/money/amount";
import type { DocumentInput } from "@fiscalon/core/model/document";
import type { TerminalReport } from "@fiscalon/contract/terminals";
import type { Writing } from "../../base/work.ts";
import { groupBy } from "@fiscalon/core/groupBy";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { postDocuments } from "../../books/documents/postDocuments.ts";
import type { NewDocument } from "../../books/documents/newDocument.ts";
import type { Payout } from "../../outside/terminalOperator.ts";
import type { Terminal } from "./terminal.ts";

/** Posts one summary and one fee bill for each trading day up to `over` that has transactions without one. */
export async function postDays(
  work: Writing,
  setup: ClientSetup,
  terminal: Terminal,
  over: string,
): Promise<Pick<TerminalReport, "days" | "bills" | "unmapped">> {
  const rows = await work.rows<{ id: number; day: string; payload: string }>(
    `SELECT id, day, payload FROM terminal_transactions
     WHERE terminal_id = $1 AND document_id IS NULL AND day <= $2 ORDER BY day, at, id`,
    [terminal.id, over],
  );
  const waiting = rows.map(({ payload, ...row }) => ({
    ...row,
    one: JSON.parse(payload) as TerminalTransaction,
  }));
  const unmapped = unmappedTaxes(
    waiting.map(({ one }) => one),
    terminal.mapping,
  );
  if (unmapped.length > 0) return { days: 0, bills: 0, unmapped };
  const numbers = await numbersUsed(work, setup.client.id, terminal);
  const documents: NewDocument[] = [];
  const summaries: { at: number; ids: number[] }[] = [];
  for (const [day, own] of groupBy(waiting, (row) => row.day)) {
    const transactions = own.map(({ one }) => one);
    const number = freeNumber(numbers, `${terminal.name} ${day}`);
    const { digits } = setup.plain;
    const summary = summaryOfDay(day, number, transactions, terminal.mapping, digits);
    const fees = feesOfDay(day, number, transactions, terminal.mapping, digits);
    if (summary) {
      summaries.push({ at: documents.length, ids: own.map(({ id }) => id) });
      documents.push(newDocument(summary, `terminal:${terminal.merchant}:${number}`));
    }
    if (fees) documents.push(newDocument(fees, `terminal-fees:${terminal.merchant}:${number}`));
  }
  const ids = await postDocuments(work, setup, documents);
  const links = summaries.flatMap(({ at, ids: own }) => own.map((id) => [id, ids[at]]));
  await work.run(
    `UPDATE terminal_transactions SET document_id = t.value ->> 1 FROM json_each($1) t
     WHERE terminal_transactions.id = t.value ->> 0`,
    [JSON.stringify(links)],
  );
  return { days: summaries.length, bills: documents.length - summaries.length, unmapped: [] };
}

function newDocument(input: DocumentInput & { number: string }, sourceKey: string): NewDocument {
  return { input, contact: null, place: null, sourceKey };
}

/** Numbers of summaries the terminal has, also those taken out again. */
async function numbersUsed(work: Writing, clientId: number, { name }: Terminal): Promise<Set<string>> {
  const rows = await work.rows<{ number: string }>(
    "SELECT number FROM documents WHERE client_id = $1 AND kind = $3 AND number LIKE $2",
    [clientId, `${name} %`, SUMMARY],
  );
  return new Set(rows.map((row) => row.number));
}

/** What came late makes a second summary of the day. */
function freeNumber(used: Set<string>, number: string): string {
  let free = number;
  for (let count = 2; used.has(free); count += 1) free = `${number}/${count}`;
  used.add(free);
  return free;
}

/** The kind of what a terminal took on a day. */
const SUMMARY: DocumentKind = "terminal-summary";

/** Payouts move takings from transit to the bank; each is posted once, whatever is fetched again. */
export async function postPayouts(
  work: Writing,
  setup: ClientSetup,
  terminal: Terminal,
  payouts: readonly Payout[],
): Promise<number> {
  const keys = payouts.map(({ id }) => `payout:${terminal.merchant}:${id}`);
  const known = await work.rows<{ key: string }>(
    `SELECT source_key AS key FROM documents WHERE client_id = $1 AND source_key IN (SELECT value FROM json_each($2))`,
    [setup.client.id, JSON.stringify(keys)],
  );
  const there = new Set(known.map(({ key }) => key));
  const transit = accountInRole(setup.plain.accounts, "card-clearing");
  const fresh = payouts.filter(({ id }) => !there.has(`payout:${terminal.merchant}:${id}`));
  const documents = fresh.map(({ id, date, amount }) => {
    const text = `Payout ${id}, ${terminal.name}`;
    const money = (value: number) => formatAmount(value, setup.plain.digits);
    return newDocument(
      {
        kind: "journal",
        number: `Payout ${id}`,
        date,
        prices: "exclusive",
        lines: [
          { text, account: terminal.mapping.bank, amount: money(amount) },
          { text, account: transit, amount: money(-amount) },
        ],
      },
      `payout:${terminal.merchant}:${id}`,
    );
  });
  await postDocuments(work, setup, documents);
  return documents.length;
}
