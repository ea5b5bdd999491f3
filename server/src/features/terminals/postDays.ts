import { feesOfDay, summaryOfDay, unmappedTaxes } from "@fiscalon/core/feeds/terminalDay";
import type { TerminalTransaction } from "@fiscalon/core/feeds/terminalDay";
import { accountInRole } from "@fiscalon/core/ledger/account";
import { formatAmount } from "@fiscalon/core/money/amount";
import type { DocumentInput } from "@fiscalon/core/tax/documentInput";
import type { TerminalReport } from "@fiscalon/contract/terminals";
import type { Actor } from "../../actor.ts";
import type { Database, Tx } from "../../db/database.ts";
import { groupBy } from "../../groupBy.ts";
import type { ClientSetup } from "../clients/loadSetup.ts";
import { postDocuments } from "../documents/postDocuments.ts";
import type { NewDocument } from "../documents/postDocuments.ts";
import type { Payout } from "./operator.ts";
import type { Terminal } from "./service.ts";

/** Posts one summary and one fee bill for each trading day up to `over` that has transactions without one. */
export async function postDays(
  db: Database,
  tx: Tx,
  actor: Actor,
  setup: ClientSetup,
  terminal: Terminal,
  over: string,
): Promise<Pick<TerminalReport, "days" | "bills" | "unmapped">> {
  const rows = await db.rows<{ id: number; day: string; payload: string }>(
    `SELECT id, day, payload FROM terminal_transactions
     WHERE terminal_id = $1 AND document_id IS NULL AND day <= $2 ORDER BY day, at, id`,
    [terminal.id, over],
    tx,
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
  const numbers = await numbersUsed(db, tx, setup.client.id, terminal);
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
  const ids = await postDocuments(db, tx, actor, setup, documents);
  const links = summaries.flatMap(({ at, ids: own }) => own.map((id) => [id, ids[at]]));
  await db.run(
    `UPDATE terminal_transactions SET document_id = t.value ->> 1 FROM json_each($1) t
     WHERE terminal_transactions.id = t.value ->> 0`,
    [JSON.stringify(links)],
    tx,
  );
  return { days: summaries.length, bills: documents.length - summaries.length, unmapped: [] };
}

function newDocument(input: DocumentInput & { number: string }, sourceKey: string): NewDocument {
  return { input, contact: null, place: null, sourceKey };
}

/** Numbers of summaries the terminal has, also those taken out again. */
async function numbersUsed(db: Database, tx: Tx, clientId: number, { name }: Terminal): Promise<Set<string>> {
  const rows = await db.rows<{ number: string }>(
    "SELECT number FROM documents WHERE client_id = $1 AND kind = 'terminal-summary' AND number LIKE $2",
    [clientId, `${name} %`],
    tx,
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

/** Payouts move takings from transit to the bank; each is posted once, whatever is fetched again. */
export async function postPayouts(
  db: Database,
  tx: Tx,
  actor: Actor,
  setup: ClientSetup,
  terminal: Terminal,
  payouts: readonly Payout[],
): Promise<number> {
  const keys = payouts.map(({ id }) => `payout:${terminal.merchant}:${id}`);
  const known = await db.rows<{ key: string }>(
    `SELECT source_key AS key FROM documents WHERE client_id = $1 AND source_key IN (SELECT value FROM json_each($2))`,
    [setup.client.id, JSON.stringify(keys)],
    tx,
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
  await postDocuments(db, tx, actor, setup, documents);
  return documents.length;
}
