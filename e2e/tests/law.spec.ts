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
const client = (body: object) => post("/clients", body);
const document = (id: number, body: object) => post(`/clients/${id}/documents`, body);

test("a figure nobody looked up is marked, confirmed, and another one corrected with what it moves", async ({
  page,
}) => {
  const { id } = await client({
    name: "Galveston Lamps",
    country: "US",
    place: { name: "Houston shop", country: "US", region: "TX-HOU" },
    registration: {
      pack: "us",
      levies: ["SALES:TX"],
      from: "2026-01-01",
      frequency: "quarterly",
      anchor: "2026-03-31",
      number: "",
    },
  });
  await document(id, {
    kind: "sales-invoice",
    number: "GL-7",
    date: "2026-05-12",
    prices: "exclusive",
    contact: null,
    lines: [{ text: "Lamps", amount: "1000.00", code: "ST" }],
  });
  await page.goto(`${server.address}/c/${id}/return/2026-06-30`);
  await page.getByText("Rests on 3 figures to be looked up").click();
  await page.getByRole("link", { name: "Confirm or correct them" }).click();
  await expect(page.getByText("Law as of November 2026")).toBeVisible();
  await page.getByRole("button", { name: "Confirm City of Houston" }).click();
  await page.getByLabel("Where it was found, and on which day").fill("comptroller's table, 3 May 2026");
  await page.getByRole("dialog").getByRole("button", { name: "Confirm" }).click();
  await expect(page.getByRole("row", { name: /Confirmed: City of Houston/ })).toContainText(
    "comptroller's table",
  );
  await expectAccessible(page);

  await page.getByRole("button", { name: /Correct the law of United States/ }).click();
  await page.getByRole("menuitem", { name: /A rate, limit or amount/ }).click();
  const dialog = page.getByRole("dialog");
  await dialog.getByLabel("Rate", { exact: true }).selectOption("us.TX-HOU-MTA");
  await dialog.getByLabel("From", { exact: true }).fill("5/1/2026");
  await dialog.getByLabel("From", { exact: true }).blur();
  await dialog.getByRole("textbox", { name: "Is", exact: true }).fill("1.25");
  await dialog.getByLabel("Where it was found").fill("notice of the transit authority");
  await expect(dialog.getByRole("status")).toContainText("1 open document would be worked out anew");
  await expect(dialog.getByRole("status")).toContainText("GL-7");
  await dialog.getByRole("button", { name: "Correct" }).click();
  await expect(page.getByRole("row", { name: /Houston transit authority: 1.25/ })).toBeVisible();
  await page.goto(`${server.address}/c/${id}/books/documents`);
  await expect(page.getByRole("row", { name: /GL-7/ })).toContainText("85.00");
  await page.goto(`${server.address}/c/${id}/return/2026-06-30`);
  // The day is still from memory; both rates are not any more.
  await expect(page.getByText("Rests on 1 figure to be looked up")).toBeVisible();

  await page.goto(`${server.address}/c/${id}/setup/law`);
  await page
    .getByRole("row", { name: /Houston transit authority: 1.25/ })
    .getByRole("button", { name: "Take back" })
    .click();
  await expect(page.getByRole("row", { name: /Houston transit authority: 1.25/ })).toHaveCount(0);
  await page.goto(`${server.address}/c/${id}/books/documents`);
  await expect(page.getByRole("row", { name: /GL-7/ })).toContainText("82.50");
});

