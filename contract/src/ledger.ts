export interface LedgerAccountRow {
  code: string;
  name: string;
  type: string;
  role: string | null;
  opening: number;
  debit: number;
  credit: number;
  closing: number;
}

export interface LedgerEntryRow {
  entry: number;
  date: string;
  text: string;
  documentId: number | null;
  amount: number;
  balance: number;
}

/** A page of an account; `opening` is what was there before its first day. */
export interface LedgerEntryPage {
  opening: number;
  total: number;
  rows: LedgerEntryRow[];
}
