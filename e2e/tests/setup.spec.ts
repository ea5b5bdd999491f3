import { expect, test } from "@playwright/test";
import type { Page } from "@playwright/test";
import { expectAccessible } from "../support/axe.ts";
import { british } from "../support/british.ts";
import { startServer } from "../support/server.ts";
import type { RunningServer } from "../support/server.ts";

let server: RunningServer;
test.beforeAll(async () => {
  server = await startServer();
});
test.afterAll(() => server.stop());

async function setUp(
  page: Page,
  answers: { name: string; place: string; country: string; region: string; activity: string },
) {
  await page.goto(`${server.address}/clients/new`);
  await page.getByLabel("Name of the business").fill(answers.name);
  await page.getByLabel("Place of business").fill(answers.place);
  await page.getByLabel("Country").selectOption(answers.country);
  await page.getByLabel("Region").selectOption(answers.region);
  await page.getByLabel("What it does").selectOption(answers.activity);
}

async function fillDate(page: Page, label: string, day: string) {
  const field = page.getByLabel(label);
  await field.fill(day);
  await field.blur();
}

test("a meadery in four answers; wine tax first, GST on top, and what the other order would wrongly give", async ({
  page,
}) => {
  await setUp(page, {
    name: "Honeygum Meadery",
    place: "Beechworth meadery",
    country: "AU",
    region: "VIC",
    activity: "wine",
  });
  const proposal = page.getByRole("complementary", { name: "What will be set up" });
  await expect(proposal).toContainText("Wine tax comes first");
  await expect(page.getByText("Registered for GST, WET", { exact: true })).toBeVisible();
  await fillDate(page, "Registered from", "1/7/2025");
  await expectAccessible(page);
  await page.getByRole("button", { name: "Create client" }).click();
  await expect(page.getByText("builds up")).toBeVisible();

  await page.getByRole("link", { name: "Codes", exact: true }).click();
  await page.getByRole("button", { name: "WW", exact: true }).click();
  const bench = page.getByRole("region", { name: "Code bench" });
  const row = (name: RegExp) => bench.getByRole("row", { name });
  await expect(row(/^WET 29 %/)).toContainText("29.00");
  await expect(row(/^GST 10 %/)).toContainText("12.90");
  await expect(row(/^Gross/)).toContainText("141.90");
  await expect(bench).toContainText("Output tax, wine equalisation tax");
  await expect(bench).toContainText("GST 10.00, WET 31.90. The same total, but both labels wrong.");
  await bench.getByLabel("Amount").fill("141.90");
  await expect(row(/^Net/)).toContainText("100.00");
  await expect(row(/^WET 29 %/)).toContainText("29.00");
  await expect(row(/^GST 10 %/)).toContainText("12.90");

  const wine = page.getByRole("button", { name: /^WET 29 %, 1 in the order/ }).first();
  const gst = page.getByRole("button", { name: /^GST 10 %, 2 in the order/ }).first();
  const [from, to] = [await wine.boundingBox(), await gst.boundingBox()];
  if (!from || !to) throw new Error("the stack of levies is not on the screen");
  await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2);
  await page.mouse.down();
  await page.mouse.move(to.x + to.width, to.y + to.height / 2, { steps: 8 });
  await page.mouse.up();
  await bench.getByLabel("Amount").fill("100.00");
  await expect(row(/^WET 29 %/)).toContainText("31.90");
  await expect(row(/^GST 10 %/)).toContainText("10.00");
  await expect(page.getByText("wine tax is on the price without GST").first()).toBeVisible();
  await expectAccessible(page);
});

