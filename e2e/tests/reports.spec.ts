import { expect, test } from "@playwright/test";
import { readFileSync } from "node:fs";
import { expectAccessible } from "../support/axe.ts";
import { startServer } from "../support/server.ts";
import type { RunningServer } from "../support/server.ts";

let server: RunningServer;
let base: string;
test.beforeAll(async () => {
  server = await startServer();
  const post = async (path: string, body: object) =>
    (await (
      await fetch(`${server.address}/api${path}`, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify(body),
      })
    ).json()) as { id: number };
  const { id } = await post("/clients", {
    name: "Honeygum Meadery",
    country: "AU",
    place: { name: "Beechworth", country: "AU", region: "VIC" },
    registration: {
      pack: "au",
      levies: ["GST", "WET"],
      from: "2026-01-01",
      to: null,
      frequency: "quarterly",
      anchor: "2026-03-31",
    },
  });
  base = `/c/${id}`;
  for (const [number, quantity] of [
    ["HM-1", "10"],
    ["HM-2", "3"],
  ]) {
    await post(`/clients/${id}/documents`, {
      kind: "sales-invoice",
      number,
      date: "2026-02-11",
      prices: "exclusive",
      lines: [{ text: "Mead", quantity, unitPrice: "100.00", code: "WW" }],
    });
  }
});
test.afterAll(() => server.stop());

test("from a sum of the summary to its lines, to the trail of one, and out as a file", async ({ page }) => {
  await page.goto(`${server.address}${base}/books/reports?period=2026-03-31`);
  const row = page.getByRole("row", { name: /WW/ });
  await expect(row.first()).toContainText("167.70");
  await expect(page.getByRole("row", { name: /Total WET, sales/ })).toContainText("377.00");
  await expectAccessible(page);
  await page.getByRole("button", { name: "WW sale 167.70, open its lines" }).click();
  const lines = page.getByRole("table", { name: "Lines counted" });
  await expect(lines.getByRole("row", { name: /HM-1/ })).toContainText("129.00");
  await lines.getByRole("button", { name: /HM-1 line 1 129.00/ }).click();
  await expect(page.getByRole("region", { name: "Trail" })).toContainText("1,290.00 × 10 % = 129.00");
  await expectAccessible(page);
  const download = page.waitForEvent("download");
  await page.getByRole("link", { name: "CSV" }).click();
  const csv = readFileSync(await (await download).path(), "utf8");
  expect(csv).toContain("GST sale WW 10 %");
  expect(csv).toContain("1300.00,167.70");
});

test("the order of levies is changed by keyboard, too", async ({ page }) => {
  await page.goto(`${server.address}${base}/setup/codes`);
  await page.getByRole("button", { name: "WW", exact: true }).click();
  const bench = page.getByRole("region", { name: "Code bench" });
  await expect(bench.getByRole("row", { name: /^GST 10 %/ })).toContainText("12.90");
  const first = page.getByRole("button", { name: /^WET 29 %, 1 in the order/ }).first();
  await first.focus();
  await page.keyboard.press("Space");
  await expect(page.getByRole("button", { name: /^WET 29 %/, pressed: true })).toBeVisible();
  // What is picked up listens to keys a moment later; there is nothing beyond the second place.
  await expect(async () => {
    await page.keyboard.press("ArrowRight");
    await expect(page.getByText(/was moved over droppable area \S+\/1/)).toBeAttached({ timeout: 1_000 });
  }).toPass();
  await page.keyboard.press("Space");
  await expect(bench.getByRole("row", { name: /^GST 10 %/ })).toContainText("10.00");
  await expect(bench.getByRole("row", { name: /^WET 29 %/ })).toContainText("31.90");
});
