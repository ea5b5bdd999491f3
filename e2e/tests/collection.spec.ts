import { expect, test } from "@playwright/test";
import { send } from "../support/api.ts";
import { expectAccessible } from "../support/axe.ts";
import { startServer } from "../support/server.ts";
import type { RunningServer } from "../support/server.ts";

let server: RunningServer;
test.beforeAll(async () => {
  server = await startServer();
});
test.afterAll(() => server.stop());

const post = (path: string, body: object) => send(server, "POST", `/api${path}`, body);

/** A weaver with a customer who paid 46,00,000 in the year; both numbers are invented. */
async function weaver(name: string, collection: string) {
  const { id } = await post("/clients", {
    name,
    country: "IN",
    place: { name: "Loom", country: "IN", region: "KA" },
    registration: {
      pack: "in",
      from: "2024-04-01",
      frequency: "monthly",
      anchor: "2024-04-30",
      number: "29AAGFM7315R1ZJ",
      options: { collection },
    },
  });
  const { id: contact } = await post(`/clients/${id}/contacts`, {
    name: "Temple Road Sarees",
    country: "IN",
    region: "KA",
    taxNumber: "29AABCM4821K1ZB",
    registered: true,
  });
  const { id: invoice } = await post(`/clients/${id}/documents`, {
    kind: "sales-invoice",
    number: "TR-1",
    date: "2024-05-02",
    contact,
    lines: [{ text: "Sarees", amount: "4600000.00", code: "EX", supply: "goods" }],
  });
  await post(`/clients/${id}/payments`, {
    kind: "receipt",
    date: "2024-06-03",
    amount: "4600000.00",
    contact,
    allocations: [{ document: invoice, amount: "4600000.00" }],
  });
  return { id, contact };
}

test("one receipt passes the sum of the year: only the excess bears tax, is charged, and stands in the statement", async ({
  page,
}) => {
  const { id, contact } = await weaver("Ilkal Weavers", "receipt");
  await page.goto(`${server.address}/c/${id}/books/payments/new/receipt`);
  await page.getByRole("combobox", { name: "From" }).fill("Temple");
  await page.getByRole("option", { name: /Temple Road/ }).click();
  await page.getByLabel("Date", { exact: true }).fill("12/8/2024");
  await page.getByLabel("Amount", { exact: true }).fill("900000.00");
  await page.keyboard.press("Control+Enter");
  await expect(page.getByRole("status")).toContainText("R-0002");

  await page.goto(`${server.address}/c/${id}/books/collected`);
  await page.getByLabel("Fiscal year to").selectOption("2025-03-31");
  const row = page.getByRole("row", { name: /Temple Road/ });
  await expect(row).toContainText("AABCM4821K");
  await expect(row).toContainText("500,000.00");
  await expectAccessible(page);
  await row.getByRole("link", { name: "Temple Road Sarees" }).click();
  const year = page.getByRole("region", { name: "Year of Temple Road Sarees" });
  await year
    .getByRole("button", { name: /Tax on/ })
    .last()
    .click();
  await expect(page.getByRole("region", { name: "Trail" })).toContainText("500,000.00 × 0.1 % = 500.00");

  await page.goto(`${server.address}/c/${id}/books/collected/${contact}`);
  await page.getByLabel("Fiscal year to").selectOption("2025-03-31");
  await page.getByRole("checkbox", { name: /Temple Road/ }).check();
  await page.getByRole("button", { name: "Charge what is left …" }).click();
  await page.getByRole("dialog").getByRole("button", { name: "Post the debit notes" }).click();
  await expect(year).toContainText("All of it is charged.");
  await expect(year.getByRole("link", { name: "TCS-0001" })).toBeVisible();
  await expectAccessible(page);

  await page.getByRole("tab", { name: "Months and statements" }).click();
  await expect(page.getByRole("row", { name: /Aug(ust)? 2024/ })).toContainText(/7 Sept? 2024/);
  const link = page.getByRole("link", { name: "CSV" }).nth(1);
  const csv = await page.request.get(server.address + ((await link.getAttribute("href")) ?? ""));
  expect(await csv.text()).toContain("AABCM4821K,Temple Road Sarees,2024-08-12");
});

test("on invoices the line that charges it is one press away, and the next paper bears it", async ({
  page,
}) => {
  const { id } = await weaver("Ilkal Looms", "invoice");
  await page.goto(`${server.address}/c/${id}/books/documents/new/sales-invoice`);
  await page.getByRole("combobox", { name: "Customer" }).fill("Temple");
  await page.getByRole("option", { name: /Temple Road/ }).click();
  await page.getByLabel("Date", { exact: true }).fill("20/8/2024");
  await page.getByLabel("Text, line 1").fill("Silk");
  await page.getByLabel("Amount, line 1").fill("600000.00");
  await page.getByRole("combobox", { name: "Code, line 1" }).fill("EX");
  await page.getByRole("option", { name: /Exempt by notification/ }).click();
  const hint = page.getByRole("group", { name: "Collected at source" });
  await expect(hint).toContainText("200.00 is collected with this sale");
  await expectAccessible(page);
  await hint.getByRole("button", { name: "Add the line" }).click();
  await expect(hint).toHaveCount(0);
  await page.keyboard.press("Control+Enter");
  await expect(page.getByRole("status").first()).toContainText(/posted/i);
  await page.goto(`${server.address}/c/${id}/books/collected`);
  await page.getByLabel("Fiscal year to").selectOption("2025-03-31");
  await expect(page.getByRole("row", { name: /Temple Road/ })).toContainText("200.00");
});
