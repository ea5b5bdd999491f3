import { lawKnown } from "../shared/lawKnown.ts";

/** How far the law is known here, and what to look up. */
export const law = lawKnown(
  [
    "percentage tax of those who are not registered",
    "the monthly declaration, optional since 2023",
    "form 1600-VT, whose tax is typed with the purchase",
    "the summary lists as files",
    "spreading of capital goods bought before 2022, which is typed",
  ],
  ["Item numbers of form 2550Q", "those of the version of April 2024, from memory", "BIR, form 2550Q"],
  ["Rate for 2026", "12 %, no change known", "NIRC s. 106"],
  ["Summary lists", "the day by which electronic filers send them", "BIR"],
);
