import { agreement } from "@fiscalon/core/agree/agreement";
import { FiscalError } from "@fiscalon/core/errors";
import type { AccountRole } from "@fiscalon/core/model/account";
import type { BalanceRow, BalanceRows, BalanceView } from "@fiscalon/contract/balances";
import type { ClientSetup } from "../../loadSetup.ts";
import { stockRule } from "../../stock/pieces.ts";
import type { Work } from "../../../base/work.ts";
import { apartOf, apartSums } from "./apart.ts";
import type { ApartTables } from "./apart.ts";
import { registrationBalances, registrationTables } from "./registrationBalances.ts";
import type { Head, Names } from "./registrationBalances.ts";
import { BANK_CAUSES, bankFigures, bankTables } from "./bankLines.ts";
import { CARD_CAUSES, cardFigures, cardTables } from "./cards.ts";
import { HELD_CAUSES, heldFigures, heldTables } from "./heldCredit.ts";
import { OPEN_ITEM_CAUSES, openItemFigures, openItemTables } from "./openItems.ts";
import { STOCK_CAUSES, stockFigures, stockTables } from "./stockBook.ts";
import type { PartySide } from "./openItems.ts";

const SIDES: readonly (readonly [PartySide, string, string])[] = [
  ["receivable", "Debtors", "Open items of customers"],
  ["payable", "Creditors", "Open items of suppliers"],
];

/**
 * Debtors, creditors, every account at a bank, what card terminals have not paid out, input tax not yet deducted, credit
 * carried forward and the stock book on a day, each against what it stands for.
 */
export async function balanceViews(work: Work, setup: ClientSetup, day: string): Promise<BalanceView[]> {
  const { client, plain } = setup;
  const clientId = client.id;
  const opening = (account: string | undefined) =>
    account === undefined ? null : `account/${account}/${day.slice(0, 8)}01/${day}`;
  const inRole = (role: AccountRole) => opening(plain.accounts.find((one) => one.role === role)?.code);
  const views: BalanceView[] = [];
  const add = async (head: Head, tables: ApartTables, names: Names) => {
    if (head.left !== 0 || head.right !== 0) views.push(await viewOf(work, head, tables, names));
  };
  for (const [side, name, rightName] of SIDES) {
    const figures = await openItemFigures(work, clientId, day, side);
    const head = { id: side, name, rightName, path: "books/payments", leftRef: inRole(side), ...figures };
    await add(head, openItemTables(clientId, day, side), OPEN_ITEM_CAUSES);
  }
  for (const { account, name, left, right } of await bankFigures(work, clientId, day)) {
    const head = {
      id: `bank/${account}`,
      name: `${account} ${name}`,
      rightName: "Lines of the bank",
      path: "books/bank",
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
      path: "books/payments",
      leftRef: opening(account),
      left,
      right: 0,
    };
    views.push(await viewOf(work, head, cardTables(clientId, day), CARD_CAUSES));
  }
  const held = {
    id: "held",
    name: "Input tax not yet deducted",
    rightName: "Documents that wait",
    path: "agree/held",
    leftRef: inRole("held-credit"),
    ...(await heldFigures(work, clientId, day)),
  };
  await add(held, heldTables(clientId, day), HELD_CAUSES);
  for (const { head, tables, names } of await registrationBalances(work, setup, day, inRole))
    await add(head, tables, names);
  const rule = stockRule(work, setup)?.rule;
  const stock = rule && (await stockFigures(work, clientId, day, rule));
  if (rule && stock) {
    const head = {
      id: "stock",
      name: "Stock book",
      leftName: "Bought under the scheme, by documents",
      rightName: "Pieces bought, by the stock book",
      path: "books/stock",
      leftRef: null,
      ...stock,
    };
    await add(head, stockTables(clientId, day, rule), STOCK_CAUSES);
  }
  return views;
}

async function viewOf(work: Work, head: Head, tables: ApartTables, names: Names): Promise<BalanceView> {
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
  return { leftName: "Balance in the ledger", ...head, causes: causes.map((cause) => ({ ...cause })), rest };
}

/**
 * The rows of a cause of one of them.
 * @throws FiscalError `agree/no-balance`
 */
export async function balanceRows(
  work: Work,
  setup: ClientSetup,
  day: string,
  { of, cause, ...page }: { of: string; cause: string; offset: number; limit: number },
): Promise<BalanceRows> {
  const rows = await apartOf<BalanceRow>(work, await tablesOf(work, setup, day, of), cause, page);
  return { total: rows[0]?.total ?? 0, rows: rows.map(({ total: _total, ...row }) => row) };
}

async function tablesOf(work: Work, setup: ClientSetup, day: string, of: string): Promise<ApartTables> {
  const clientId = setup.client.id;
  const side = SIDES.find(([id]) => id === of)?.[0];
  if (side) return openItemTables(clientId, day, side);
  if (of === "cards") return cardTables(clientId, day);
  if (of === "held") return heldTables(clientId, day);
  const rule = of === "stock" ? stockRule(work, setup)?.rule : undefined;
  if (rule) return stockTables(clientId, day, rule);
  const [, kind, which = ""] = /^(bank|carried|capital|authority)\/(.+)$/.exec(of) ?? [];
  if (kind === "bank") return bankTables(clientId, day, which);
  const own = await registrationTables(work, setup, day, kind, Number(which));
  if (own) return own;
  throw new FiscalError("agree/no-balance", `There is no balance "${of}" to agree.`, "of");
}
