import { lawKnown } from "../shared/lawKnown.ts";

/** How far the law is known here, and what to look up. */
export const law = lawKnown(
  ["adjustments for change of use", "the category by turnover"],
  ["Thresholds from 1 April 2026", "2.3 million and 120,000", "Rates and Monetary Amounts Act 2026"],
  ["Field 5 of used goods and fringe benefits", "tax inside the value", "VAT 411"],
  ["Invoices of 100,000", "payments basis after they are reached", "s. 15(2A)"],
  ["Credit notes of the 14 % rate", "field 18", "VAT201 guide"],
  ["Periods that end near a month end", "later of the 25th and the last business day", "SARS"],
);
