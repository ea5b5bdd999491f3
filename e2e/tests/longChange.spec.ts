import { expect, test } from "@playwright/test";
import { expectAccessible } from "../support/axe.ts";
import { startServer } from "../support/server.ts";
import type { RunningServer } from "../support/server.ts";

/** So many take some seconds to be worked out anew. */
const DOCUMENTS = 6_000;

let server: RunningServer;
test.beforeAll(async () => {
  server = await startServer();
});
test.afterAll(() => server.stop());

async function answer<T>(path: string, body?: object): Promise<T> {
  const response = await fetch(`${server.address}/api${path}`, {
    ...(body ? { method: "POST", body: JSON.stringify(body) } : {}),
    headers: { "content-type": "application/json" },
  });
  return (await response.json()) as T;
}

/** A client with many documents, brought in as a book. */
async function manyDocuments(): Promise<number> {
  const { job } = await answer<{ job: { id: number } }>("/books", {
    format: "fiscalon-book",
    version: 1,
    client: { name: "Long Shelf Ltd", country: "GB" },
    registrations: [
      { id: "r1", pack: "gb", number: "", from: "2026-01-01", frequency: "quarterly", basis: "accrual" },
    ],
    documents: Array.from({ length: DOCUMENTS }, (_, n) => ({
      kind: "sales-invoice",
      number: `L-${n}`,
      date: "2026-05-01",
      lines: [{ amount: "5.00", code: "S20" }],
    })),
  });
  const ended = async () => (await answer<{ state: string }>(`/jobs/${job.id}`)).state;
  await expect.poll(ended, { timeout: 60_000 }).toBe("done");
  return (await answer<{ result: { client: number } }>(`/jobs/${job.id}`)).result.client;
}

test("a change that many documents follow tells how far it is, is given up, and done again", async ({
  page,
}) => {
  const id = await manyDocuments();
  const endOf = async () =>
    (await answer<{ registrations: { to: string | null }[] }>(`/clients/${id}`)).registrations.map(
      ({ to }) => to,
    );
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
  expect(await endOf()).toEqual([null]);

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
  expect(await endOf()).toEqual(["2026-12-31"]);
});
