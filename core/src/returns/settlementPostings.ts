import { accountInRole } from "../model/account.ts";
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
 * that stays with the authority grew.
 */
export interface SettledFigures {
  net: number;
  adjustments: number;
  allowance: number;
  carried: number;
}

/**
 * The closing entry of a period: output and input tax accounts to zero for what was declared, adjustments and
 * allowances to their accounts, the net to what is due to (or from) the authority, the rest to rounding.
 * @returns postings that balance, debit positive
 */
export function settlementPostings(
  totals: readonly LevyTotals[],
  { net, adjustments, allowance, carried }: SettledFigures,
  accounts: readonly Account[],
): Posting[] {
  const first = totals[0]?.levy ?? null;
  const posting = (role: AccountRole, amount: number, levy: string | null, text: string): Posting[] =>
    amount === 0 ? [] : [{ account: accountInRole(accounts, role, levy), amount, line: null, levy, text }];
  const declared = totals.reduce((sum, total) => sum + total.output - total.input, 0);
  const rounding = net + allowance - carried - declared - adjustments;
  return [
    ...totals.flatMap(({ levy, output, input }) => [
      ...posting("output-tax", output, levy, "Output tax of the period"),
      ...posting("input-tax", -input, levy, "Input tax of the period"),
    ]),
    ...posting("adjustment", adjustments, first, "Adjustments on the return"),
    ...posting("allowance", -allowance, first, "Kept for filing in time"),
    ...posting("carried-credit", carried, first, "Credit carried forward"),
    ...posting("rounding", rounding, first, "Rounding of the return"),
    ...posting("due-to-authority", -net, first, "Due for the period"),
  ];
}
