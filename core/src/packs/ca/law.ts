import { lawKnown } from "../shared/lawKnown.ts";

/** How far the law is known here, and what to look up. */
export const law = lawKnown(
  [
    "rebates of charities and public bodies",
    "input tax on the vehicles of sole traders by capital cost allowance",
    "restrictions of large businesses in Quebec",
  ],
  [
    "Line 101",
    "whole dollars, and which other revenue belongs there",
    "CRA, Instructions for preparing a GST/HST return",
  ],
  [
    "Books and children's goods",
    "which provinces rebate them at the till",
    "Deduction for Provincial Rebate (GST/HST) Regulations",
  ],
  [
    "British Columbia from 1 October 2026",
    "the enacted text of the budget's changes to the PST was not seen",
    "BC Ministry of Finance",
  ],
  ["Manitoba, food from 1 July 2026", "the change is not in the rules", "Manitoba Finance"],
  ["Quebec's lines", "which of them are keyed, and the lines of self-assessed tax", "Revenu Québec, IN-203"],
  ["Commission of Saskatchewan and Manitoba", "its base and limits", "bulletins PST-5 and RST 004"],
  ["Periods that do not end with a month", "their due day", "CRA"],
);
