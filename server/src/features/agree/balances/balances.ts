import { agreement } from "@fiscalon/core/agree/agreement";
import { FiscalError } from "@fiscalon/core/errors";
import type { BalanceRow, BalanceRows, BalanceView } from "@fiscalon/contract/balances";
import type { ClientSetup } from "../../../books/loadSetup.ts";
import type { Work } from "../../../base/work.ts";
import { apartOf, apartSums } from "./apart.ts";
import type { ApartTables } from "./apart.ts";
import { BANK_CAUSES, bankFigures, bankTables } from "./bankLines.ts";
import { CARD_CAUSES, cardFigures, cardTables } from "./cards.ts";
import { OPEN_ITEM_CAUSES, openItemFigures, openItemTables } from "./openItems.ts";
import type { PartySide } from "./openItems.ts";

const SIDES: readonly (readonly [PartySide, string, string])[] = [
  ["receivable", "Debtors", "Open items of customers"],
  ["payable", "Creditors", "Open items of suppliers"],
];

/** Debtors, creditors, every account at a bank and what card terminals have not paid out on a day, each against what it stands for. */
export async function balanceViews(
  work: Work,
  { client, plain }: ClientSetup,
  day: string,
): Promise<BalanceView[]> {
  const clientId = client.id;
  const opening = (account: string | undefined) =>
    account === undefined ? null : `account/${account}/${day.slice(0, 8)}01/${day}`;
  const views: BalanceView[] = [];
  for (const [side, name, rightName] of SIDES) {
    const figures = await openItemFigures(work, clientId, day, side);
    const tables = openItemTables(clientId, day, side);
    if (figures.left === 0 && figures.right === 0) continue;
    views.push(
      await viewOf(
        work,
        {
          id: side,
          name,
          rightName,
          leftRef: opening(plain.accounts.find(({ role }) => role === side)?.code),
          ...figures,
        },
        tables,
        OPEN_ITEM_CAUSES,
      ),
    );
  }
  for (const { account, name, left, right } of await bankFigures(work, clientId, day)) {
    const head = {
      id: `bank/${account}`,
      name: `${account} ${name}`,
      rightName: "Lines of the bank",
      leftRef: opening(account),
      left,
      right,
    };
    views.push(await viewOf(work, head, bankTables(clientId, day, account), BANK_CAUSES));
  }
  const cards = await cardFigures(work, clientId, day);
  if (cards) {
    const { account, name, left } = cards;
    const head = {
      id: "cards",
      name: `${account} ${name}`,
      rightName: "Nothing, once everything is paid out",
      leftRef: opening(account),
      left,
      right: 0,
    };
    views.push(await viewOf(work, head, cardTables(clientId, day), CARD_CAUSES));
  }
  return views;
}

async function viewOf(
  work: Work,
  head: Pick<BalanceView, "id" | "name" | "rightName" | "leftRef" | "left" | "right">,
  tables: ApartTables,
  names: Readonly<Record<string, string>>,
): Promise<BalanceView> {
  const sums = await apartSums(work, tables);
  const { causes, rest } = agreement(
    head.left,
    head.right,
    Object.entries(names).flatMap(([id, name]) =>
      sums
        .filter(({ cause }) => cause === id)
        .map(({ amount, rows }) => ({ cause: { id, name, found: "rule" as const }, amount, rows })),
    ),
  );
  return { ...head, leftName: "Balance in the ledger", causes: causes.map((cause) => ({ ...cause })), rest };
}

/**
 * The rows of a cause of one of them.
 * @throws FiscalError `agree/no-balance`
 */
export async function balanceRows(
  work: Work,
  clientId: number,
  day: string,
  { of, cause, ...page }: { of: string; cause: string; offset: number; limit: number },
): Promise<BalanceRows> {
  const rows = await apartOf<BalanceRow>(work, tablesOf(clientId, day, of), cause, page);
  return { total: rows[0]?.total ?? 0, rows: rows.map(({ total: _total, ...row }) => row) };
}

function tablesOf(clientId: number, day: string, of: string): ApartTables {
  const side = SIDES.find(([id]) => id === of)?.[0];
  if (side) return openItemTables(clientId, day, side);
  if (of === "cards") return cardTables(clientId, day);
  const [, account] = /^bank\/(.+)$/.exec(of) ?? [];
  if (account !== undefined) return bankTables(clientId, day, account);
  throw new FiscalError("agree/no-balance", `There is no balance "${of}" to agree.`, "of");
}
