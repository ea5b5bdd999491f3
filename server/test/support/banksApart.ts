import { expect } from "vitest";
import type { BalanceView } from "@fiscalon/contract/balances";
import { inBooksOf } from "./sound.ts";
import type { TestServer } from "./testServer.ts";

interface Posting {
  entry: number;
  account: string;
  date: string;
  amount: number;
}
interface Line {
  account: string;
  date: string;
  amount: number;
  entry: number | null;
  state: string;
}

/**
 * What accounts and the lines of their banks hold apart on days, worked out once more from every posting and every line,
 * one by one and without anything that is kept, against what the server says.
 */
export async function expectBanksApart(on: TestServer, base: string, days: readonly string[]): Promise<void> {
  const client = base.split("/")[2] ?? "";
  const postings = await inBooksOf<Posting>(
    on,
    client,
    `SELECT p.entry_id AS entry, a.code AS account, p.date, p.amount FROM postings p JOIN accounts a ON a.id = p.account_id
     WHERE p.live = 1`,
  );
  const lines = await inBooksOf<Line>(
    on,
    client,
    "SELECT account, date, amount, entry_id AS entry, state FROM bank_lines",
  );
  for (const day of days) {
    const views = await on.ok<BalanceView[]>("GET", `${base}/balances?on=${day}`);
    for (const account of new Set(lines.map((line) => line.account))) {
      const view = views.find(({ id }) => id === `bank/${account}`);
      const told = Object.fromEntries(
        (view?.causes ?? []).map(({ id, amount, rows }) => [id, [amount, rows]]),
      );
      const own = <T extends { account: string }>(rows: readonly T[]) =>
        rows.filter((row) => row.account === account);
      expect([day, account, view?.rest, told]).toEqual([
        day,
        account,
        0,
        apartOn(own(postings), own(lines), day),
      ]);
    }
  }
}

function apartOn(
  postings: readonly Posting[],
  lines: readonly Line[],
  day: string,
): Record<string, [number, number]> {
  const found: Record<string, [number, number]> = {};
  const tell = (cause: string, amount: number) => {
    if (amount === 0) return;
    const [sum, rows] = found[cause] ?? [0, 0];
    found[cause] = [sum + amount, rows + 1];
  };
  const first = lines.map(({ date }) => date).sort()[0] ?? "";
  const booked = postings.filter(({ date }) => date <= day);
  const known = lines.filter(({ date }) => date <= day);
  for (const entry of new Set(booked.map((one) => one.entry))) {
    const own = booked.filter((one) => one.entry === entry);
    const at = known.filter((line) => line.entry === entry);
    const sum = (rows: readonly { amount: number }[]) =>
      rows.reduce((total, { amount }) => total + amount, 0);
    const unlined = (own[0]?.date ?? "") < first ? "before" : "transit";
    tell(at.length > 0 ? "amount" : unlined, sum(at) - sum(own));
  }
  for (const { entry, amount, state } of known) {
    if (booked.some((one) => one.entry === entry)) continue;
    tell(entry === null ? (state === "ignored" ? "aside" : "unbooked") : "ahead", amount);
  }
  return found;
}
