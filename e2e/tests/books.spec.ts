import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { expect, test } from "@playwright/test";
import type { Page } from "@playwright/test";
import { expectAccessible } from "../support/axe.ts";
import { british } from "../support/british.ts";
import { day, send } from "../support/api.ts";
import { startServer } from "../support/server.ts";
import type { RunningServer } from "../support/server.ts";

let server: RunningServer;
test.beforeAll(async () => {
  server = await startServer();
});
test.afterAll(() => server.stop());

const newClient = (name: string, more: object = {}) =>
  british(server, name, { number: "980780684", from: "2025-01-01", ...more });
const open = (page: Page, client: number, inside: string) =>
  page.goto(`${server.address}/c/${client}/${inside}`);

test("an invoice at two rates: customer, account and code are made on the way, each rate has its own accounts", async ({
  page,
}) => {
  const { id } = await newClient("Fenwick Plant Nursery");
  await open(page, id, "books/documents/new/sales-invoice");
  await page.getByRole("combobox", { name: "Customer" }).fill("Marlow Hotel");
  await page.getByRole("option", { name: "Create “Marlow Hotel”" }).click();
  const contact = page.getByRole("dialog");
  await contact.getByLabel("Country").selectOption("GB");
  await contact.getByRole("button", { name: "Add contact" }).click();
  await expect(contact).toBeHidden();

  await page.getByLabel("Text, line 1").fill("Potted palms");
  await page.getByRole("combobox", { name: "Account, line 1" }).fill("Plants");
  await page.getByRole("option", { name: "Create account “Plants”" }).click();
  const account = page.getByRole("dialog");
  await account.getByLabel("Number").fill("4070");
  await account.getByLabel("Type").selectOption("income");
  await account.getByRole("button", { name: "Add account" }).click();
  await expect(account).toBeHidden();
  await page.getByLabel("Amount, line 1").fill("100.00");

  await page.getByLabel("Text, line 2").fill("Herb seeds, own rate");
  await page.getByRole("combobox", { name: "Code, line 2" }).fill("SEED");
  await page.getByRole("option", { name: "Create code “SEED”" }).click();
  const code = page.getByRole("dialog", { name: "New code" });
  await expect(code.getByLabel("Code", { exact: true })).toHaveValue("SEED");
  await code.getByLabel("Name").first().fill("Seeds at the reduced rate");
  await code.getByLabel("Treatment").selectOption("reduced");
  await code.getByLabel("Levy").selectOption("VAT");
  await code.getByLabel("Rates by date").selectOption("gb.RED");
  await expectAccessible(page);
  await code.getByRole("button", { name: "Make code" }).click();
  await expect(code).toBeHidden();
  await page.getByLabel("Amount, line 2").fill("40.00");
  const effect = page.getByRole("region", { name: "Effect" });
  await expect(effect).toContainText("4070 Plants");
  await page.keyboard.press("Control+Enter");
  await page.getByRole("link", { name: "Open it" }).click();
  for (const [rate, tax] of [
    ["VAT 20 %", "20.00"],
    ["VAT 5 %", "2.00"],
  ])
    await expect(page.getByRole("row", { name: new RegExp(`^${rate}`) })).toContainText(tax ?? "");
  await expect(page.getByRole("combobox", { name: "Code, line 2" })).toHaveValue("SEED");
});

