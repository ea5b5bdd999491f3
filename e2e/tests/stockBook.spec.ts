import { readFileSync } from "node:fs";
import { expect, test } from "@playwright/test";
import { send } from "../support/api.ts";
import { expectAccessible } from "../support/axe.ts";
import { british } from "../support/british.ts";
import { startServer } from "../support/server.ts";
import type { RunningServer } from "../support/server.ts";

let server: RunningServer;
test.beforeAll(async () => {
  server = await startServer();
});
test.afterAll(() => server.stop());

test("a violin is bought from a private person, repaired, sold in a set; the book is printed, the return closed", async ({
  page,
}) => {
  const { id } = await british(server, "Bow Lane Strings");
  const book = `${server.address}/c/${id}/books/stock`;
  await page.goto(book);
  await expect(page.getByText("No piece yet.", { exact: false })).toBeVisible();

  const buy = async (name: string, price: string, address: string) => {
    await page.getByRole("button", { name: "Buy a piece" }).click();
    const dialog = page.getByRole("dialog");
    await dialog.getByLabel("Description").fill(name);
    await dialog.getByLabel("Day of purchase").fill("12/1/2026");
    await dialog.getByLabel("Purchase price").fill(price);
    await dialog.getByLabel("Seller", { exact: true }).fill("Hesper Lockwood");
    await dialog.getByLabel("Address of the seller").fill(address);
    await dialog.getByRole("button", { name: "Buy" }).click();
    await expect(dialog).toBeHidden();
  };
  await buy("Violin, about 1900", "2400", "4 Chapel Row, Todmorden");
  const panel = page.getByRole("region", { name: "Piece 0001" });
  await expect(panel).toContainText("PM-0001");
  await expect(page.getByText("= account 1150 ✓")).toBeVisible();
  await expectAccessible(page);
  await buy("Bow", "480", "");
  // What is not on record has its price, and is filled in.
  await page.getByRole("tab", { name: "to mend 1" }).click();
  await page.getByRole("region", { name: "Piece 0002" }).getByRole("button", { name: "Fill in" }).click();
  await page.getByLabel("Address of the seller").fill("4 Chapel Row, Todmorden");
  await page.getByRole("button", { name: "Keep" }).click();
  await expect(page.getByRole("tab", { name: "to mend 0" })).toBeVisible();

  // A repair is spent on the violin: deducted the ordinary way, no part of its price.
  await send(server, "POST", `/api/clients/${id}/documents`, {
    kind: "purchase-bill",
    number: "REP-1",
    date: "2026-01-20",
    prices: "exclusive",
    lines: [{ text: "New bridge", amount: "100.00", code: "S20", attributes: { pieceCost: "1" } }],
  });
  await page.getByRole("tab", { name: "all 2" }).click();
  await page.getByRole("checkbox", { name: "Choose Violin, about 1900" }).click();
  await page.getByRole("checkbox", { name: "Choose Bow" }).click();
  await page.getByRole("button", { name: "Join into a set" }).click();
  await page.getByLabel("What the set is called").fill("Violin with bow");
  await page.getByRole("button", { name: "Join", exact: true }).click();
  await expect(page.getByRole("region", { name: "Piece 0003" })).toContainText("2,880.00");

  // The line takes piece, cost and code from the book, and shows the margin while the price is typed.
  await page.goto(`${server.address}/c/${id}/books/documents/new/sales-invoice`);
  await page.getByRole("combobox", { name: "Piece of the stock book" }).click();
  await page.getByRole("option", { name: /0003 Violin with bow/ }).click();
  await page.locator('[data-cell="0-amount"]').fill("4080");
  await expect(page.getByText("margin 1,200.00, tax inside 200.00", { exact: false })).toBeVisible();
  await page.getByLabel("Date", { exact: true }).fill("14/2/2026");
  await page.keyboard.press("Tab");
  await page.keyboard.press("Control+Enter");
  await expect(page.getByRole("status").filter({ hasText: "Posted sales invoice" })).toBeVisible();

  await page.goto(`${book}/3`);
  const set = page.getByRole("region", { name: "Piece 0003" });
  await expect(set).toContainText("(4,080.00 − 2,880.00) × 20 / 120 = 200.00");
  await set.getByRole("button", { name: /Tax inside the margin/ }).click();
  await expect(page.getByRole("region", { name: "Trail" })).toContainText("1,200.00 × 20 / 120 = 200.00");
  await page.goto(`${book}/1`);
  await expect(page.getByRole("region", { name: "Piece 0001" })).toContainText("New bridge");
  await page.getByRole("button", { name: "Files" }).click();
  const printing = page.waitForEvent("download");
  await page.getByRole("menuitem", { name: "Print the book (PDF)" }).click();
  const file = await (await printing).path();
  expect(readFileSync(file).subarray(0, 5).toString()).toBe("%PDF-");

  await page.goto(`${server.address}/c/${id}/return/2026-03-31`);
  const form = page.getByRole("table").first();
  await expect(form.getByRole("row").filter({ hasText: "VAT due on sales" })).toContainText("200.00");
  await expect(form.getByRole("row").filter({ hasText: "VAT reclaimed" }).first()).toContainText("20.00");
});
