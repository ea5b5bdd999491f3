import type { BridgeOf } from "@fiscalon/core/agree/turnoverBridge";

/** What the two sides of a bridge are called. */
export const WORDS: Record<
  BridgeOf,
  { title: string; tab: string; from: string; income: string; posted: string; value: string; lead: string }
> = {
  turnover: {
    title: "Turnover bridge",
    tab: "Turnover",
    from: "Income in the profit and loss account",
    income: "Income",
    posted: "What was posted to income accounts in these days, credit positive.",
    value: "Value of sales on the returns",
    lead: "From income in the profit and loss account to what the returns declare. A solid step adds, a hatched one takes off.",
  },
  purchases: {
    title: "Purchases bridge",
    tab: "Purchases",
    from: "Costs in the profit and loss account",
    income: "Costs",
    posted: "What was posted to cost accounts in these days, debit positive.",
    value: "Value of purchases on the returns",
    lead: "From costs in the profit and loss account to the purchases on the returns. A solid step adds, a hatched one takes off.",
  },
};
