import { expect, test } from "@playwright/test";
import { expectAccessible } from "../support/axe.ts";
import { day, send } from "../support/api.ts";
import { startServer } from "../support/server.ts";
import type { RunningServer } from "../support/server.ts";

let server: RunningServer;
test.beforeAll(async () => {
  server = await startServer();
});
test.afterAll(() => server.stop());

/** A small shop with more documents than are loaded while one waits, and a card terminal. */
async function shop() {
  const sale = (n: number) => ({
    kind: "sales-invoice",
    number: `K-${n}`,
    date: day(20 + (n % 60)),
    contact: "c1",
    lines: [{ text: "Kites", amount: "12.00", code: "S20", account: "4000" }],
  });
  const { id } = await send(server, "POST", "/api/books", {
    format: "fiscalon-book",
    version: 1,
    client: { name: "Kestrel Kites", country: "GB" },
    places: [{ id: "p1", name: "Seaford", country: "GB" }],
    registrations: [
      {
        id: "r1",
        pack: "gb",
        number: "980780684",
        from: "2025-01-01",
        frequency: "quarterly",
        anchor: "2026-03-31",
      },
    ],
    contacts: [{ id: "c1", name: "Dune Hotel", country: "GB" }],
    documents: Array.from({ length: 240 }, (_, n) => sale(n)),
  });
  await send(server, "PUT", "/simulators/terminal/merchants/KITE-1", {
    key: "kite-key",
    zone: "Europe/London",
    currency: "GBP",
    from: day(12),
    perDay: 5,
    open: 9,
    close: 17,
    items: [{ name: "Kites", tax: "VAT", from: 900, to: 4000 }],
    surchargePercent: 1,
    feePercent: 1.5,
    feeFixed: 3,
    bankAccount: "KITE-BANK",
  });
  const target = { code: "S20", account: "4000" };
  const terminal = await send(server, "POST", `/api/clients/${id}/terminals`, {
    merchant: "KITE-1",
    key: "kite-key",
    name: "Beach",
    zone: "Europe/London",
    cutOff: "04:00",
    start: day(10),
    mapping: {
      taxes: { VAT: target },
      surcharge: target,
      tip: target,
      fee: { code: "EX", account: "6800" },
      bank: "1000",
    },
  });
  await send(server, "POST", `/api/clients/${id}/terminals/${terminal.id}/fetch`, {});
  return id;
}

test("a document that recurs is kept; the books are saved and opened again with everything, and go on from there", async ({
  page,
}) => {
  const id = await shop();
  await page.goto(`${server.address}/c/${id}/books/documents`);
  await page.getByRole("checkbox", { name: /^only/ }).uncheck();
  await page.getByRole("textbox", { name: "Find documents" }).fill("K-7");
  await page.getByRole("cell", { name: "K-7", exact: true }).click();
  await page.getByRole("button", { name: "More" }).click();
  await page.getByRole("menuitem", { name: "Make a template of it, also a recurring one" }).click();
  const keep = page.getByRole("dialog");
  await keep.getByLabel("Name").fill("Kites for the hotel");
  await keep.getByLabel("Rhythm").selectOption("monthly");
  await expect(keep.getByRole("checkbox", { name: /Post it by itself/ })).toBeChecked();
  await keep.getByLabel("Next on").fill(day(-5));
  await expectAccessible(page);
  await keep.getByRole("button", { name: "Keep" }).click();
  await expect(keep).toBeHidden();
  await page.goto(`${server.address}/c/${id}/books/templates`);
  await expect(page.getByRole("row", { name: /Kites for the hotel/ })).toContainText(
    "every month, by itself",
  );

  await page.goto(`${server.address}/c/${id}/books/export`);
  const saving = page.waitForEvent("download");
  await page.getByRole("link", { name: "Save" }).first().click();
  const path = await (await saving).path();

  await page.goto(server.address);
  await page.getByLabel("Book file").setInputFiles(path);
  await expect(page).toHaveURL(/\/c\/\d+\/return/, { timeout: 60_000 });
  const copy = /\/c\/(\d+)\//.exec(page.url())?.[1];
  expect(copy).not.toBe(String(id));
  await page.goto(`${server.address}/c/${copy}/books/templates`);
  await expect(page.getByRole("row", { name: /Kites for the hotel/ })).toContainText("Dune Hotel");

  await page.goto(`${server.address}/c/${copy}/books/terminals`);
  await expect(page.getByRole("button", { name: "Fetch and post" })).toBeDisabled();
  await page.getByRole("button", { name: "Give the key" }).click();
  const key = page.getByRole("dialog");
  await key.getByLabel("Key of the operator").fill("wrong");
  await key.getByRole("button", { name: "Authorise" }).click();
  await expect(key.getByText("does not accept this key")).toBeVisible();
  await key.getByLabel("Key of the operator").fill("kite-key");
  await key.getByRole("button", { name: "Authorise" }).click();
  await expect(key).toBeHidden();
  await page.getByRole("button", { name: "Fetch and post" }).click();
  await expect(page.getByRole("status")).toContainText("posted 0 trading days, 0 fee bills and 0 payouts");
});

test("a book file that is wrong says where, while it is loaded in the background too, and leaves nothing", async ({
  page,
}) => {
  const line = { amount: "1.00", code: "NO-SUCH" };
  const documents = Array.from({ length: 300 }, (_, n) => ({
    kind: "sales-invoice",
    number: `X-${n}`,
    date: "2026-05-01",
    lines: [n < 280 ? { amount: "1.00", account: "4000" } : line],
  }));
  const book = {
    format: "fiscalon-book",
    version: 1,
    client: { name: "Broken Ltd", country: "GB" },
    documents,
  };
  await page.goto(server.address);
  await page.getByLabel("Book file").setInputFiles({
    name: "broken.book.json",
    mimeType: "application/json",
    buffer: Buffer.from(JSON.stringify(book)),
  });
  await expect(page.getByText("documents[280].lines[0].code")).toBeVisible({ timeout: 30_000 });
  await expect(page.getByText("Broken Ltd")).toHaveCount(0);
});