test("a code of one's own, tried, made the default, used, archived", async ({ page }) => {
  await setUp(page, {
    name: "Corella Stores",
    place: "Echuca shop",
    country: "AU",
    region: "VIC",
    activity: "goods",
  });
  await fillDate(page, "Registered from", "1/7/2025");
  await page.getByRole("button", { name: "Create client" }).click();
  await page.getByRole("link", { name: "Codes", exact: true }).click();
  await page.getByRole("button", { name: "New code" }).click();
  const dialog = page.getByRole("dialog");
  await dialog.getByLabel("Code", { exact: true }).fill("SHOP");
  await dialog.getByLabel("Name").fill("Shop sales");
  await dialog.getByLabel("Levy").selectOption("GST");
  await dialog.getByLabel("Rates by date").selectOption("au.GST");
  await dialog.getByLabel("Boxes on sales").fill("G1 +g, 1A +x");
  await dialog.getByRole("button", { name: "Make code" }).click();
  await expect(dialog).toContainText("+x");
  await dialog.getByLabel("Boxes on sales").fill("G1 +g, 1A +t");
  await dialog.getByLabel("For").selectOption("sale");
  await dialog.getByRole("button", { name: "Make code" }).click();
  await page.getByRole("button", { name: "SHOP", exact: true }).click();
  await expect(
    page.getByRole("region", { name: "Code bench" }).getByRole("row", { name: /^GST 10 %/ }),
  ).toContainText("10.00");
  await page.getByRole("button", { name: "Make default" }).click();
  await page.getByRole("dialog").getByRole("button", { name: "Make default" }).click();
  await expect(page.getByRole("dialog")).toHaveCount(0);
  await page.goto(page.url().replace(/setup\/codes.*/, "books/documents/new/sales-invoice"));
  await page.getByLabel("Text, line 1").fill("Lamp");
  await page.getByLabel("Amount, line 1").fill("50.00");
  const effect = page.getByRole("region", { name: "Effect" });
  await expect(effect).toContainText("SHOP, Shop sales: the business's usual sale code.");
  await expect(effect).toContainText("1A");
});

test("two agencies, places that come and go, standings with their reason, and codes by place", async ({
  page,
}) => {
  await setUp(page, {
    name: "Nimbus Ridge",
    place: "Nelson workshop",
    country: "CA",
    region: "BC",
    activity: "goods",
  });
  await page.getByLabel(/Registered for BC PST/).check();
  for (const field of await page.getByLabel("Registered from").all()) {
    await field.fill("1/8/2026");
    await field.blur();
  }
  await page.getByRole("button", { name: "Create client" }).click();
  await expect(page.getByText("✓ BC provincial sales tax")).toBeVisible();
  await expect(page.getByText("overdue").first()).toBeVisible();

  const standing = async (levy: string) => {
    await page.getByRole("link", { name: "Contacts", exact: true }).click();
    await page.getByRole("button", { name: "Add contact" }).first().click();
    const field = page.getByRole("dialog").getByLabel(`Standing for ${levy}`);
    const count = await field.count();
    const reason = count > 0 ? await page.getByRole("dialog").innerText() : "";
    await page.getByRole("dialog").getByRole("button", { name: "Cancel" }).click();
    await page.getByRole("link", { name: "Places & registrations" }).click();
    return { count, reason };
  };
  expect((await standing("SKPST")).count).toBe(0);
  await page.getByRole("button", { name: "Add place" }).click();
  const dialog = page.getByRole("dialog");
  await dialog.getByLabel("Name").fill("Regina depot");
  await dialog.getByLabel("Region").selectOption("SK");
  await expect(dialog).toContainText("because you sell from Regina depot, SK");
  await dialog.getByRole("button", { name: "Add place" }).click();
  const opened = await standing("SKPST");
  expect(opened.reason).toContain("because you sell from Regina depot, SK");
  await page
    .getByRole("row", { name: /Regina depot/ })
    .getByRole("button", { name: "Close" })
    .click();
  await expect(page.getByRole("dialog")).toContainText("Contacts are not asked any more");
  await page.getByRole("dialog").getByRole("button", { name: "Close place" }).click();
  expect((await standing("SKPST")).count).toBe(0);

  await page.getByRole("link", { name: "Supply rules" }).click();
  const tester = page.getByRole("region", { name: "Rule tester" });
  await expect(tester.locator("[aria-live]")).toContainText("GBC");
  await tester.getByLabel("Their region").selectOption("ON");
  await expect(tester).toContainText("Ontario: its HST.");
  await tester.getByLabel("Their country").fill("US");
  await expect(tester).toContainText("zero-rated export");
  await expectAccessible(page);
});

