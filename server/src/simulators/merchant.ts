import { createHash } from "node:crypto";
import { addDays } from "@fiscalon/core/calendar/date";
import { localTime } from "@fiscalon/core/calendar/tradingDay";
import type { TerminalTransaction } from "@fiscalon/core/incoming/terminalDay";
import type { Payout } from "../outside/terminalOperator.ts";

/** What a simulated merchant sells and what the operator charges. Amounts in minor units, shares in percent. */
export interface Merchant {
  key: string;
  zone: string;
  currency: string;
  /** First day with transactions. */
  from: string;
  perDay: number;
  /** Local hours of trading; after 24 it goes on into the next day. */
  open: number;
  close: number;
  items: { name: string; tax: string; from: number; to: number }[];
  surchargePercent: number;
  feePercent: number;
  feeFixed: number;
  /** Number of the bank account payouts go to. */
  bankAccount: string;
}

/** Fractions from 0 to 1 that follow from a text: the same question gets the same answer. */
function* fractions(seed: string): Generator<number, never> {
  for (let block = 0; ; block += 1) {
    const digest = createHash("sha256").update(`${seed}/${block}`).digest();
    for (let at = 0; at < 32; at += 4) yield digest.readUInt32BE(at) / 2 ** 32;
  }
}

/** What a merchant's terminals took on a local day, in order of time. */
export function takingsOf(name: string, merchant: Merchant, day: string): TerminalTransaction[] {
  const chance = fractions(`${name} ${day}`);
  const next = () => chance.next().value;
  const count = Math.round(merchant.perDay * (0.6 + 0.8 * next()));
  const sales = Array.from({ length: count }, (_, index) => sale(merchant, day, `${day}-${index + 1}`, next));
  const refunds = refundsOf(name, merchant, day);
  return [...sales, ...refunds].sort((a, b) => (a.at < b.at ? -1 : 1));
}

function sale(merchant: Merchant, day: string, id: string, next: () => number): TerminalTransaction {
  const items = Array.from({ length: next() < 0.7 ? 1 : 2 }, () => {
    const item = merchant.items[Math.floor(next() * merchant.items.length)] ?? merchant.items[0];
    const amount = Math.round((item?.from ?? 100) + next() * ((item?.to ?? 100) - (item?.from ?? 100)));
    return { name: item?.name ?? "", amount, tax: item?.tax ?? "" };
  });
  const net = items.reduce((sum, { amount }) => sum + amount, 0);
  const surcharge = Math.round((net * merchant.surchargePercent) / 100);
  const tip = next() < 0.06 ? 50 * (1 + Math.floor(next() * 5)) : 0;
  const gross = net + surcharge + tip;
  const hour = merchant.open + next() * (merchant.close - merchant.open);
  return {
    id,
    at: instantOf(day, hour, merchant.zone),
    kind: "sale",
    gross,
    items,
    surcharge,
    tip,
    fee: Math.round((gross * merchant.feePercent) / 100) + merchant.feeFixed,
  };
}

/** Now and then somebody brings something back, days later. */
function refundsOf(name: string, merchant: Merchant, day: string): TerminalTransaction[] {
  const chance = fractions(`refund ${name} ${day}`);
  if (chance.next().value > 0.12) return [];
  const bought = addDays(day, -(1 + Math.floor(chance.next().value * 9)));
  if (bought < merchant.from) return [];
  const salesThen = fractions(`${name} ${bought}`);
  salesThen.next();
  const original = sale(merchant, bought, `${bought}-1`, () => salesThen.next().value);
  const [item] = original.items;
  if (!item) return [];
  return [
    {
      id: `${day}-r1`,
      at: instantOf(day, merchant.open + 1, merchant.zone),
      kind: "refund",
      gross: -item.amount,
      items: [{ ...item, amount: -item.amount }],
      surcharge: 0,
      tip: 0,
      fee: merchant.feeFixed,
    },
  ];
}

/** The moment a local clock shows an hour, counted from midnight of the day; on days of change the nearest one. */
function instantOf(day: string, hour: number, zone: string): string {
  const minutes = Math.round(hour * 60);
  const guess = Date.parse(`${day}T00:00:00Z`) + minutes * 60_000;
  const shown = localTime(new Date(guess).toISOString(), zone);
  const off = Date.parse(`${shown.date}T${shown.time}:00Z`) - guess;
  return new Date(guess - off).toISOString();
}

/** Takings of a local day, less fees, are paid out two days later. */
export function payoutOf(name: string, merchant: Merchant, day: string): Payout | null {
  const amount = takingsOf(name, merchant, day).reduce((sum, { gross, fee }) => sum + gross - fee, 0);
  if (amount <= 0) return null;
  const short = createHash("sha256").update(`${name} ${day}`).digest("hex").slice(0, 8).toUpperCase();
  return { id: short, date: addDays(day, 2), amount };
}
