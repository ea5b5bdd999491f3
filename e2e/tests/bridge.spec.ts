import { expect, test } from "@playwright/test";
import { expectAccessible } from "../support/axe.ts";
import { send } from "../support/api.ts";
import { british } from "../support/british.ts";
import { startServer } from "../support/server.ts";
import type { RunningServer } from "../support/server.ts";

let server: RunningServer;
test.beforeAll(async () => {
  server = await startServer();
});
test.afterAll(() => server.stop());

test("turnover is bridged to nought by naming two causes, agreed, and watched from then on", async ({
  page,
}) => {
  const { id } = await british(server, "Tidewrack Prints");
  const invoice = (number: string, amount: string, more: object = {}) =>
    send(server, "POST", `/api/clients/${id}/documents`, {
      kind: "sales-invoice",
      date: "2026-02-10",
      prices: "exclusive",
      number,
      contact: null,
      lines: [{ code: "S20", amount, text: "Prints", ...more }],
    });
  const journal = (number: string, amount: string) =>
    send(server, "POST", `/api/clients/${id}/documents`, {
      kind: "journal",
      date: "2026-03-31",
      prices: "exclusive",
      number,
      contact: null,
      lines: [
        { account: "4000", amount: `-${amount}`, text: number },
        { account: "3000", amount, text: number },
      ],
    });
  await invoice("T-1", "1000.00");
  await invoice("T-2", "300.00", { account: "0100" });
  await journal("Work not billed yet", "250.00");
  await journal("Till counted again", "12.00");

  await page.goto(`${server.address}/c/${id}/agree/turnover?period=2026-03-31`);
  await expect(page.getByRole("heading", { name: "Turnover bridge, Jan to Mar 2026" })).toBeVisible();
  const left = page.getByRole("row", { name: /^Left/ });
  await expect(left).toContainText("2 rows without a cause");
  await expectAccessible(page);
  await expect(page.getByRole("row", { name: /Supplies on balance sheet accounts/ })).toContainText("300.00");

  for (const [row, cause] of [
    ["Work not billed yet", "Accrued income"],
    ["Till counted again", "Till differences"],
  ] as const) {
    // The words of a row choose it as its box does.
    await page.locator("label").filter({ hasText: row }).click();
    await expect(page.getByRole("checkbox", { name: `Choose ${row}` })).toBeChecked();
    const naming = page.getByRole("group", { name: "Name a cause" });
    await naming.getByRole("combobox").fill(cause);
    await page.getByRole("option", { name: new RegExp(cause) }).click();
    await naming.getByRole("button", { name: "Name it" }).click();
    await expect(page.getByRole("button", { name: new RegExp(`▸ ${cause}`) })).toBeVisible();
  }
  await expect(left).toContainText("nothing is left to explain");

  // One more of the kind is dragged to its cause.
  await journal("Till counted twice", "3.00");
  await page.reload();
  await page
    .getByRole("button", { name: "Drag Till counted twice to a cause" })
    .dragTo(page.getByRole("button", { name: "Till differences", exact: true }), { steps: 10 });
  await expect(page.getByRole("row", { name: /▸ Till differences/ })).toContainText("2 rows");
  await expect(left).toContainText("nothing is left to explain");
  await expect(left).toContainText("0.00");

  await page.getByRole("button", { name: "Agree at 0.00" }).click();
  await page.getByRole("dialog").getByRole("button", { name: "Agree" }).click();
  await expect(page.getByText(/^Agreed by Imre Vass/)).toBeVisible();
  await invoice("T-3", "40.00");
  await page.reload();
  await expect(page.getByText("changed since it was agreed")).toBeVisible();
  await expect(page.getByText("Income: 1,265.00 then, 1,305.00 now")).toBeVisible();
});