test("a bill that is nothing but tax, and a small net under a large tax, edited later without losing the figure", async ({
  page,
}) => {
  const { id } = await newClient("Harbour Imports");
  await open(page, id, "books/documents/new/purchase-bill");
  await page.getByLabel("Their number").fill("CUR-88");
  await page.getByLabel("Text, line 1").fill("Import VAT paid by the courier");
  await expect(page.getByRole("combobox", { name: "Code, line 1" })).toHaveValue("S20");
  await page.getByLabel("VAT, line 1").fill("318.40");
  await page.getByLabel("Text, line 2").fill("Disbursement");
  await page.getByLabel("Amount, line 2").fill("12.00");
  await page.getByLabel("VAT, line 2").fill("96.00");
  const effect = page.getByRole("region", { name: "Effect" });
  await expect(effect).toContainText("tax only: 318.40");
  await expect(effect).toContainText("typed 96.00");
  await page.keyboard.press("Control+Enter");
  await page.getByRole("dialog").getByRole("button", { name: "Keep what was typed" }).click();
  await page.getByRole("link", { name: "Open it" }).click();
  await expect(page.getByRole("button", { name: /Save correction/ })).toBeVisible();

  await page.getByLabel("Amount, line 2").fill("14.00");
  await expect(page.getByLabel("VAT, line 2")).toHaveValue("96.00");
  await expect(effect).toContainText("calculated now 2.80, typed 96.00");
  await page.getByRole("button", { name: /Save correction/ }).click();
  await page.getByRole("dialog").getByRole("button", { name: "Keep what was typed" }).click();
  await expect(page.getByText(/corrected by/)).toBeVisible();
  await expect(page.getByLabel("VAT, line 2")).toHaveValue("96.00");
});

test("on the cash basis a receipt allocated in part reports its part, and taking it out takes that back", async ({
  page,
}) => {
  const { id } = await newClient("Slow Payers Studio", { basis: "cash" });
  const contact = await send(server, "POST", `/api/clients/${id}/contacts`, { name: "Oxbow", country: "GB" });
  for (const [number, amount] of [
    ["SI-1", "100.00"],
    ["SI-2", "50.00"],
  ])
    await send(server, "POST", `/api/clients/${id}/documents`, {
      kind: "sales-invoice",
      number,
      date: day(40),
      contact: contact.id,
      lines: [{ amount, code: "S20" }],
    });
  await open(page, id, "books/payments");
  await page.getByRole("tab", { name: "Open items" }).click();
  await expect(page.getByRole("table", { name: "Open items" })).toContainText("SI-2");
  await expectAccessible(page);
  await page.getByRole("link", { name: "Record a receipt" }).click();
  await page.getByRole("combobox", { name: "From" }).fill("Oxbow");
  await page.getByRole("option", { name: /Oxbow/ }).click();
  await page.getByLabel("Amount", { exact: true }).fill("150.00");
  await page.getByRole("button", { name: "oldest first" }).click();
  await expect(page.getByLabel("Amount for SI-1")).toHaveValue("120.00");
  await expect(page.getByLabel("Amount for SI-2")).toHaveValue("30.00");
  await expectAccessible(page);
  await page.keyboard.press("Control+Enter");
  await expect(page.getByRole("status")).toContainText("R-0001");
  await open(page, id, "books/documents");
  await page.getByLabel(/^only/).uncheck();
  await page.getByRole("cell", { name: "SI-2", exact: true }).click();
  await page.getByRole("button", { name: "Open of SI-2 30.00, open trail" }).click();
  await expect(page.getByRole("region", { name: "Trail" })).toContainText("R-0001");
  await page.getByRole("link", { name: "R-0001" }).first().click();
  await page.getByRole("button", { name: "Take out" }).click();
  await page.getByLabel("Why").fill("The cheque bounced");
  await page.getByRole("dialog").getByRole("button", { name: "Take out" }).click();
  await expect(page.getByText(/taken out: The cheque bounced/)).toBeVisible();
});

