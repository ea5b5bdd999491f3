import type { BridgeCause } from "./bridge.ts";

/** An account of the ledger against what it stands for: open items, or lines of the bank. Minor units. */
export interface BalanceView {
  /** `receivable`, `payable`, or `bank/` with the number of the account. */
  id: string;
  name: string;
  /** What the two figures are, in words. */
  leftName: string;
  rightName: string;
  /** What the left figure opens. */
  leftRef: string | null;
  left: number;
  right: number;
  causes: BridgeCause[];
  rest: number;
}

export interface BalanceRow {
  ref: string | null;
  date: string;
  number: string;
  party: string;
  text: string;
  amount: number;
}

export interface BalanceRows {
  total: number;
  rows: BalanceRow[];
}
