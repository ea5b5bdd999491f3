import { expect, test } from "@playwright/test";
import { expectAccessible } from "../support/axe.ts";
import { britishBook } from "../support/british.ts";
import { startServer } from "../support/server.ts";
import type { RunningServer } from "../support/server.ts";

/** So many take some seconds to be worked out anew. */
const DOCUMENTS = 6_000;

let server: RunningServer;
test.beforeAll(async () => {
  server = await startServer();
});
test.afterAll(() => server.stop());

/** The days the registrations of a client end on. */
async function endsOf(id: number): Promise<(string | null)[]> {
  const client = await fetch(`${server.address}/api/clients/${id}`);
  return ((await client.json()) as { registrations: { to: string | null }[] }).registrations.map(
    ({ to }) => to,
  );
}

test("a change that many documents follow tells how far it is, is given up, and done again", async ({
  page,
}) => {
  const id = await britishBook(server, "Long Shelf Ltd", {
    documents: Array.from({ length: DOCUMENTS }, (_, n) => ({
      kind: "sales-invoice",
      number: `L-${n}`,
      date: "2026-05-01",
      lines: [{ amount: "5.00", code: "S20" }],
    })),
  });
  await page.goto(`${server.address}/c/${id}/setup/places`);
  await page.getByRole("region", { name: "Registrations" }).getByRole("button", { name: "Change" }).click();
  const dialog = page.getByRole("dialog", { name: "VAT, United Kingdom" });
  await dialog.getByLabel("Ends on").fill("31/12/2026");
  await page.keyboard.press("Tab");
  await dialog.getByRole("button", { name: "Save" }).click();

  const progress = page.getByRole("dialog", { name: "Many documents follow this change" });
  await expect(progress).toContainText("of 6,000");
  await expectAccessible(page);
  await progress.getByRole("button", { name: "Cancel" }).click();
  await expect(progress).toBeHidden();
  await expect(dialog).toContainText("Cancelled. Nothing was changed.");
  expect(await endsOf(id)).toEqual([null]);

  await dialog.getByRole("button", { name: "Save" }).click();
  await expect(progress).toBeVisible();
  // Who leaves the page, and who never was on it, sees that it goes on.
  await page.goto(server.address);
  await page.getByRole("button", { name: "1 under way" }).click();
  const underWay = page.getByRole("dialog", { name: "Under way" });
  await expect(underWay).toContainText("Documents follow a change: Long Shelf Ltd");
  await expect(underWay).toContainText("of 6,000");
  await expectAccessible(page);
  await expect(underWay).toContainText("Nothing is under way any more.", { timeout: 60_000 });
  expect(await endsOf(id)).toEqual(["2026-12-31"]);
});
