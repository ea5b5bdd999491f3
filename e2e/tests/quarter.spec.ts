import { expect, test } from "@playwright/test";
import type { Page } from "@playwright/test";
import { expectAccessible } from "../support/axe.ts";
import { startServer } from "../support/server.ts";
import type { RunningServer } from "../support/server.ts";

const FIXTURES = `${process.cwd()}/e2e/fixtures`;

let server: RunningServer;
test.beforeAll(async () => {
  server = await startServer();
});
test.afterAll(() => server.stop());

test("from an empty practice to a filed, paid and settled quarter, and a late bill after it", async ({
  page,
}) => {
  await setUpClient(page);
  await importRegister(page, "Sales", "sales-register.csv", 6);
  await importRegister(page, "Purchases", "purchase-register.csv", 3);
  await typeThreeDocuments(page);
  await walkTheTrail(page);
  await agree(page);
  await clearFindingsAndFile(page);
  await settle(page);
  await filedDocument(page);
  await lateBill(page);
});

/** What a document of a filed quarter moved is that quarter, not the one that is open now. */
async function filedDocument(page: Page): Promise<void> {
  await page.getByRole("link", { name: "Books" }).click();
  const find = page.getByRole("textbox", { name: "Find documents" });
  await find.fill("WJ3102");
  const only = page.getByRole("checkbox", { name: /^only/ });
  if (await only.isChecked()) await only.uncheck();
  await page.getByRole("cell", { name: "WJ3102", exact: true }).click();
  const effect = page.getByRole("region", { name: "Effect" });
  await expect(effect).toContainText("moved by");
  await expect(effect).toContainText("period to 30 Jun 2026");
}

async function setUpClient(page: Page): Promise<void> {
  await page.goto(server.address);
  await expect(page.getByText("No clients yet")).toBeVisible();
  await expectAccessible(page);
  await page.getByRole("link", { name: "New client" }).click();
  await page.getByLabel("Name of the business").fill("Wrackline Joinery Ltd");
  await page.getByLabel("Place of business").fill("Whitby workshop");
  const number = page.getByLabel("VAT registration number");
  await number.fill("100000286");
  await expect(page.getByText("its last two digits do not fit the others")).toBeVisible();
  await number.fill("GB 100 0002 85");
  await expect(page.getByText("The check digits fit")).toBeVisible();
  await page.getByLabel("Registered from").fill("1/4/2026");
  await page.getByLabel("Registered from").blur();
  await expectAccessible(page);
  await page.getByRole("button", { name: "Create client" }).click();
  await expect(page.getByText("Quarterly to March, June, September, December")).toBeVisible();

  await page.getByRole("link", { name: "Codes", exact: true }).click();
  const bench = page.getByRole("region", { name: "Code bench" });
  await page.getByRole("button", { name: "H", exact: true }).click();
  await bench.getByLabel("Amount").fill("99.00");
  await bench.getByLabel("Tax point").fill("5/11/2021");
  await bench.getByLabel("Tax point").blur();
  await expect(bench.getByRole("row", { name: /VAT 12.5 %/ })).toContainText("11.00");
  await expectAccessible(page);
}

async function importRegister(page: Page, holds: string, file: string, problems: number): Promise<void> {
  await page.getByRole("link", { name: "Books" }).click();
  await page.getByRole("navigation", { name: "Books" }).getByRole("link", { name: "Import" }).click();
  await page.getByRole("button", { name: holds, exact: true }).click();
  await page.getByLabel("Register file").setInputFiles(`${FIXTURES}/${file}`);
  await expect(page.getByText("How the file is read")).toBeVisible();
  await page.getByLabel("Code where the tax is blank").selectOption(holds === "Sales" ? "Z" : "EX");
  if (holds === "Sales") {
    await expect(page.getByLabel("Code where the tax is 0")).toBeEnabled();
    await page.getByLabel("Code where the tax is 0").selectOption("EX");
  }
  await expect(page.getByText(`${problems} rows to mend before anything is posted`)).toBeVisible();
  await expectAccessible(page);
  const mend = page.getByRole("region", { name: "Rows to mend" });
  const firstDate = holds === "Sales" ? ["Row 66, Date", "14/04/2026"] : ["Row 92, Dated", "28 Feb 2026"];
  await mend.getByLabel(firstDate[0] ?? "").fill(firstDate[1] ?? "");
  for (const box of (await mend.getByRole("checkbox").all()).slice(1)) await box.check();
  await mend.getByRole("button", { name: "Check again" }).click();
  await expect(page.getByRole("button", { name: /^Post \d+ documents$/ })).toBeEnabled();
  await page.getByRole("button", { name: /^Post \d+ documents$/ }).click();
  await expect(page.getByText(/· posted$/)).toBeVisible();
}

