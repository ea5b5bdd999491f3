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

const post = (path: string, body: object) => send(server, "POST", `/api${path}`, body);

function document(id: number, kind: string, number: string, date: string, line: object, more: object = {}) {
  return post(`/clients/${id}/documents`, {
    kind,
    number,
    date,
    prices: "inclusive",
    lines: [{ text: number, ...line }],
    ...more,
  });
}

test("a scheme is joined in the registration, its workpaper stands under the return and opens to documents", async ({
  page,
}) => {
  const { id } = await british(server, "Weir Street Barbers");
  await document(id, "sales-invoice", "WB-1", "2026-05-04", { amount: "12000.00", code: "S20" });
  await document(id, "purchase-bill", "CH-1", "2026-05-05", { amount: "2640.00", code: "CAP20" });
  await document(id, "purchase-bill", "TO-1", "2026-05-06", {
    amount: "600.00",
    code: "S20",
    supply: "goods",
  });
  await page.goto(`${server.address}/c/${id}/setup/places`);
  await expect(page.getByText("Filing periods")).toBeVisible();
  await page.getByRole("button", { name: "Change" }).last().click();
  const dialog = page.getByRole("dialog");
  await dialog.getByRole("button", { name: "Join the flat rate scheme" }).click();
  await dialog.getByLabel("From the period").selectOption("2026-04-01");
  await dialog.getByLabel("Sector").selectOption("hair");
  await expectAccessible(page);
  await dialog.getByRole("button", { name: "Join from 1 Apr 2026" }).click();
  await dialog.getByRole("button", { name: "Save" }).click();
  await expect(page.getByText("Flat rate scheme from 1 Apr 2026 on")).toBeVisible();

  await page.goto(`${server.address}/c/${id}/return/2026-06-30`);
  const paper = page.getByRole("region", { name: "Workpaper: Flat rate scheme" });
  // 13 % less one in the first year of registration.
  await expect(paper).toContainText("12,000.00 × 12 % = 1,440.00");
  await expect(paper.getByRole("row", { name: /CH-1, line 1/ }).first()).toContainText("440.00");
  await expect(paper).toContainText("Set aside: S20, tax charged and not declared");
  await paper.getByRole("button", { name: /Turnover at/ }).click();
  await expect(page.getByRole("region", { name: "Trail" })).toContainText("WB-1");
  await expectAccessible(page);
});

test("payment is due on a day, and the tax of what stays unpaid goes onto the return in bulk", async ({
  page,
}) => {
  const { id } = await british(server, "Long Meadow Supplies");
  const customer = await post(`/clients/${id}/contacts`, {
    name: "Slow & Co",
    country: "GB",
    registered: true,
  });
  await page.goto(`${server.address}/c/${id}/books/documents/new/sales-invoice`);
  await page.getByLabel("Due on").fill("4/2/2026");
  await page.getByLabel("Due on").blur();
  await expect(page.getByLabel("Due on")).toHaveValue("04/02/2026");
  for (const [number, amount] of [
    ["LM-1", "1200.00"],
    ["LM-2", "600.00"],
  ] as const) {
    await document(
      id,
      "sales-invoice",
      number,
      "2026-01-05",
      { amount, code: "S20" },
      { contact: customer.id, due: "2026-02-04" },
    );
  }
  await page.goto(`${server.address}/c/${id}/agree/unpaid?period=2026-09-30`);
  await page.getByRole("button", { name: /Jul to Sept? 2026/ }).click();
  await expect(page.getByRole("tab", { name: "Bad debt relief (2)" })).toBeVisible();
  await expect(page.getByRole("row", { name: /LM-1/ })).toContainText("5 Aug 2026");
  await expectAccessible(page);
  await page.getByRole("checkbox", { name: /LM-1/ }).check();
  await page.getByRole("checkbox", { name: /LM-2/ }).check();
  await page.getByRole("button", { name: /Put on this return/ }).click();
  await page.getByRole("dialog").getByRole("button", { name: "Post the journals" }).click();
  await expect(page.getByRole("tab", { name: "Bad debt relief (0)" })).toBeVisible();
  await page.goto(`${server.address}/c/${id}/return/2026-09-30`);
  await expect(page.getByRole("row", { name: /VAT reclaimed on purchases/ })).toContainText("300.00");
});

test("goods in the price of a service propose the rate of the goods", async ({ page }) => {
  const { id } = await post("/clients", {
    name: "Kiltimagh Kitchens",
    country: "IE",
    place: { name: "Workshop", country: "IE" },
    registration: {
      pack: "ie",
      from: "2026-01-01",
      frequency: "two-monthly",
      anchor: "2026-02-28",
      number: "",
    },
  });
  const { id: bill } = await document(id, "sales-invoice", "KK-1", "2026-05-04", {
    amount: "1135.00",
    code: "R13",
    attributes: { goodsCost: "700.00" },
  });
  await page.goto(`${server.address}/c/${id}/books/documents/${bill}`);
  const proposal = page.getByRole("group", { name: "Proposal for line 1" });
  await expect(proposal).toContainText("more than two thirds");
  await proposal.getByRole("button", { name: "Take S23" }).click();
  await expect(proposal).toHaveCount(0);
});
