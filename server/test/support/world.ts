import { expect } from "vitest";
import type { TestServer } from "./testServer.ts";

/** The date so many days back. */
export const day = (back: number) => new Date(Date.now() - back * 86_400_000).toISOString().slice(0, 10);

/** Tells a simulator what happens in its world. */
export async function world(server: TestServer, path: string, body: object): Promise<void> {
  const answer = await fetch(`${server.address}/simulators/${path}`, {
    method: "PUT",
    headers: { "content-type": "application/json" },
    body: JSON.stringify(body),
  });
  expect(answer.status).toBe(204);
}

/** A bar whose days go on past midnight. */
export const nightBar = (bankAccount: string) => ({
  key: "night-key",
  zone: "Europe/London",
  currency: "GBP",
  from: day(40),
  perDay: 30,
  open: 17,
  close: 26.5,
  items: [
    { name: "Ale", tax: "VAT 20", from: 420, to: 980 },
    { name: "Water", tax: "no VAT", from: 150, to: 300 },
  ],
  surchargePercent: 1.5,
  feePercent: 1.6,
  feeFixed: 5,
  bankAccount,
});
