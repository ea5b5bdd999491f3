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

test("takings are typed by day and read from a file; the return works the tax out of what was taken", async ({
  page,
}) => {
  const { id } = await british(server, "Quayside Stores", {
    schemes: [
      {
        scheme: "gb-retail",
        from: "2026-01-01",
        to: null,
        settings: { method: "point-of-sale", minority: "zero" },
      },
    ],
  });
  await page.goto(`${server.address}/c/${id}/books/takings`);
  await page.getByLabel("Month").selectOption("2026-02-01");
  await page.getByRole("textbox", { name: /standard.*, 3 Feb 2026/i }).fill("120.00");
  await page.getByRole("textbox", { name: /zero.*, 3 Feb 2026/i }).fill("45.50");
  await page.getByRole("button", { name: "Keep 1 day" }).click();
  await expect(
    page.getByRole("row", { name: /3 Feb 2026/ }).getByRole("link", { name: "cash sale" }),
  ).toBeVisible();
  await page.getByLabel("File of takings").setInputFiles({
    name: "till.csv",
    mimeType: "text/csv",
    buffer: Buffer.from("date,RT20,RT0\n2026-02-04,240.00,10.00\n2026-02-05,60.00,\n"),
  });
  await page.getByRole("button", { name: "Keep 2 days" }).click();
  await expect(page.getByRole("button", { name: "All kept" })).toBeVisible();
  await expectAccessible(page);
  // 420.00 at the standard rate: a sixth is tax.
  await page.goto(`${server.address}/c/${id}/return/2026-03-31`);
  const paper = page.getByRole("region", { name: "Workpaper: Retail scheme" });
  await expect(paper.getByRole("button", { name: /70.00/ }).first()).toBeVisible();
});

test("a seller to other members registers for the one-stop shop and declares by member", async ({ page }) => {
  const { id } = await send(server, "POST", "/api/clients", {
    name: "Lindenhof Versand",
    country: "DE",
    place: { name: "Lager", country: "DE" },
    registration: {
      pack: "eu-de",
      from: "2026-01-01",
      frequency: "quarterly",
      anchor: "2026-03-31",
      number: "DE271828000",
    },
  });
  const buyer = { name: "Madame Fournier", country: "FR", registered: false };
  const { id: contact } = await send(server, "POST", `/api/clients/${id}/contacts`, buyer);
  await page.goto(`${server.address}/c/${id}/setup/places`);
  await page.getByRole("button", { name: "Add registration" }).click();
  const dialog = page.getByRole("dialog");
  await dialog.getByLabel("For", { exact: true }).selectOption("OSS");
  await expect(dialog.getByLabel("Filing periods")).toContainText("one-stop shop");
  await dialog.getByLabel("Registered from").fill("2026-01-01");
  await expectAccessible(page);
  await dialog.getByRole("button", { name: "Add registration" }).click();
  await expect(dialog).toBeHidden();
  // No code is typed: the rules choose the tax of the customer's state.
  await send(server, "POST", `/api/clients/${id}/documents`, {
    kind: "sales-invoice",
    number: "LV-1",
    date: "2026-02-03",
    prices: "inclusive",
    contact,
    lines: [{ text: "Linden honey", amount: "120.00", supply: "goods" }],
  });
  const { registrations } = (await (await fetch(`${server.address}/api/clients/${id}`)).json()) as {
    registrations: { id: number; levies: string[] }[];
  };
  const oss = registrations.find(({ levies }) => levies.includes("OSS"))?.id ?? 0;
  await page.goto(`${server.address}/c/${id}/return/2026-03-31?r=${oss}`);
  await expect(page.getByRole("button", { name: /^Box FR\.G\.t 20\.00/ })).toBeVisible();
  await page.getByText("Supplies and corrections by member", { exact: true }).click();
  await expect(page.getByRole("row", { name: /FR Goods standard 20/ })).toContainText("100.00");
  await expectAccessible(page);
});