test("terminal days with surcharge and fees, fetched twice, and their payouts matched at the bank", async ({
  page,
}) => {
  const { id } = await newClient("Lantern Cafe");
  await send(server, "PUT", "/simulators/terminal/merchants/CAFE-7", {
    key: "brass-key",
    zone: "Europe/London",
    currency: "GBP",
    from: day(20),
    perDay: 12,
    open: 8,
    close: 18,
    items: [
      { name: "Lunch", tax: "VAT", from: 650, to: 1900 },
      { name: "Cake to take away", tax: "none", from: 250, to: 700 },
    ],
    surchargePercent: 1,
    feePercent: 1.5,
    feeFixed: 3,
    bankAccount: "CAFE-BANK",
  });
  await open(page, id, "books/terminals");
  await page.getByRole("button", { name: "Connect a terminal" }).click();
  const connect = page.getByRole("dialog");
  await connect.getByLabel("Merchant number").fill("CAFE-7");
  await connect.getByLabel("Key of the operator").fill("wrong");
  await connect.getByLabel("Time zone").fill("Europe/London");
  await connect.getByLabel("Post days from").fill(day(18));
  await connect.getByRole("button", { name: "Connect" }).click();
  await expect(connect.getByText("does not accept this key")).toBeVisible();
  await connect.getByLabel("Key of the operator").fill("brass-key");
  await connect.getByRole("button", { name: "Connect" }).click();
  await page.getByRole("button", { name: "Fetch and post" }).click();
  await page.getByRole("button", { name: "Choose codes" }).click();
  const mapping = page.getByRole("dialog");
  await mapping.getByLabel("Tax code of Takings, “VAT”").selectOption("S20");
  await mapping.getByLabel("Tax code of Takings, “none”").selectOption("Z");
  await expectAccessible(page);
  await mapping.getByRole("button", { name: "Keep" }).click();
  await page.getByRole("button", { name: "Fetch and post" }).click();
  await expect(page.getByRole("status")).toContainText("posted 18 trading days, 18 fee bills");
  await page.getByRole("button", { name: "Fetch and post" }).click();
  await expect(page.getByRole("status")).toContainText("posted 0 trading days, 0 fee bills and 0 payouts");
  await page.getByRole("link", { name: "summary" }).first().click();
  await expect(page.getByLabel("Text, line 1")).toHaveValue(/Card takings/);
  await expect(page.locator("input[value='Card surcharge']")).toBeVisible();

  await open(page, id, "books/bank");
  await page.getByRole("button", { name: "Connect the bank" }).click();
  await page.getByLabel("Number of the account at the bank").fill("CAFE-BANK");
  await page.getByRole("button", { name: "Ask for consent" }).click();
  await page.getByRole("button", { name: "Fetch new lines" }).click();
  await expect(page.getByRole("status")).toContainText("new lines");
  await page.getByRole("button", { name: /^Accept the \d+ sure ones/ }).click();
  await expect(page.getByRole("status")).toContainText("matched");
  await expectAccessible(page);
  await page.getByRole("tab", { name: "Matched" }).click();
  await expect(page.getByRole("table", { name: "Lines of the bank" })).toContainText("Journal Payout");
  await page.getByRole("button", { name: "Fetch new lines" }).click();
  await expect(page.getByRole("status")).toContainText("0 new lines");
});

