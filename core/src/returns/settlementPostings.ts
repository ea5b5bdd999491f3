import { accountInRole } from "../ledger/account.ts";
import type { Account } from "../ledger/account.ts";
import type { Posting } from "../ledger/posting.ts";

/** What a sealed period moves from the running tax accounts, by levy, in minor units. */
export interface LevyTotals {
  levy: string;
  /** Output tax declared: charged on sales and self-assessed. */
  output: number;
  /** Input tax deducted. */
  input: number;
}

/**
 * The closing entry of a period: output and input tax accounts to zero for what was declared, adjustments to
 * their account, the net to what is due to (or from) the authority, the rest to rounding.
 * @param net what the return says is owed (positive) or refunded (negative), minor units
 * @param adjustments what adjustments added to the net, minor units
 * @returns postings that balance, debit positive
 */
export function settlementPostings(
  totals: readonly LevyTotals[],
  adjustments: number,
  net: number,
  accounts: readonly Account[],
): Posting[] {
  const first = totals[0]?.levy ?? null;
  const posting = (account: string, amount: number, levy: string | null, text: string): Posting => ({
    account,
    amount,
    line: null,
    levy,
    text,
  });
  const cleared = totals.flatMap(({ levy, output, input }) => [
    posting(accountInRole(accounts, "output-tax", levy), output, levy, "Output tax of the period"),
    posting(accountInRole(accounts, "input-tax", levy), -input, levy, "Input tax of the period"),
  ]);
  const declared = totals.reduce((sum, total) => sum + total.output - total.input, 0);
  const rounding = net - declared - adjustments;
  return [
    ...cleared,
    posting(accountInRole(accounts, "adjustment", first), adjustments, first, "Adjustments on the return"),
    posting(accountInRole(accounts, "rounding", first), rounding, first, "Rounding of the return"),
    posting(accountInRole(accounts, "due-to-authority", first), -net, first, "Due for the period"),
  ].filter((one) => one.amount !== 0);
}
