import type { BridgeCause } from "./bridge.ts";

/** What the ledger has against what it stands for: open items, lines of the bank, documents that wait, pieces. Minor units. */
export interface BalanceView {
  /** `receivable`, `payable`, `cards`, `held`, `stock`, `bank/` with its account, `carried/`, `capital/`, `authority/` with the registration. */
  id: string;
  name: string;
  /** What the two figures are, in words. */
  leftName: string;
  rightName: string;
  /** Where the right side is kept, inside the client. */
  path: string;
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