test("an invoice over a change of rate is split into the parts of the law, each with its reason in the trail", async ({
  page,
}) => {
  const { id } = await client({
    name: "Kinsale Kitchen",
    country: "IE",
    place: { name: "Kinsale", country: "IE", region: null },
    registration: { pack: "ie", from: "2026-01-01", frequency: "two-monthly", anchor: "2026-02-28" },
  });
  await page.goto(`${server.address}/c/${id}/books/documents/new/sales-invoice`);
  await page.getByLabel("Text, line 1").fill("Wedding catering");
  await page.getByLabel("Date", { exact: true }).fill("08/07/2026");
  await page.getByLabel("Date", { exact: true }).blur();
  await page.locator('[data-cell="0-amount"]').fill("1000.00");
  await page.getByRole("combobox", { name: "Code, line 1" }).fill("H");
  await page.getByRole("option", { name: /^H Restaurants/ }).click();
  const question = page.getByRole("group", { name: "Change of rate on line 1" });
  await expect(question).toContainText("changed on 1 Jul 2026 from 13.5 to 9 %");
  await question.getByLabel("Paid before").fill("1250.00");
  await expect(question).toContainText("at most the whole price");
  await question.getByLabel("Paid before").fill("250.00");
  await expect(question).toContainText("250.00 at 13.5 %, 750.00 at 9 %");
  await expectAccessible(page);
  await question.getByRole("button", { name: "Make two lines of it" }).click();
  await expect(question).toHaveCount(0);
  await expect(page.getByRole("row", { name: /^VAT 13.5 %/ })).toContainText("33.75");
  await expect(page.getByRole("row", { name: /^VAT 9 %/ })).toContainText("67.50");
  await page.getByRole("button", { name: /^Post/ }).click();
  await expect(page.getByLabel("Text, line 1")).toHaveValue("");
  await page.goto(`${server.address}/c/${id}/return/2026-08-31`);
  await expect(page.getByRole("row", { name: /^T1/ })).toContainText("101");
});

test("stock goes from one state to the other: two documents, two returns", async ({ page }) => {
  const registration = { pack: "in", from: "2026-01-01", frequency: "monthly", anchor: "2026-05-31" };
  const { id } = await client({
    name: "Deccan Cotton",
    country: "IN",
    place: { name: "Mumbai mill", country: "IN", region: "27" },
    registration: { ...registration, number: "27ZZZCZ9999Z1ZJ" },
  });
  await post(`/clients/${id}/registrations`, { ...registration, number: "29ZZZCZ9999Z1ZF" });
  await post(`/clients/${id}/places`, {
    name: "Bengaluru shop",
    country: "IN",
    region: "29",
  });
  await document(id, {
    kind: "sales-invoice",
    number: "M-1",
    date: "2026-11-02",
    prices: "exclusive",
    contact: null,
    lines: [{ text: "Cloth", amount: "100.00", code: "S5", supply: "goods" }],
  });
  await page.goto(`${server.address}/c/${id}/books/documents`);
  await page.getByRole("button", { name: "New document" }).click();
  await page.getByRole("menuitem", { name: "Stock to another registration" }).click();
  const dialog = page.getByRole("dialog");
  await dialog.getByLabel("Date").fill("10/11/2026");
  await dialog.getByLabel("Date").blur();
  await dialog.getByRole("textbox", { name: "Number" }).fill("BT-1");
  await dialog.getByRole("textbox", { name: "Goods" }).fill("Cloth, 40 bales");
  await dialog.getByRole("textbox", { name: "Value" }).fill("20,000.00");
  await dialog.getByRole("button", { name: "Post both" }).click();
  await expect(dialog.getByText("Code of the supply is missing.")).toBeVisible();
  await dialog.getByRole("combobox", { name: "Code of the supply" }).pressSequentially("S5");
  await page.keyboard.press("Enter");
  await dialog.getByRole("combobox", { name: "Code of the purchase" }).pressSequentially("P5");
  await page.keyboard.press("Enter");
  await expectAccessible(page);
  await dialog.getByRole("button", { name: "Post both" }).click();
  await expect(page.getByRole("heading", { name: "Cash sale" })).toBeVisible();
  await page.goto(`${server.address}/c/${id}/return/2026-11-30`);
  await expect(page.getByRole("button", { name: /^Box 3\.1a\.igst 1,000\.00/ })).toBeVisible();
  await page.getByLabel("Registration").selectOption({ index: 1 });
  await expect(page.getByRole("heading", { name: /, Nov 2026$/ })).toBeVisible();
  await expect(page.getByRole("button", { name: /^Box 4A5\.igst 1,000\.00/ })).toBeVisible();
});