test("a changed rate says which documents it touches before it is kept", async ({ page }) => {
  const { id } = await british(server, "Gate Inn");
  await fetch(`${server.address}/api/clients/${id}/documents`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({
      kind: "sales-invoice",
      number: "GI-1",
      date: "2026-02-11",
      prices: "exclusive",
      lines: [{ amount: "100.00", code: "S20" }],
    }),
  });
  await page.goto(`${server.address}/c/${id}/setup/rates`);
  await page
    .getByRole("row", { name: /Standard rate/ })
    .getByRole("button", { name: "Change" })
    .click();
  const dialog = page.getByRole("dialog");
  await dialog.getByLabel("Rate", { exact: true }).last().fill("21");
  await expect(dialog).toContainText("GI-1");
  await dialog.getByRole("button", { name: "Save" }).click();
  await page.goto(`${server.address}/c/${id}/books/documents`);
  await expect(page.getByRole("row", { name: /GI-1/ })).toContainText("21.00");
});

test("a jurisdiction of one's own: a fixed levy beside a percentage, refused while wrong, used at once", async ({
  page,
}) => {
  await page.goto(`${server.address}/jurisdictions/new`);
  await page.getByLabel("Name", { exact: true }).fill("Isle of Test");
  await page.getByLabel("Short id").fill("own-isle");
  await page.getByLabel("Country, two letters").fill("XZ");
  await page.getByLabel("Name of a further levy").fill("BOTTLE");
  await page.getByRole("button", { name: "Add levy" }).click();
  await page.getByLabel("Name of a further schedule").fill("own.BOTTLE");
  await page.getByRole("button", { name: "Add schedule" }).click();
  await page.getByLabel("own.BOTTLE rate").fill("0.25");
  await page.getByRole("button", { name: "Add box" }).click();
  await page.getByLabel("Title of 5").fill("Bottle levy");
  await page.getByLabel("Formula of 4").fill("[4] + [5]");
  await page.getByRole("button", { name: "Change code S" }).click();
  const dialog = page.getByRole("dialog");
  await dialog.getByRole("button", { name: "Add a levy" }).click();
  const bottle = dialog.getByRole("group").last();
  await bottle.getByLabel("Levy").selectOption("BOTTLE");
  await bottle.getByLabel("Tax is a").selectOption("per-unit");
  await bottle.getByLabel("Rates by date").selectOption("own.BOTTLE");
  await bottle.getByLabel("Boxes on sales").fill("5 +t");
  await bottle.getByLabel("Deducted, percent").fill("0");
  await dialog.getByRole("button", { name: "Take over" }).click();
  await page.getByRole("button", { name: "Keep jurisdiction" }).click();
  await expect(page.getByRole("alert").first()).toContainText("worked out from each other");
  await page.getByLabel("Formula of 4").fill("[2] + [5] - [3]");
  await expectAccessible(page);
  await page.getByRole("button", { name: "Keep jurisdiction" }).click();
  await expect(page.getByRole("row", { name: /Isle of Test/ })).toContainText("TAX, BOTTLE");

  await page.goto(`${server.address}/clients/new`);
  await page.getByLabel("Name of the business").fill("Bottle shop");
  await page.getByLabel("Country").selectOption("XZ");
  await fillDate(page, "Registered from", "1/10/2026");
  await page.getByRole("button", { name: "Create client" }).click();
  await expect(page.getByText("builds up").first()).toBeVisible();
  await page.goto(page.url().replace("setup/places", "books/documents/new/sales-invoice"));
  await page.getByLabel("quantities, unit prices and discounts").check();
  await page.getByLabel("Text, line 1").fill("Cordial");
  await page.getByLabel("Quantity, line 1").fill("10");
  await page.getByLabel("Unit price, line 1").fill("2.00");
  await expect(page.getByRole("row", { name: /^To receive/ })).toContainText("24.50");
});
