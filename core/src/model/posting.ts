/**
 * One side of a journal entry. `amount` in minor units of the base currency: debit positive, credit negative.
 * `line` is the document line it comes from (null for the counterpart), `levy` the levy of a tax posting.
 */
export interface Posting {
  account: string;
  amount: number;
  line: number | null;
  levy: string | null;
  text: string;
}

/** Debits minus credits; zero when the entry balances. */
export function imbalance(postings: readonly Posting[]): number {
  return postings.reduce((sum, posting) => sum + posting.amount, 0);
}
