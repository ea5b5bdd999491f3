import { addDays } from "./quarters.ts";
import type { Quarter } from "./quarters.ts";

type Document = Record<string, unknown> & { date: string };

/** Journals on income that no rule explains, with the cause the accountant named. */
const NAMED: readonly (readonly [number: string, cause: string, reason: string])[] = [
  ["J-0010", "Accrued income", "evening courses held in the quarter, billed at their end"],
  ["J-0011", "Guild share, collected for others", "a tenth of the fair's takings belongs to the guild"],
];

/** Why the studio's sales and its turnover boxes differ in the year: a kiln sold, courses accrued, money of others, a refund. */
export function bridgeDocuments({ to }: Quarter): Document[] {
  const journal = (
    number: string,
    text: string,
    debit: string,
    credit: string,
    amount: string,
  ): Document => ({
    kind: "journal",
    number,
    date: to,
    prices: "exclusive",
    lines: [
      { text, account: debit, amount },
      { text, account: credit, amount: `-${amount}` },
    ],
  });
  return [
    {
      kind: "sales-invoice",
      number: "KILN-1",
      date: addDays(to, -20),
      prices: "exclusive",
      contact: "c4",
      lines: [{ text: "Old gas kiln, collected", amount: "2586.00", code: "S20", account: "0100" }],
    },
    {
      kind: "purchase-credit-note",
      number: "FG-CR-2",
      date: addDays(to, -12),
      prices: "exclusive",
      contact: "s2",
      lines: [{ text: "Goodwill for the cut of March", amount: "185.00", code: "S20", account: "4900" }],
    },
    journal("J-0010", "Evening courses not billed yet", "1180", "4000", "1920.00"),
    journal("J-0011", "Guild share of the fair", "4000", "2350", "720.00"),
  ];
}

/** Accounts these documents are posted to. */
export const BRIDGE_ACCOUNTS = [
  { code: "1180", name: "Accrued income", type: "asset" },
  { code: "2350", name: "Guild share, collected for others", type: "liability" },
];

/** The causes that were named for these journals, by where they stand in the book. */
export function namedCauses(documents: readonly Record<string, unknown>[]): object[] {
  return NAMED.flatMap(([number, cause, reason]) => {
    const row = documents.findIndex((document) => document["number"] === number);
    const lines = (documents[row]?.["lines"] ?? []) as { text: string; account: string }[];
    const index = lines.findIndex(({ account }) => account === "4000");
    if (index < 0) return [];
    const text = lines[index]?.text ?? "";
    const of = { registration: "r1", kind: "turnover", row: `/documents/${row}/${index + 1}` };
    return [{ ...of, cause, reason, account: "4000", text }];
  });
}
