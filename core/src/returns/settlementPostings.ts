import { at } from "../at.ts";
import { allocate } from "../money/allocate.ts";
import { accountInRole, bears } from "../model/account.ts";
import type { Account, AccountRole } from "../model/account.ts";
import type { Posting } from "../model/posting.ts";

/** What a sealed period moves from the running tax accounts, by levy, in minor units. */
export interface LevyTotals {
  levy: string;
  /** Output tax declared: charged on sales and self-assessed. */
  output: number;
  /** Input tax deducted. */
  input: number;
}

/**
 * What a return comes to, in minor units. `net`: owed (positive) or refunded (negative); `adjustments`: what
 * adjustments added to it; `allowance`: what the business keeps for filing in time; `carried`: by how much the credit
 * that stays with the authority grew; `scheme`: what a scheme works out from turnover, which no document bears.
 */
export interface SettledFigures {
  net: number;
  adjustments: number;
  allowance: number;
  carried: number;
  scheme: number;
}

/**
 * The closing entry of a period: output and input tax accounts to zero for what was declared, adjustments and
 * allowances to their accounts, what is due of each levy to its account of what is due to (or from) the authority, the
 * rest to rounding. What belongs to the return as a whole, adjustments and rounding, is due with the first levy.
 * @returns postings that balance, debit positive
 */
export function settlementPostings(
  totals: readonly LevyTotals[],
  { net, adjustments, allowance, carried, scheme }: SettledFigures,
  accounts: readonly Account[],
): Posting[] {
  const first = totals[0]?.levy ?? null;
  const posting = (role: AccountRole, amount: number, levy: string | null, text: string): Posting[] =>
    amount === 0 ? [] : [{ account: accountInRole(accounts, role, levy), amount, line: null, levy, text }];
  const rounding = differenceOf(totals, { net, adjustments, allowance, carried, scheme });
  return [
    ...totals.flatMap(({ levy, output, input }) => [
      ...posting("output-tax", output, levy, "Output tax of the period"),
      ...posting("input-tax", -input, levy, "Input tax of the period"),
    ]),
    ...posting("adjustment", adjustments, first, "Adjustments on the return"),
    ...(scheme < 0 && hasRole(accounts, "scheme-gain", first)
      ? posting("scheme-gain", scheme, first, "Charged and not declared, by the scheme")
      : posting("scheme-cost", scheme, first, "Tax on turnover, cost of the business")),
    ...posting("allowance", -allowance, first, "Kept for filing in time"),
    ...posting("carried-credit", carried, first, "Credit carried forward"),
    ...posting("rounding", rounding, first, "Rounding of the return"),
    ...duePostings(totals, net, accounts),
  ];
}

function hasRole(accounts: readonly Account[], role: AccountRole, levy: string | null): boolean {
  return accounts.some((account) => account.role === role && (levy === null || bears(account, levy)));
}

/**
 * By how much what a return comes to is more than the tax of its documents, its adjustments and its schemes, in minor
 * units: what its closing entry takes to rounding.
 */
export function differenceOf(
  totals: readonly LevyTotals[],
  { net, adjustments, allowance, carried, scheme }: SettledFigures,
): number {
  const declared = totals.reduce((sum, total) => sum + total.output - total.input, 0);
  return net + allowance - carried - scheme - declared - adjustments;
}

/** A posting for each account that holds what is due of one or more levies. */
function duePostings(totals: readonly LevyTotals[], net: number, accounts: readonly Account[]): Posting[] {
  const [first, ...others] = totals;
  const shares = others.map(({ levy, output, input }) => ({ levy, due: output - input }));
  const rest = shares.reduce((left, { due }) => left - due, net);
  const dues = new Map<string, Posting>();
  for (const { levy, due } of [{ levy: first?.levy ?? null, due: rest }, ...shares]) {
    if (due === 0) continue;
    const account = dueAccount(accounts, levy, first?.levy ?? null);
    const before = dues.get(account);
    dues.set(account, {
      account,
      amount: (before?.amount ?? 0) - due,
      line: null,
      levy: before && before.levy !== levy ? null : levy,
      text: "Due for the period",
    });
  }
  return [...dues.values()].filter(({ amount }) => amount !== 0);
}

/**
 * Where what is due of a levy stands: on its own account, or, where the chart has none, on that of the first levy.
 * @throws FiscalError `ledger/no-account`
 */
export function dueAccount(accounts: readonly Account[], levy: string | null, first: string | null): string {
  const account = accounts.find(
    ({ role, levy: of }) => role === "due-to-authority" && levy !== null && bears({ levy: of }, levy),
  );
  return account?.code ?? accountInRole(accounts, "due-to-authority", first);
}

/** What is still owed on an account, minor units; negative where it is to come back. */
export interface OwedOn {
  account: string;
  owed: number;
}

/**
 * How money to (positive) or from the authority is spread over the accounts of what is due: all of it where it is just
 * what is owed in all, otherwise in proportion to what is owed the same way. Where nothing is owed it goes to the first.
 * @param owed at least one account
 * @returns by account, minor units that sum to the amount
 * @source common practice, no source
 */
export function spreadOverDue(amount: number, owed: readonly OwedOn[]): OwedOn[] {
  if (owed.reduce((sum, one) => sum + one.owed, 0) === amount) return owed.filter((one) => one.owed !== 0);
  const same = owed.filter((one) => Math.sign(one.owed) === Math.sign(amount));
  const over = same.length === 0 ? owed.slice(0, 1) : same;
  const parts = allocate(
    amount,
    over.map((one) => Math.abs(one.owed)),
  );
  return over
    .map(({ account }, index) => ({ account, owed: at(parts, index) }))
    .filter((one) => one.owed !== 0);
}
