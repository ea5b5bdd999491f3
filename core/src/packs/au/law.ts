import { lawKnown } from "../shared/lawKnown.ts";

/** How far the law is known here, and what to look up. */
export const law = lawKnown(
  ["the margin scheme for land", "fuel tax credits", "PAYG amounts, which are typed", "GST instalments"],
  [
    "Correcting errors",
    "the top band of turnover, and what the determination covers",
    "GST: Correcting GST Errors Determination 2023",
  ],
  ["Reverse charges", "the tax on what is bought abroad also stands in 1A", "ATO, BAS guide"],
  [
    "Change from cash to accrual",
    "debtors and creditors are counted on the first day",
    "GSTA Div 29 and 159",
  ],
  ["Lodgment dates of agents", "the programme is set anew each year", "ATO, lodgment programme"],
);