async function typeThreeDocuments(page: Page): Promise<void> {
  await newDocument(page, "Sales invoice");
  await page.getByRole("combobox", { name: "Customer" }).fill("Larkrise Hotel");
  await page.getByRole("option", { name: /Create “Larkrise Hotel”/ }).click();
  await page.getByRole("dialog").getByLabel("Tax number").fill("100000034");
  await page.getByRole("dialog").getByRole("button", { name: "Add contact" }).click();
  await expect(page.getByRole("dialog")).toHaveCount(0);
  await fillHead(page, "", "12/5/2026");
  await line(page, 1, "Bar counter", "1200.00");
  await page.keyboard.press("Enter");
  await line(page, 2, "Fitting, energy-saving", "200.00");
  await page.getByRole("combobox", { name: "Code, line 2" }).fill("R5");
  await page.getByRole("option", { name: /Reduced rate/ }).click();
  const effect = page.getByRole("region", { name: "Effect" });
  await expect(effect).toContainText("+250.00");
  await expect(effect).toContainText("+1,400.00");
  await expect(page.getByRole("contentinfo")).toContainText("with this document: 250.00");
  await expectAccessible(page);
  await post(page);

  await newDocument(page, "Purchase bill");
  await page.getByRole("combobox", { name: "Supplier" }).fill("Larkrise");
  await page.getByRole("option", { name: /Larkrise Hotel/ }).click();
  await fillHead(page, "LC-55310", "14/5/2026");
  await page.getByLabel("Text, line 1").fill("Import VAT paid by the courier");
  await page.getByLabel("VAT, line 1").fill("318.40");
  await expect(effect).toContainText("tax only: 318.40 VAT without a value");
  await page.getByRole("combobox", { name: "Account, line 1" }).fill("5350");
  await page.getByRole("option", { name: /Create account “5350”/ }).click();
  await page.getByRole("dialog").getByLabel("Name").fill("Courier charges");
  await page.getByRole("dialog").getByRole("button", { name: "Add account" }).click();
  await expect(page.getByRole("combobox", { name: "Account, line 1" })).toHaveValue("5350");
  await post(page);

  await newDocument(page, "Journal");
  await fillHead(page, "", "20/5/2026");
  await page.getByLabel("Text, line 1").fill("VAT on staff mugs");
  await page.getByRole("combobox", { name: "Account, line 1" }).fill("2200");
  await page.getByRole("option", { name: /Output tax/ }).click();
  await page.getByLabel("Credit, line 1").fill("14.20");
  await page.getByRole("combobox", { name: "Account, line 2" }).fill("6200");
  await page.getByRole("option", { name: /Office costs/ }).click();
  await page.getByLabel("Debit, line 2").fill("14.00");
  await expect(page.getByText("Debits and credits differ by 0.20").first()).toBeVisible();
  await page.getByLabel("Debit, line 2").fill("14.20");
  await post(page);
}

async function newDocument(page: Page, kind: string): Promise<void> {
  await page.getByRole("link", { name: "Books" }).click();
  await page.getByRole("button", { name: "New document" }).click();
  await page.getByRole("menuitem", { name: kind, exact: true }).click();
}

async function fillHead(page: Page, number: string, date: string): Promise<void> {
  if (number !== "") await page.getByLabel("Their number").fill(number);
  await page.getByLabel("Date", { exact: true }).fill(date);
  await page.getByLabel("Date", { exact: true }).blur();
}

async function line(page: Page, no: number, text: string, amount: string): Promise<void> {
  await page.getByLabel(`Text, line ${no}`).fill(text);
  await page.getByLabel(`Amount, line ${no}`).fill(amount);
  await page.getByLabel(`Amount, line ${no}`).focus();
}

async function post(page: Page): Promise<void> {
  await page.keyboard.press("Control+Enter");
  await expect(page.getByRole("status")).toContainText("Posted");
}

