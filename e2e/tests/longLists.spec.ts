import { expect, test } from "@playwright/test";
import { britishBook } from "../support/british.ts";
import { startServer } from "../support/server.ts";
import type { RunningServer } from "../support/server.ts";

/** More of everything than is shown or offered at once. */
const [CONTACTS, ITEMS, OPEN] = [620, 150, 230];
const three = (n: number) => String(n).padStart(3, "0");

let server: RunningServer;
let base: string;
test.beforeAll(async () => {
  server = await startServer();
  const id = await britishBook(server, "Long Counter Ltd", {
    contacts: Array.from({ length: CONTACTS }, (_, n) => ({
      id: `c${n}`,
      name: `Party ${three(n)}`,
      country: "GB",
    })),
    items: Array.from({ length: ITEMS }, (_, n) => ({
      id: `i${n}`,
      name: `Piece ${three(n)}`,
      unitPrice: `${n}.00`,
      saleCode: "S20",
    })),
    documents: Array.from({ length: OPEN }, (_, n) => ({
      kind: "sales-invoice",
      number: `OPEN-${three(n)}`,
      date: "2026-05-01",
      contact: `c${CONTACTS - 1}`,
      lines: [{ amount: "5.00", code: "S20" }],
    })),
  });
  base = `${server.address}/c/${id}`;
});
test.afterAll(() => server.stop());

test("the last contact and the last item are found, listed and used", async ({ page }) => {
  await page.goto(`${base}/setup/contacts`);
  const contacts = page.getByRole("table", { name: "Contacts" });
  await expect(contacts).toHaveAttribute("aria-rowcount", String(CONTACTS));
  await page.getByRole("textbox", { name: "Find by name or number" }).fill("Party 619");
  await expect(contacts).toHaveAttribute("aria-rowcount", "1");
  await expect(contacts.getByRole("row", { name: /Party 619/ })).toContainText(String(OPEN));

  await page.goto(`${base}/books/documents/new/sales-invoice`);
  await page.getByRole("combobox", { name: "Customer" }).fill("Party 619");
  await page.getByRole("option", { name: /Party 619/ }).click();
  await page.getByRole("combobox", { name: "Item, line 1" }).fill("Piece 149");
  await page.getByRole("option", { name: /Piece 149/ }).click();
  await page.getByRole("combobox", { name: "Item, line 2" }).fill("Piece 003");
  await page.getByRole("option", { name: /Piece 003/ }).click();
  await expect(page.getByLabel("Text, line 1")).toHaveValue("Piece 149");
  await expect(page.getByLabel("Text, line 2")).toHaveValue("Piece 003");
});

test("an open document beyond those shown is found, settled, and stays in sight", async ({ page }) => {
  await page.goto(`${base}/books/payments/new/receipt`);
  await page.getByRole("combobox", { name: "From" }).fill("Party 619");
  await page.getByRole("option", { name: /Party 619/ }).click();
  await expect(page.getByText("The 200 oldest of 230 open are shown.")).toBeVisible();
  const find = page.getByLabel("Find open documents");
  await find.fill("OPEN-229");
  await expect(page.getByRole("button", { name: "OPEN-228", exact: true })).toBeHidden();
  await page.getByLabel("Amount", { exact: true }).fill("6.00");
  await page.getByRole("button", { name: "OPEN-229", exact: true }).click();
  await expect(page.getByLabel("Amount for OPEN-229")).toHaveValue("6.00");
  await find.fill("");
  await expect(page.getByRole("button", { name: "OPEN-000", exact: true })).toBeVisible();
  await expect(page.getByLabel("Amount for OPEN-229")).toHaveValue("6.00");
  await page.getByRole("button", { name: /^Post/ }).click();
  await expect(page.getByRole("status").filter({ hasText: "Posted receipt" })).toBeVisible();

  // Begun from the document itself, which is not among the oldest either.
  await page.goto(`${base}/books/payments`);
  await page.getByRole("tab", { name: "Open items" }).click();
  await page.getByRole("textbox", { name: "Find payments" }).fill("OPEN-228");
  const row = page.getByRole("table", { name: "Open items" }).getByRole("row", { name: /OPEN-228/ });
  await row.getByRole("link", { name: "settle" }).click();
  await expect(page.getByLabel("Amount for OPEN-228")).toHaveValue("6.00");
});
