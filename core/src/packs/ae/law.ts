import { lawKnown } from "../shared/lawKnown.ts";

/** How far the law is known here, and what to look up. */
export const law = lawKnown(
  ["tourist refunds", "designated zones told by address"],
  ["Six months unpaid", "the period in which they end, or the one after", "Executive Regulation art. 54"],
  ["Value of a margin sale", "box 1 holds the margin", "FTA, Returns guide"],
  ["Disclosure of errors without tax", "its own rule since 2024", "FTA Decision 8 of 2024"],
  ["Rate after 2026", "none but 5 % is known here", "FTA"],
);
