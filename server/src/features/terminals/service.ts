import type { Terminal } from "./terminal.ts";
import { addDays } from "@fiscalon/core/calendar/date";
import { localTime, tradingDay } from "@fiscalon/core/calendar/tradingDay";
import { FiscalError, withinField } from "@fiscalon/core/errors";
import type { TerminalMapping, TerminalTransaction } from "@fiscalon/core/incoming/terminalDay";
import { accountInRole } from "@fiscalon/core/model/account";
import type { TerminalBody, TerminalReport } from "@fiscalon/contract/terminals";
import type { Work, Writing } from "../../base/work.ts";
import { notFound } from "../../base/errors.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { postDays, postPayouts } from "./postDays.ts";
import type { Payout, TerminalOperator } from "../../outside/terminalOperator.ts";

/** A terminal of the client. */
export async function terminalOf(work: Work, clientId: number, id: number): Promise<Terminal> {
  const row = await work.row<Omit<Terminal, "mapping"> & { mapping: string }>(
    `SELECT id, merchant, name, token, zone, cut_off AS cutOff, start, mapping, cursor, payout_cursor AS payoutCursor
     FROM terminals WHERE id = $1 AND client_id = $2`,
    [id, clientId],
  );
  if (!row) throw notFound("This terminal");
  return { ...row, mapping: JSON.parse(row.mapping) as TerminalMapping };
}

/** Connects a terminal: the operator checks the key, the mapping is proposed where none is given. */
export async function connectTerminal(
  work: Work,
  clientId: number,
  operator: TerminalOperator,
  body: TerminalBody,
): Promise<number> {
  const token = await operator.authorise(body.merchant, body.key);
  return work.write(async (work) => {
    const setup = await loadSetup(work, clientId);
    const taken = await work.row("SELECT id FROM terminals WHERE client_id = $1 AND merchant = $2", [
      clientId,
      body.merchant,
    ]);
    if (taken) {
      throw new FiscalError("terminal/connected", "This terminal is connected already.", "merchant");
    }
    const id = await insertTerminal(work, setup, { ...body, token }, "");
    const { key: _secret, ...after } = body;
    await work.record({
      action: "connect",
      entity: "terminal",
      id,
      after: { ...after, mapping: (await terminalOf(work, clientId, id)).mapping },
    });
    return id;
  });
}

/**
 * Puts a terminal in its table, with the usual mapping where none is told. Without a token the key must be given before
 * anything can be fetched.
 * @param path where the terminal is in what was sent, for errors
 */
export async function insertTerminal(
  work: Writing,
  setup: ClientSetup,
  terminal: Omit<TerminalBody, "key"> & { token: string },
  path: string,
): Promise<number> {
  const mapping = terminal.mapping ?? proposedMapping(setup);
  if (path === "") checkMapping(setup, mapping);
  else withinField(path, () => checkMapping(setup, mapping));
  const { merchant, name, token, zone, cutOff, start } = terminal;
  const { createdAt, createdBy } = work.made;
  await work.run(
    `INSERT INTO terminals (client_id, merchant, name, token, zone, cut_off, start, mapping, created_at, created_by)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)`,
    [
      setup.client.id,
      merchant,
      name,
      token,
      zone,
      cutOff,
      start,
      JSON.stringify(mapping),
      createdAt,
      createdBy,
    ],
  );
  return (await work.one<{ id: number }>("SELECT last_insert_rowid() AS id")).id;
}

/** Asks the operator for a new token: after the books came with a book file, or when the key was changed. */
export async function authoriseAgain(
  work: Work,
  clientId: number,
  operator: TerminalOperator,
  terminalId: number,
  key: string,
): Promise<void> {
  const { merchant } = await terminalOf(work, clientId, terminalId);
  const token = await operator.authorise(merchant, key);
  await work.write(async (work) => {
    await work.run("UPDATE terminals SET token = $2 WHERE id = $1", [terminalId, token]);
    await work.record({
      action: "authorise",
      entity: "terminal",
      id: terminalId,
      after: { merchant },
    });
  });
}

/** Codes and accounts to begin with: the surcharge like other sales, tips untaxed, fees exempt or as usual. */
function proposedMapping({ client, plain }: ClientSetup): TerminalMapping {
  const sales = accountInRole(plain.accounts, "sales");
  const charges = plain.accounts.find(({ role }) => role === "bank-charges");
  const untaxed = plain.codes.find(
    ({ treatment, direction }) => treatment === "out-of-scope" && direction !== "purchase",
  );
  const usualSale = plain.registrations.length === 0 ? null : client.saleCode;
  return {
    taxes: {},
    surcharge: { code: usualSale, account: sales },
    tip: {
      code: untaxed?.code ?? null,
      account: plain.accounts.find(({ topic }) => topic === "other-income")?.code ?? sales,
    },
    fee: {
      code: charges?.usualCode ?? null,
      account: charges?.code ?? accountInRole(plain.accounts, "purchases"),
    },
    bank: accountInRole(plain.accounts, "bank"),
  };
}

