import { lawKnown } from "../shared/lawKnown.ts";

/** How far the law is known here, and what to look up. */
export const law = lawKnown(
  [
    "cities and districts beside the examples",
    "the day a threshold of presence is passed",
    "prepayments, which are typed",
    "reduced state rates of single classes of goods",
  ],
  [
    "Origin and destination",
    "Tennessee and Illinois charge the seller's place inside the state",
    "the states' acts",
  ],
  [
    "California's prepayments and the lines of its form",
    "17,000 a month on average; line numbers",
    "CDTFA, form 401-A",
  ],
  [
    "Illinois, what is kept with several places",
    "the cap is of the month and of the whole business",
    "Illinois, bulletin FY 2025",
  ],
  ["Texas", "whole dollars in item 1", "form 01-114"],
  ["Florida", "letters of the lines after 2024", "form DR-15"],
  ["Pennsylvania", "brackets in place of rounding", "Department of Revenue"],
  ["New York, credit of annual filers", "they keep nothing", "TB-ST-925"],
);
