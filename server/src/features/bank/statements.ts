import Papa from "papaparse";
import { imbalanceOf } from "@fiscalon/core/formats/bank/bankStatement";
import type { BankStatement } from "@fiscalon/core/formats/bank/bankStatement";
import { readStatement } from "@fiscalon/core/formats/bank/readStatement";
import { FiscalError } from "@fiscalon/core/errors";
import { displayAmount } from "@fiscalon/core/money/amount";
import type { DateOrder } from "@fiscalon/core/calendar/parseDate";
import type { StatementReport } from "@fiscalon/contract/bank";
import type { Work, Writing } from "../../base/work.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { decoded, encodingOf, refuseForeignFile } from "../../base/files.ts";

/** Reads a statement file of any known format. */
export function statementsIn(content: Buffer, currency: string, dateOrder: DateOrder): BankStatement[] {
  refuseForeignFile(content);
  const text = decoded(content, encodingOf(content));
  return readStatement(
    text,
    (csv) => Papa.parse<string[]>(csv.trim(), { skipEmptyLines: "greedy" }).data,
    currency,
    dateOrder,
  );
}

/** Takes the lines of statements in; those that are there already are skipped, however often they come. */
export async function takeStatements(
  work: Work,
  clientId: number,
  account: string,
  statements: readonly BankStatement[],
  source: string,
): Promise<StatementReport> {
  return work.write(async (work) => {
    const setup = await loadSetup(work, clientId);
    const report: StatementReport = { lines: 0, fresh: 0, alreadyThere: 0, notices: [] };
    for (const statement of statements) {
      refuseOther(statement, setup, account);
      const fresh = await insertLines(work, clientId, account, statement, source);
      report.lines += statement.lines.length;
      report.fresh += fresh;
      report.alreadyThere += statement.lines.length - fresh;
      const off = imbalanceOf(statement);
      if (off !== null) {
        report.notices.push(
          `The lines of ${statement.account || "the statement"} and its balances are ${displayAmount(off, setup.plain.digits)} apart. Part of the statement may be missing.`,
        );
      }
    }
    await work.record({
      action: "receive",
      entity: "bank-statement",
      id: null,
      after: { account, source, ...report },
    });
    return report;
  });
}

function refuseOther(
  { currency }: BankStatement,
  { client, accountIds }: ClientSetup,
  account: string,
): void {
  if (!accountIds.has(account))
    throw new FiscalError("ledger/unknown-account", `There is no account ${account}.`, "account");
  if (currency === client.currency) return;
  throw new FiscalError(
    "bank/currency",
    `The statement is in ${currency}, the books are kept in ${client.currency}. Only accounts in ${client.currency} are matched.`,
    "file",
  );
}

async function insertLines(
  work: Writing,
  clientId: number,
  account: string,
  { lines }: BankStatement,
  source: string,
): Promise<number> {
  const before = await work.one<{ count: number }>(COUNT, [clientId, account]);
  const { createdAt, createdBy } = work.made;
  const rows = lines.map((line) => [line.id, line.date, line.amount, line.party, line.text, line.reference]);
  await work.run(
    `INSERT OR IGNORE INTO bank_lines
       (client_id, account, source, state, created_at, created_by, external_id, date, amount, party, text, reference)
     SELECT $1, $2, $3, 'open', $4, $5, value ->> 0, value ->> 1, value ->> 2, value ->> 3, value ->> 4, value ->> 5
     FROM json_each($6)`,
    [clientId, account, source, createdAt, createdBy, JSON.stringify(rows)],
  );
  const after = await work.one<{ count: number }>(COUNT, [clientId, account]);
  return after.count - before.count;
}

const COUNT = "SELECT count(*) AS count FROM bank_lines WHERE client_id = $1 AND account = $2";
