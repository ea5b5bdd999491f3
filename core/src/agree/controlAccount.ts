/**
 * What is known of one tax control account in a period, in minor units, debit positive.
 * - `declared`: tax of the facts reported in the period.
 * - `timing`: entries dated in the period whose facts are reported in another one, less facts reported here
 *   whose entries are dated elsewhere.
 * - `uncoded`: entries that did not come through a tax code; `explained` says whether somebody gave a reason.
 */
export interface ControlAccountFigures {
  account: string;
  opening: number;
  declared: number;
  timing: number;
  settlement: number;
  payments: number;
  uncoded: readonly { entry: number; amount: number; explained: boolean }[];
  closing: number;
}

export interface ControlAccountAgreement extends ControlAccountFigures {
  /** Entries without a code that still want a reason. */
  unexplained: number;
  /** Ledger balance less everything above; zero unless the books are damaged. */
  difference: number;
  /** What is left to do on this account: unexplained entries and the difference. */
  left: number;
}

/**
 * Opening balance + tax declared + timing + settlement + payments + entries without a code = closing balance.
 * @returns the figures with what is left to explain
 */
export function agreeControlAccount(figures: ControlAccountFigures): ControlAccountAgreement {
  const uncoded = figures.uncoded.reduce((sum, entry) => sum + entry.amount, 0);
  const unexplained = figures.uncoded
    .filter((entry) => !entry.explained)
    .reduce((sum, entry) => sum + Math.abs(entry.amount), 0);
  const expected =
    figures.opening + figures.declared + figures.timing + figures.settlement + figures.payments + uncoded;
  const difference = figures.closing - expected;
  return { ...figures, unexplained, difference, left: unexplained + Math.abs(difference) };
}
