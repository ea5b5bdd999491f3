import { found } from "@fiscalon/core/at";
import { accountInRole } from "@fiscalon/core/model/account";
import { owedBy } from "@fiscalon/core/returns/unpaid";
import type { UnpaidRule } from "@fiscalon/core/model/unpaidRule";
import type { UnpaidPage, UnpaidRow } from "@fiscalon/contract/unpaid";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { periodEnding } from "../../books/returns/periods.ts";
import { isOpen, returnRecord } from "../../books/returns/records.ts";
import { unpaidDocuments, unpaidRules } from "../../books/unpaid/unpaidItems.ts";
import type { UnpaidDocument } from "../../books/unpaid/unpaidItems.ts";

export interface UnpaidFilter {
  rule: string;
  search: string;
  offset: number;
  limit: number;
  sort?: keyof typeof ORDERS;
  descending: boolean;
}

type Compare = (a: UnpaidRow, b: UnpaidRow) => number;
const text =
  (of: (row: UnpaidRow) => string): Compare =>
  (a, b) =>
    of(a).localeCompare(of(b));

/** What the list can be ordered by. */
export const ORDERS = {
  date: text(({ date }) => date),
  number: text(({ number }) => number),
  party: text(({ party }) => party),
  over: text(({ over }) => over),
  unpaid: (a, b) => a.unpaid - b.unpaid,
  owed: (a, b) => a.owed - b.owed,
} as const satisfies Record<string, Compare>;

/** What the law asks for unpaid documents on the return of a period, rule by rule, and the documents of one rule. */
export async function unpaidPage(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  end: string,
  { rule: asked, search, offset, limit, sort, descending }: UnpaidFilter,
): Promise<UnpaidPage> {
  const period = periodEnding(r, end);
  const rules = [];
  let shown: UnpaidRow[] = [];
  for (const rule of unpaidRules(work, r, period)) {
    const rows = (await unpaidDocuments(work, r, rule, period)).map((one) => rowOf(rule, one));
    if (rule.id === asked || (asked === "" && rules.length === 0)) shown = rows;
    const { id, name, direction, claimed, says, source } = rule;
    const owed = rows.reduce((sum, row) => sum + row.owed, 0);
    rules.push({ id, name, direction, claimed: claimed ?? false, says, source, count: rows.length, owed });
  }
  const words = search.toLowerCase();
  const matching = shown.filter(({ number, party }) => `${number} ${party}`.toLowerCase().includes(words));
  if (sort !== undefined) matching.sort((a, b) => (descending ? -1 : 1) * ORDERS[sort](a, b));
  const record = await returnRecord(work, r.id, end);
  return {
    rules,
    total: matching.length,
    rows: matching.slice(offset, offset + limit),
    account: await usualAccount(work, setup, r.clientId),
    open: !record || isOpen(record),
  };
}

function rowOf(rule: UnpaidRule, document: UnpaidDocument): UnpaidRow {
  const { id, number, kind, party, date, due, currency, gross, unpaid, taxes, proposal } = document;
  return {
    document: id,
    number,
    kind,
    party,
    date,
    due,
    over: proposal.over,
    currency,
    gross,
    unpaid,
    way: proposal.way,
    taxes: proposal.taxes.map((asked) => ({
      ...found(taxes, ({ levy }) => levy === asked.levy, asked.levy),
      ...asked,
    })),
    owed: owedBy(rule, proposal),
    code: proposal.way === "relief" ? rule.relief : rule.back,
  };
}

/** The account it went against last time, otherwise that of adjustments. */
async function usualAccount(work: Work, { plain }: ClientSetup, clientId: number): Promise<string> {
  const last = await work.row<{ account: string }>(
    `SELECT l.account FROM lines l INDEXED BY lines_relieving CROSS JOIN documents d ON d.id = l.document_id AND d.client_id = $1
     WHERE l.attributes ->> '$.relieves' IS NOT NULL AND l.account IS NOT NULL ORDER BY d.id DESC LIMIT 1`,
    [clientId],
  );
  return last?.account ?? accountInRole(plain.accounts, "adjustment");
}
