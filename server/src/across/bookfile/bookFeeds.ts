import { tradingDay } from "@fiscalon/core/calendar/tradingDay";
import { FiscalError } from "@fiscalon/core/errors";
import type { TerminalMapping, TerminalTransaction } from "@fiscalon/core/incoming/terminalDay";
import { formatAmount, parseAmount } from "@fiscalon/core/money/amount";
import type { BookFile } from "@fiscalon/contract/book";
import type { BookBank, BookTerminal } from "@fiscalon/contract/bookFeeds";
import type { Work, Writing } from "../../base/work.ts";
import { groupBy } from "@fiscalon/core/groupBy";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { insertTerminal } from "../../features/terminals/service.ts";
import { placedAt, pointerTo } from "./pointers.ts";
import type { PlacedRows, RowsOf } from "./pointers.ts";

/** Accounts of the bank with their lines, and what each line is. The consent to read them stays behind. */
export async function bankOfBook(
  work: Work,
  { client, plain }: ClientSetup,
  rowsOf: RowsOf,
): Promise<BookBank[]> {
  const accounts = await work.rows<{ account: string; number: string | null }>(
    `SELECT x.account, b.number FROM (SELECT account FROM bank_accounts WHERE client_id = $1
       UNION SELECT account FROM bank_lines WHERE client_id = $1) x
     LEFT JOIN bank_accounts b ON b.client_id = $1 AND b.account = x.account ORDER BY x.account`,
    [client.id],
  );
  const lines = groupBy(
    await work.rows<{
      account: string;
      id: string;
      date: string;
      amount: number;
      party: string;
      text: string;
      reference: string;
      source: string;
      reason: string | null;
      state: string;
      entry: number | null;
      document: number | null;
      payment: number | null;
    }>(
      `SELECT l.account, l.external_id AS id, l.date, l.amount, l.party, l.text, l.reference, l.source, l.reason, l.state,
         l.entry_id AS entry, e.document_id AS document, e.payment_id AS payment
       FROM bank_lines l LEFT JOIN entries e ON e.id = l.entry_id WHERE l.client_id = $1 ORDER BY l.date, l.id`,
      [client.id],
    ),
    (line) => line.account,
  );
  return accounts.map(({ account, number }) => ({
    account,
    ...(number === null ? {} : { number }),
    lines: (lines.get(account) ?? []).map(
      ({ account: _own, entry, document, payment, state, reason, amount, ...line }) => {
        const of =
          pointerTo(rowsOf, "documents", document) ??
          pointerTo(rowsOf, "payments", payment) ??
          pointerTo(rowsOf, "taxPayments", entry);
        return {
          ...line,
          amount: formatAmount(amount, plain.digits),
          ...(of === null ? {} : { entry: of }),
          ...(state === "ignored" ? { ignored: reason ?? "" } : {}),
        };
      },
    ),
  }));
}

/** Card terminals with what they took. The operator's token stays behind. */
export async function terminalsOfBook(
  work: Work,
  { client, plain }: ClientSetup,
  rowsOf: RowsOf,
): Promise<BookTerminal[]> {
  const terminals = await work.rows<
    Omit<BookTerminal, "mapping" | "transactions"> & { own: number; mapping: string }
  >(
    `SELECT id AS own, merchant, name, zone, cut_off AS cutOff, start, mapping, cursor AS seenTo,
       payout_cursor AS payoutsSeenTo
     FROM terminals WHERE client_id = $1 ORDER BY id`,
    [client.id],
  );
  const money = (amount: number) => formatAmount(amount, plain.digits);
  return Promise.all(
    terminals.map(async ({ own, mapping, ...terminal }) => {
      const rows = await work.rows<{ payload: string; document: number | null }>(
        "SELECT payload, document_id AS document FROM terminal_transactions WHERE terminal_id = $1 ORDER BY id",
        [own],
      );
      return {
        ...terminal,
        mapping: JSON.parse(mapping) as TerminalMapping,
        transactions: rows.map(({ payload, document }) => {
          const transaction = JSON.parse(payload) as TerminalTransaction;
          const of = pointerTo(rowsOf, "documents", document);
          return {
            id: transaction.id,
            at: transaction.at,
            kind: transaction.kind,
            gross: money(transaction.gross),
            items: transaction.items.map((item) => ({ ...item, amount: money(item.amount) })),
            surcharge: money(transaction.surcharge),
            tip: money(transaction.tip),
            fee: money(transaction.fee),
            ...(of === null ? {} : { document: of }),
          };
        }),
      };
    }),
  );
}

