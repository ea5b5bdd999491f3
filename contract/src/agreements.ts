import type { AgreementState } from "./bridge.ts";

/** How far an agreement of a period is. Minor units. */
export interface AgreementSummary {
  /** The screen it is on. */
  screen:
    | "agree"
    | "agree/turnover"
    | "agree/balances"
    | "agree/statements"
    | "agree/held"
    | "agree/unpaid";
  /** What is left without a cause. */
  left: number;
  /** What waits there to be done, documents. */
  waiting: number;
  /** Whether a person has agreed it, where that is kept. */
  state: AgreementState | null;
}