function checkMapping({ accountIds, effect, plain }: ClientSetup, mapping: TerminalMapping): void {
  const bank = plain.accounts.find(({ code }) => code === mapping.bank);
  if (bank?.type !== "asset" && bank?.type !== "liability") {
    throw new FiscalError(
      "terminal/payout-account",
      `Payouts cannot go to ${mapping.bank}. Choose the account of the bank they arrive at.`,
      "mapping.bank",
    );
  }
  const targets = Object.entries(mapping.taxes).map(([name, target]) => [`taxes.${name}`, target] as const);
  for (const [field, { code, account }] of [
    ...targets,
    ["surcharge", mapping.surcharge] as const,
    ["tip", mapping.tip] as const,
    ["fee", mapping.fee] as const,
  ]) {
    if (!accountIds.has(account)) {
      throw new FiscalError(
        "ledger/unknown-account",
        `There is no account ${account}.`,
        `mapping.${field}.account`,
      );
    }
    if (code !== null && !effect.codes.has(code))
      throw new FiscalError("tax/unknown-code", `There is no tax code ${code}.`, `mapping.${field}.code`);
  }
}

/** Changes how the terminal's words become codes and accounts; posted days stay as they are. */
export async function changeMapping(
  work: Work,
  clientId: number,
  terminalId: number,
  mapping: TerminalMapping,
): Promise<void> {
  await work.write(async (work) => {
    const before = await terminalOf(work, clientId, terminalId);
    checkMapping(await loadSetup(work, clientId), mapping);
    await work.run("UPDATE terminals SET mapping = $2 WHERE id = $1", [terminalId, JSON.stringify(mapping)]);
    await work.record({
      action: "change",
      entity: "terminal",
      id: terminalId,
      before: { mapping: before.mapping },
      after: { mapping },
    });
  });
}

/**
 * Fetches everything that is new, and posts every trading day that is over and every payout. Whatever comes a second
 * time is skipped; what comes after its day was posted becomes a further summary of that day.
 */
export async function fetchTerminal(
  work: Work,
  clientId: number,
  operator: TerminalOperator,
  terminalId: number,
): Promise<TerminalReport> {
  const terminal = await terminalOf(work, clientId, terminalId);
  if (terminal.token === "") {
    throw new FiscalError(
      "terminal/not-authorised",
      "The operator does not know these books yet. Give the key of the terminal first.",
    );
  }
  const transactions = await allPages(terminal.cursor, (after) =>
    operator.transactions(terminal.merchant, terminal.token, after),
  );
  const payouts = await allPages(terminal.payoutCursor, (after) =>
    operator.payouts(terminal.merchant, terminal.token, after),
  );
  return work.write(async (work) => {
    const setup = await loadSetup(work, clientId);
    const fresh = await keepTransactions(work, terminal, transactions.rows);
    await work.run("UPDATE terminals SET cursor = $2, payout_cursor = $3 WHERE id = $1", [
      terminalId,
      transactions.cursor,
      payouts.cursor,
    ]);
    const { date, time } = localTime(work.at, terminal.zone);
    const over = time < terminal.cutOff ? addDays(date, -2) : addDays(date, -1);
    const posted = await postDays(work, setup, terminal, over);
    const paid = await postPayouts(work, setup, terminal, payoutsSince(payouts.rows, terminal));
    const report = { fresh, ...posted, payouts: paid };
    await work.record({
      action: "fetch",
      entity: "terminal",
      id: terminalId,
      after: report,
    });
    return report;
  });
}

/** Payouts of takings from before the start are none of these books' business; they come within days. */
function payoutsSince(payouts: readonly Payout[], { start }: Terminal): Payout[] {
  return payouts.filter(({ date }) => date > addDays(start, 1));
}

async function allPages<T>(
  from: string,
  page: (after: string) => Promise<{ rows: T[]; cursor: string; more: boolean }>,
): Promise<{ rows: T[]; cursor: string }> {
  const rows: T[] = [];
  let cursor = from;
  for (let more = true; more;) {
    const next = await page(cursor);
    rows.push(...next.rows);
    cursor = next.cursor;
    more = next.more;
  }
  return { rows, cursor };
}

/** Keeps transactions from the start day on; those that are there are left alone. Returns how many are new. */
async function keepTransactions(
  work: Writing,
  { id, zone, cutOff, start }: Terminal,
  transactions: readonly TerminalTransaction[],
): Promise<number> {
  const rows = transactions
    .map((one) => ({ one, day: tradingDay(one.at, zone, cutOff) }))
    .filter(({ day }) => day >= start)
    .map(({ one, day }) => [one.id, one.at, day, JSON.stringify(one)]);
  const count = async () =>
    (
      await work.one<{ count: number }>(
        "SELECT count(*) AS count FROM terminal_transactions WHERE terminal_id = $1",
        [id],
      )
    ).count;
  const before = await count();
  await work.run(
    `INSERT OR IGNORE INTO terminal_transactions (terminal_id, created_at, external_id, at, day, payload)
     SELECT $1, $2, value ->> 0, value ->> 1, value ->> 2, value ->> 3 FROM json_each($3)`,
    [id, work.at, JSON.stringify(rows)],
  );
  return (await count()) - before;
}