test("files of every format with dirt in them are mended and posted", async ({ page }) => {
  const { id } = await newClient("Everything Arrives Ltd");
  const folder = mkdtempSync(join(tmpdir(), "fiscalon-files-"));
  const file = (name: string, text: string) => {
    const path = join(folder, name);
    writeFileSync(path, text);
    return path;
  };
  const drop = async (holds: string, path: string) => {
    await open(page, id, "books/import");
    await page.getByRole("button", { name: holds, exact: true }).click();
    await page.getByLabel("Register file").setInputFiles(path);
  };

  await drop(
    "Journal",
    file(
      "j.tsv",
      "Entry\tDate\tAccount\tDebit\tCredit\n1\t03/06/2026\t6000\t500\t\n1\t03/06/2026\t1000\t\t500\n2\t04/06/2026\t9999\t1\t\n2\t04/06/2026\t1000\t\t1\n",
    ),
  );
  await expect(page.getByText("There is no account 9999 in the chart.")).toBeVisible();
  await expect(page.getByRole("link", { name: "Download these rows" })).toBeVisible();
  await page.getByLabel("Row 4, Account").fill("6200");
  await page.getByRole("button", { name: "Check again" }).click();
  await page.getByRole("button", { name: "Post 2 entries" }).click();
  await expect(page.getByText(/· posted/)).toBeVisible();
  await expectAccessible(page);
  // Taken out again, and posted once more.
  await page.getByRole("button", { name: "Undo: take 2 entries out again" }).click();
  await expect(page.getByText(/· undone/)).toBeVisible();
  await page.getByRole("button", { name: "Post 2 entries" }).click();
  await expect(page.getByText(/· posted/)).toBeVisible();

  await drop(
    "Trial balance",
    file("tb.csv", "Account,Name,Debit,Credit\n1000,Bank,900,\n1300,Deposits,100,\n3000,Capital,,1000\n"),
  );
  await expect(page.getByRole("alert").first()).toContainText("on which day");
  await page.getByLabel("Balances of the day").fill("2025-12-31");
  await page.getByLabel("Balances of the day").blur();
  await page.getByRole("button", { name: "Post 1 document" }).click();
  await expect(page.getByText(/· posted/)).toBeVisible();

  await drop("Contacts", file("c.csv", "Name,Country\nReed & Co,GB\nReed & Co,GB\nCafé,France\n"));
  await expect(page.getByText("is also in row 2")).toBeVisible();
  await page.getByRole("button", { name: "Leave all of them out" }).click();
  await page.getByRole("button", { name: "Post 1 contact" }).click();
  await expect(page.getByText(/· posted/)).toBeVisible();

  const invoice = (total: string) =>
    `<?xml version="1.0"?><Invoice xmlns="urn:oasis:names:specification:ubl:schema:xsd:Invoice-2" xmlns:cac="urn:oasis:names:specification:ubl:schema:xsd:CommonAggregateComponents-2" xmlns:cbc="urn:oasis:names:specification:ubl:schema:xsd:CommonBasicComponents-2"><cbc:ID>E-77</cbc:ID><cbc:IssueDate>2026-05-04</cbc:IssueDate><cbc:InvoiceTypeCode>380</cbc:InvoiceTypeCode><cbc:DocumentCurrencyCode>GBP</cbc:DocumentCurrencyCode><cac:AccountingSupplierParty><cac:Party><cac:PartyLegalEntity><cbc:RegistrationName>Claybank Minerals</cbc:RegistrationName></cac:PartyLegalEntity></cac:Party></cac:AccountingSupplierParty><cac:TaxTotal><cbc:TaxAmount currencyID="GBP">20.00</cbc:TaxAmount><cac:TaxSubtotal><cbc:TaxableAmount currencyID="GBP">100.00</cbc:TaxableAmount><cbc:TaxAmount currencyID="GBP">20.00</cbc:TaxAmount><cac:TaxCategory><cbc:ID>S</cbc:ID><cbc:Percent>20</cbc:Percent></cac:TaxCategory></cac:TaxSubtotal></cac:TaxTotal><cac:LegalMonetaryTotal><cbc:LineExtensionAmount currencyID="GBP">100.00</cbc:LineExtensionAmount><cbc:TaxExclusiveAmount currencyID="GBP">100.00</cbc:TaxExclusiveAmount><cbc:TaxInclusiveAmount currencyID="GBP">${total}</cbc:TaxInclusiveAmount><cbc:PayableAmount currencyID="GBP">${total}</cbc:PayableAmount></cac:LegalMonetaryTotal><cac:InvoiceLine><cbc:ID>1</cbc:ID><cbc:InvoicedQuantity unitCode="C62">1</cbc:InvoicedQuantity><cbc:LineExtensionAmount currencyID="GBP">100.00</cbc:LineExtensionAmount><cac:Item><cbc:Name>Clay</cbc:Name><cac:ClassifiedTaxCategory><cbc:ID>S</cbc:ID><cbc:Percent>20</cbc:Percent></cac:ClassifiedTaxCategory></cac:Item><cac:Price><cbc:PriceAmount currencyID="GBP">100.00</cbc:PriceAmount></cac:Price></cac:InvoiceLine></Invoice>`;
  await drop("Purchases", file("e.xml", invoice("125.00")));
  await expect(page.getByText(/BR-CO-15/)).toBeVisible();
  await expectAccessible(page);
  await page.getByRole("button", { name: "Post 1 document" }).click();
  await expect(page.getByText(/· posted/)).toBeVisible();

  await open(page, id, "books/documents");
  await page.getByLabel(/^only/).uncheck();
  await page.getByRole("cell", { name: "E-77", exact: true }).click();
  await page.getByRole("tab", { name: "Papers" }).click();
  await expect(page.getByRole("button", { name: "e.xml" })).toBeVisible();
  await expectAccessible(page);
});
