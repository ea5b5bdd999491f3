import { expect, test } from "@playwright/test";
import { british } from "../support/british.ts";
import { send } from "../support/api.ts";
import { startServer } from "../support/server.ts";
import type { RunningServer } from "../support/server.ts";

let server: RunningServer;
test.beforeAll(async () => {
  server = await startServer();
});
test.afterAll(() => server.stop());

const DAY = 86_400_000;
const iso = (moment: number) => new Date(moment).toISOString().slice(0, 10);
/** The first day of the last month that had its first payouts; the day before ends a filing period. */
const now = new Date();
const first = Date.UTC(now.getUTCFullYear(), now.getUTCMonth() - (now.getUTCDate() < 6 ? 1 : 0), 1);
const [PERIOD_END, FIRST, PAID] = [iso(first - DAY), iso(first), iso(first + 3 * DAY)];

/** The operator's merchant of some name who gives money back on the first day of the month. */
async function merchantWithRefund(): Promise<string> {
  for (let number = 1; number <= 120; number += 1) {
    const name = `QUAY-${number}`;
    await send(server, "PUT", `/simulators/terminal/merchants/${name}`, {
      key: "quay-key",
      zone: "Europe/London",
      currency: "GBP",
      from: iso(first - 12 * DAY),
      perDay: 4,
      open: 9,
      close: 17,
      items: [{ name: "Oars", tax: "VAT", from: 900, to: 4000 }],
      surchargePercent: 0,
      feePercent: 1.5,
      feeFixed: 3,
      bankAccount: name,
    });
    const merchant = `${server.address}/simulators/terminal/merchants/${name}`;
    const authorised = await fetch(`${merchant}/authorise`, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ key: "quay-key" }),
    });
    const { token } = (await authorised.json()) as { token: string };
    const headers = { authorization: `Bearer ${token}` };
    const answer = await fetch(`${merchant}/transactions`, { headers });
    if (!answer.ok) continue;
    const { rows } = (await answer.json()) as { rows: { kind: string; at: string }[] };
    if (rows.some(({ kind, at }) => kind === "refund" && at.startsWith(FIRST))) return name;
  }
  throw new Error("None of the merchants gave anything back.");
}

test("card takings on the clearing account: what is on its way on the last day of a period, a refund of the day after, all paid out", async ({
  page,
}) => {
  const { id } = await british(server, "Quayside Oars", {
    from: "2025-01-01",
    frequency: "monthly",
    anchor: "2025-01-31",
  });
  const merchant = await merchantWithRefund();
  const target = { code: "S20", account: "4000" };
  const terminal = await send(server, "POST", `/api/clients/${id}/terminals`, {
    merchant,
    key: "quay-key",
    name: "Quay",
    zone: "Europe/London",
    cutOff: "04:00",
    start: iso(first - 12 * DAY),
    mapping: {
      taxes: { VAT: target },
      surcharge: target,
      tip: target,
      fee: { code: "EX", account: "6800" },
      bank: "1000",
    },
  });
  await send(server, "POST", `/api/clients/${id}/terminals/${terminal.id}/fetch`, {});
  await page.goto(`${server.address}/c/${id}/books/bank`);
  await page.getByRole("button", { name: "Connect the bank" }).click();
  await page.getByLabel("Number of the account at the bank").fill(merchant);
  await page.getByRole("button", { name: "Ask for consent" }).click();
  await page.getByRole("button", { name: "Fetch new lines" }).click();
  await page.getByRole("button", { name: /^Accept the \d+ sure ones/ }).click();
  await expect(page.getByRole("status")).toContainText("matched");

  const shownOn = async (date: string) => {
    await page.goto(`${server.address}/c/${id}/agree/balances`);
    await page.getByRole("textbox", { name: "On" }).fill(date.split("-").reverse().join("/"));
    await page.keyboard.press("Enter");
    const cards = page.getByRole("region", { name: /Card/ });
    await expect(cards).toContainText("agreed, nothing left");
    await cards.getByRole("button", { name: /▸ Taken by card and not paid out yet/ }).click();
    await expect(cards.getByText(/^Taken on/).first()).toBeVisible();
    return cards;
  };
  const atTheEnd = await shownOn(PERIOD_END);
  await expect(atTheEnd).toContainText(`Taken on ${PERIOD_END}, less fees`);
  await expect(atTheEnd).not.toContainText(`Taken on ${FIRST}`);
  // What was given back on the first lowered that day's payout, of the new period, and is paid out with it.
  const later = await shownOn(PAID);
  await expect(later).not.toContainText(`Taken on ${FIRST}`);
  await page.goto(`${server.address}/c/${id}/books/terminals`);
  const days = page.getByRole("table", { name: "Trading days" });
  await expect(days.getByRole("row").nth(1)).toContainText(/\d{4}/);
  await days.press("End");
  await expect(page.getByRole("row", { name: new RegExp(FIRST) })).toBeVisible();
});