/** Puts accounts of the bank and their lines in their tables, after everything they are matched with. */
export async function addBank(
  work: Writing,
  setup: ClientSetup,
  { bank = [] }: BookFile,
  placed: PlacedRows,
): Promise<void> {
  const { createdAt, createdBy } = work.made;
  for (const [index, { account, number, lines }] of bank.entries()) {
    if (!setup.accountIds.has(account)) {
      const words = `There is no account ${account}.`;
      throw new FiscalError("ledger/unknown-account", words, `bank[${index}].account`);
    }
    if (number !== undefined) {
      await work.run(
        "INSERT INTO bank_accounts (client_id, account, number, created_at, created_by) VALUES ($1, $2, $3, $4, $5)",
        [setup.client.id, account, number, createdAt, createdBy],
      );
    }
    const rows = lines.map(({ entry, ignored, amount, ...line }, at) => ({
      ...line,
      amount: parseAmount(amount, setup.plain.digits),
      of: entry === undefined ? null : placedAt(placed, entry, `bank[${index}].lines[${at}].entry`),
      ignored: ignored ?? null,
    }));
    await work.run(
      `INSERT INTO bank_lines (client_id, account, created_at, created_by, external_id, date, amount, party, text,
         reference, source, reason, entry_id, state)
       SELECT $1, $2, $3, $4, l.value ->> 'id', l.value ->> 'date', l.value ->> 'amount', l.value ->> 'party',
         l.value ->> 'text', l.value ->> 'reference', l.value ->> 'source', l.value ->> 'ignored', e.id,
         CASE WHEN e.id IS NOT NULL THEN 'matched' WHEN l.value ->> 'ignored' IS NOT NULL THEN 'ignored' ELSE 'open' END
       FROM json_each($5) l LEFT JOIN entries e ON e.client_id = $1 AND e.live = 1 AND
         CASE l.value ->> '$.of.list' WHEN 'documents' THEN e.document_id WHEN 'payments' THEN e.payment_id ELSE e.id END
           = l.value ->> '$.of.id'
       ORDER BY l.key`,
      [setup.client.id, account, createdAt, createdBy, JSON.stringify(rows)],
    );
  }
}

/** Puts terminals and what they took in their tables, each transaction with the summary it is in. */
export async function addTerminals(
  work: Writing,
  setup: ClientSetup,
  { terminals = [] }: BookFile,
  placed: PlacedRows,
): Promise<void> {
  const { digits } = setup.plain;
  const money = (amount: string) => parseAmount(amount, digits);
  for (const [index, { transactions, seenTo, payoutsSeenTo, ...terminal }] of terminals.entries()) {
    const path = `terminals[${index}]`;
    const id = await insertTerminal(work, setup, { ...terminal, token: "" }, path);
    await work.run("UPDATE terminals SET cursor = $2, payout_cursor = $3 WHERE id = $1", [
      id,
      seenTo,
      payoutsSeenTo,
    ]);
    const rows = transactions.map(({ document, ...one }, at) => ({
      payload: {
        ...one,
        gross: money(one.gross),
        items: one.items.map((item) => ({ ...item, amount: money(item.amount) })),
        surcharge: money(one.surcharge),
        tip: money(one.tip),
        fee: money(one.fee),
      },
      day: tradingDay(one.at, terminal.zone, terminal.cutOff),
      document:
        document === undefined ? null : placedAt(placed, document, `${path}.transactions[${at}].document`).id,
    }));
    await work.run(
      `INSERT INTO terminal_transactions (terminal_id, created_at, external_id, at, day, payload, document_id)
       SELECT $1, $2, value ->> '$.payload.id', value ->> '$.payload.at', value ->> 'day', value -> 'payload',
         value ->> 'document'
       FROM json_each($3) ORDER BY key`,
      [id, work.at, JSON.stringify(rows)],
    );
  }
}