async function walkTheTrail(page: Page): Promise<void> {
  await page.getByRole("link", { name: "Return" }).click();
  await expect(page.getByRole("heading", { name: "VAT return, Apr to Jun 2026" })).toBeVisible();
  await page.getByRole("button", { name: /^Box 1 / }).focus();
  await page.keyboard.press("Enter");
  const trail = page.getByRole("region", { name: "Trail" });
  await trail.getByRole("button", { name: /^R5 5 %, sales/ }).click();
  await trail.getByRole("button", { name: /Larkrise Hotel/ }).click();
  await expect(trail).toContainText("200.00 × 5 % = 10.00");
  await expect(trail).toContainText("VATA 1994 s.29A");
  await trail.getByRole("button", { name: "Back" }).click();
  await trail.getByRole("button", { name: /WJ3/ }).first().click();
  await expect(trail).toContainText(/row \d+ of sales-register\.csv/);
  await expectAccessible(page);
  await trail.getByRole("button", { name: "Close trail" }).click();
}

async function agree(page: Page): Promise<void> {
  await page.getByRole("link", { name: "Agree" }).click();
  await page
    .getByRole("navigation", { name: "Agree" })
    .getByRole("link", { name: /Control accounts/ })
    .click();
  await expect(page.getByText("14.20 left").last()).toBeVisible();
  await page.getByRole("button", { name: "Explain" }).click();
  await page.getByLabel("Why it is right as it is").fill("Own use of mugs, agreed with the client");
  await page.getByRole("button", { name: "Keep explanation" }).click();
  await expect(page.getByText("agreed, nothing left")).toBeVisible();
  await expectAccessible(page);
}

async function clearFindingsAndFile(page: Page): Promise<void> {
  await page.getByRole("link", { name: "Return" }).click();
  await expect(page.getByRole("heading", { name: /findings? to clear before sealing/ })).toBeVisible();
  await expect(page.getByRole("button", { name: "Seal this period" })).toBeDisabled();
  const accept = page.getByRole("button", { name: /^Accept: / });
  for (let left = await accept.count(); left > 0; left -= 1) {
    await accept.first().click();
    await page.getByLabel("Why it is right as it is").fill("Seen on the paper");
    await page.getByRole("dialog").getByRole("button", { name: "Accept" }).click();
    await expect(accept).toHaveCount(left - 1);
  }
  await expect(page.getByRole("heading", { name: "No open findings" })).toBeVisible();
  await page.getByRole("button", { name: "Seal this period" }).click();
  await page.getByRole("button", { name: "File with HMRC (simulated)" }).click();
  const dialog = page.getByRole("dialog");
  await expect(dialog.getByRole("button", { name: "Send the return" })).toBeDisabled();
  await dialog.getByRole("checkbox").check();
  await expectAccessible(page);
  await dialog.getByRole("button", { name: "Send the return" }).click();
  await expect(page.getByRole("region", { name: "Receipt" })).toContainText(/Form bundle number\s*\d{12}/);
  const pdf = await page.request.get(
    server.address + ((await page.getByRole("link", { name: "PDF" }).getAttribute("href")) ?? ""),
  );
  expect((await pdf.body()).subarray(0, 5).toString()).toBe("%PDF-");
}

async function settle(page: Page): Promise<void> {
  await page.getByRole("link", { name: "Settle" }).first().click();
  const entry = page.getByRole("region", { name: "Closing entry" });
  await expect(entry).toContainText("not posted yet");
  await page.getByRole("button", { name: "Post the closing entry" }).click();
  await expect(entry).toContainText(/\bposted/);
  await page.getByRole("button", { name: /Record (payment|refund)/ }).click();
  await page.getByRole("dialog").getByRole("button", { name: "Record" }).click();
  await expect(page.getByText("Nothing is outstanding for this period.")).toBeVisible();
  await expect(page.getByRole("region", { name: "Continuity" }).getByRole("row").last()).toContainText(
    "0.00 ✓",
  );
  await expectAccessible(page);
}

async function lateBill(page: Page): Promise<void> {
  await newDocument(page, "Purchase bill");
  await page.getByRole("combobox", { name: "Supplier" }).fill("Larkrise");
  await page.getByRole("option", { name: /Larkrise Hotel/ }).click();
  await fillHead(page, "LATE-1", "2/6/2026");
  await line(page, 1, "Found in a drawer", "50.00");
  await expect(page.getByRole("region", { name: "Effect" })).toContainText(
    "late item of the period to 30 Sept 2026",
  );
  await post(page);
  await page.getByRole("link", { name: "Settle" }).first().click();
  await page
    .getByRole("navigation", { name: "Filing periods" })
    .getByRole("button", { name: /Jul to Sept? 2026/ })
    .click();
  await expect(page.getByRole("region", { name: "Late items" })).toContainText("LATE-1");
}
