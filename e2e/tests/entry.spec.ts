import { expect, test } from "@playwright/test";
import type { Page } from "@playwright/test";
import { expectAccessible } from "../support/axe.ts";
import { british } from "../support/british.ts";
import { screens } from "../support/screens.ts";
import { startServer } from "../support/server.ts";
import type { RunningServer } from "../support/server.ts";

let server: RunningServer;
let client: { id: number };
test.beforeAll(async () => {
  server = await startServer();
  client = await british(server, "Dovecote Nursery", { number: "980780684", from: "2025-01-01" });
});
test.afterAll(() => server.stop());

const open = (page: Page, inside: string) => page.goto(`${server.address}/c/${client.id}/${inside}`);

test("the same receipt in both modes gives the same to the penny", async ({ page }) => {
  await open(page, "books/documents/new/sales-invoice");
  await page.getByLabel("Text, line 1").fill("Lunch");
  await page.getByLabel("Amount, line 1").fill("45.00");
  const effect = page.getByRole("region", { name: "Effect" });
  await expect(effect).toContainText("54.00");
  const exclusive = await effect.getByRole("table").first().innerText();
  await page.getByRole("button", { name: "tax-inclusive" }).click();
  await page.getByLabel("Amount, line 1").fill("54.00");
  await expect(effect).toContainText("54.00 incl. ÷ 1.2 = 45.00");
  expect(await effect.getByRole("table").first().innerText()).toBe(exclusive);
  await page.getByRole("button", { name: "tax-exclusive" }).click();
  await expect(effect).toContainText("64.80");
  await page.getByLabel("Price of the line").selectOption("tax-inclusive");
  await expect(effect).toContainText("54.00 incl. ÷ 1.2 = 45.00");
  expect(await effect.getByRole("table").first().innerText()).toBe(exclusive);
  await page.getByLabel("taxable", { exact: true }).uncheck();
  await expect(page.getByRole("combobox", { name: "Code, line 1" })).toHaveValue("OS");
  await expect(effect.getByRole("table").first()).not.toContainText("VAT");
  await page.getByLabel("taxable", { exact: true }).check();
  await expect(effect).toContainText("54.00 incl. ÷ 1.2 = 45.00");
});

test("a draft survives leaving the page, a block is pasted, a typed tax is asked about once", async ({
  page,
}) => {
  await open(page, "books/documents/new/purchase-bill");
  await page.getByLabel("Text, line 1").focus();
  await page.evaluate(() => {
    const data = new DataTransfer();
    data.setData("text/plain", "Seed\t120.00\nPots\t30.00\n");
    document.activeElement?.dispatchEvent(
      new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }),
    );
  });
  await expect(page.getByLabel("Amount, line 2")).toHaveValue("30.00");
  await page.getByLabel("VAT, line 1").fill("20.00");
  await page.getByLabel("Their number").fill("P-77");
  await page.getByRole("link", { name: "Agree" }).click();
  await expect(page.getByRole("heading", { level: 1, name: /^Agreements/ })).toBeVisible();
  await page.goBack();
  await expect(page.getByLabel("Their number")).toHaveValue("P-77");
  await expect(page.getByRole("region", { name: "Effect" })).toContainText(
    "calculated now 24.00, typed 20.00",
  );
  await page.getByRole("button", { name: /^Post/ }).click();
  await page.getByRole("dialog").getByRole("button", { name: "Keep what was typed" }).click();
  await expect(page.getByRole("status")).toContainText("P-77");

  await page.getByLabel("Their number").fill("P-77");
  await page.getByLabel("Text, line 1").fill("Again");
  await page.getByLabel("Amount, line 1").fill("1.00");
  await page.keyboard.press("Control+Enter");
  const dialog = page.getByRole("dialog", { name: "This number is already in the books" });
  await dialog.getByLabel("Why there are two").fill("The supplier used it twice");
  await dialog.getByRole("button", { name: "Post all the same" }).click();
  await expect(page.getByRole("status")).toContainText("P-77");
});

test("a posted document is corrected, credited and taken out; its versions stay on record", async ({
  page,
}) => {
  await open(page, "books/documents/new/sales-invoice");
  await page.getByLabel("Text, line 1").fill("Hedge, 12 m");
  await page.getByLabel("Amount, line 1").fill("300.00");
  await page.keyboard.press("Control+Enter");
  await page.getByRole("link", { name: "Open it" }).click();
  await expect(page.getByRole("button", { name: /Save correction/ })).toBeVisible();
  await page.getByLabel("Amount, line 1").fill("330.00");
  await page.getByRole("button", { name: /Save correction/ }).click();
  await expect(page.getByText(/corrected by/)).toBeVisible();
  await page.getByRole("button", { name: "More" }).click();
  await page.getByRole("menuitem", { name: "Credit it" }).click();
  await expect(page.getByRole("heading", { name: "Sales credit note" })).toBeVisible();
  await expect(page.getByLabel("Amount, line 1")).toHaveValue("330.00");
  await page.goBack();
  await page.getByRole("button", { name: "More" }).click();
  await page.getByRole("menuitem", { name: "Take it out of the books" }).click();
  await page.getByLabel("Why").fill("Never delivered");
  await page.getByRole("dialog").getByRole("button", { name: "Take out" }).click();
  await expect(page.getByText(/taken out: Never delivered/)).toBeVisible();
});

test("every screen opens by keyboard from the palette, in light and dark, without serious axe findings", async ({
  page,
}) => {
  await open(page, "books/documents");
  await expect(page.getByRole("heading", { level: 1, name: "Documents" })).toBeVisible();
  for (const { find = "", path } of screens().filter((one) => one.of === "client" && one.find)) {
    // Typed at once, also the first time, while the list is still fetched.
    await page.keyboard.press("Control+k");
    await page.keyboard.type(`screen ${find}`);
    await expect(page.getByPlaceholder("Client, document, code, screen or action")).toHaveValue(
      `screen ${find}`,
    );
    await expect(page.getByRole("dialog").getByRole("option", { selected: true })).toContainText(find);
    await page.keyboard.press("Enter");
    await expect(page).toHaveURL(new RegExp(`/c/\\d+/${path}([/?]|$)`));
    await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
    for (const colorScheme of ["light", "dark"] as const) {
      await page.emulateMedia({ colorScheme });
      await expectAccessible(page);
    }
  }
  await page.keyboard.press("?");
  await expect(page.getByRole("dialog", { name: "Shortcuts" })).toBeVisible();
  await page.keyboard.press("Escape");
  await page.setViewportSize({ width: 1024, height: 768 });
  expect(await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth)).toBe(true);
});
