import { expect, test } from "@playwright/test";
import type { Page } from "@playwright/test";
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
  const { id } = await british(server, "Weir Street Barbers", { number: "980780684" });
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
  await dialog.getByRole("button", { name: "Join: Flat rate scheme" }).click();
  await dialog.getByLabel("From the period").selectOption("2026-04-01");
  await dialog.getByLabel("Sector").selectOption("hair");
  // Before anything is kept: output 2,000.00 less input 540.00 now, 1,440.00 less 440.00 then.
  const effect = dialog.getByRole("status", { name: "Effect on open periods" });
  await expect(effect.getByRole("row", { name: /Apr to Jun 2026/ })).toContainText("1,460.00");
  await expect(effect.getByRole("row", { name: /Apr to Jun 2026/ })).toContainText("−460.00");
  await expect(dialog.getByText(/last twelve months: 10,000.00/)).toBeVisible();
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

  await page.goto(`${server.address}/c/${id}/return/2026-03-31`);
  await sealAndNote(page);
  await page.goto(`${server.address}/c/${id}/return/2026-06-30`);
  await sealAndNote(page);
  await page.getByRole("link", { name: "Settle" }).first().click();
  await page.getByRole("button", { name: "Post the closing entry" }).click();
  const entry = page.getByRole("region", { name: "Closing entry" });
  await expect(entry.getByRole("row", { name: /Gain of VAT schemes/ })).toContainText("460.00");
  await expect(page.getByText("1,000.00 GBP still to pay.")).toBeVisible();
  await page.getByRole("button", { name: "Record payment" }).click();
  await page.getByRole("dialog").getByRole("button", { name: "Record" }).click();
  await expect(page.getByText("Nothing is outstanding for this period.")).toBeVisible();

  // Another sector from a later period on, the first one kept until then.
  await page.goto(`${server.address}/c/${id}/setup/places`);
  await expect(page.getByText("Filing periods")).toBeVisible();
  await page.getByRole("button", { name: "Change" }).last().click();
  await dialog.getByRole("button", { name: "Change from …" }).click();
  await dialog.getByLabel("From the period").selectOption("2026-07-01");
  await dialog.getByLabel("Sector").selectOption("retail");
  await dialog.getByRole("button", { name: "Change from 1 Jul 2026" }).click();
  await expect(dialog.getByText("Flat rate scheme from 1 Jul 2026")).toBeVisible();
  await dialog.getByRole("button", { name: "Save" }).click();
  await expect(page.getByText("Flat rate scheme from 1 Jul 2026 on")).toBeVisible();
});

/** Accepts what was found, seals the period on screen, and notes that it was filed elsewhere. */
async function sealAndNote(page: Page): Promise<void> {
  await expect(page.getByRole("heading", { name: /findings?/ }).first()).toBeVisible();
  const accept = page.getByRole("button", { name: /^Accept: / });
  for (let left = await accept.count(); left > 0; left -= 1) {
    await accept.first().click();
    await page.getByLabel("Why it is right as it is").fill("Seen on the paper");
    await page.getByRole("dialog").getByRole("button", { name: "Accept" }).click();
    await expect(accept).toHaveCount(left - 1);
  }
  await page.getByRole("button", { name: "Seal this period" }).click();
  await page.getByRole("button", { name: "File with HMRC (simulated)" }).click();
  const dialog = page.getByRole("dialog");
  await dialog.getByRole("checkbox").check();
  await dialog.getByRole("button", { name: "Send the return" }).click();
  await expect(page.getByRole("region", { name: "Receipt" })).toBeVisible();
}

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
  const invoices: number[] = [];
  for (const [number, amount] of [
    ["LM-1", "1200.00"],
    ["LM-2", "600.00"],
  ] as const) {
    const { id: invoice } = await document(
      id,
      "sales-invoice",
      number,
      "2026-01-05",
      { amount, code: "S20" },
      { contact: customer.id, due: "2026-02-04" },
    );
    invoices.push(invoice);
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

  // Paid after all in the next quarter: what was relieved goes back.
  const paid = await post(`/clients/${id}/payments`, {
    kind: "receipt",
    date: "2026-10-06",
    amount: "1200.00",
    contact: customer.id,
    allocations: [{ document: invoices[0], amount: "1200.00" }],
  });
  expect(paid.id).toBeGreaterThan(0);
  await page.goto(`${server.address}/c/${id}/agree/unpaid?period=2026-12-31`);
  await page.getByRole("button", { name: /Oct to Dec 2026/ }).click();
  const back = page.getByRole("row", { name: /LM-1/ });
  await expect(back).toContainText("paid since");
  await back.getByRole("checkbox").check();
  await page.getByRole("button", { name: /Put on this return/ }).click();
  await page.getByRole("dialog").getByRole("button", { name: "Post the journals" }).click();
  await expect(back).toHaveCount(0);
  await page.goto(`${server.address}/c/${id}/return/2026-12-31`);
  await expect(page.getByRole("row", { name: /VAT due on sales/ }).first()).toContainText("200.00");
});

test("a year of mixed use: each quarter its own share, and the year worked out again on the return after it", async ({
  page,
}) => {
  const scheme = {
    scheme: "gb-partial-exemption",
    from: "2025-04-01",
    to: null,
    settings: { yearEnds: "3", rate: "period", percent: "", adjusted: "next" },
  };
  const { id } = await british(server, "Harbour Street Surgery", {
    from: "2025-04-01",
    anchor: "2025-06-30",
    schemes: [scheme],
  });
  // Taxable 80,000 and exempt 20,000 in the first quarter, the other way round in the last; 30,000 of tax on mixed use each.
  for (const [number, date, taxable, exempt] of [
    ["1", "2025-05-06", "80000.00", "20000.00"],
    ["4", "2026-02-06", "20000.00", "80000.00"],
  ] as const) {
    const exclusive = { prices: "exclusive" };
    await document(id, "sales-invoice", `T-${number}`, date, { amount: taxable, code: "S20" }, exclusive);
    await document(id, "sales-invoice", `E-${number}`, date, { amount: exempt, code: "EX" }, exclusive);
    await document(
      id,
      "purchase-bill",
      `M-${number}`,
      date,
      { amount: "150000.00", code: "S20M" },
      exclusive,
    );
  }
  await page.goto(`${server.address}/c/${id}/return/2026-03-31`);
  const paper = page.getByRole("region", { name: /Workpaper: Partial exemption/ });
  await expect(paper).toContainText("30,000.00 less 20 % of it = 24,000.00");
  await page.goto(`${server.address}/c/${id}/return/2026-06-30`);
  // Half of 60,000.00 for the year, against 24,000.00 and 6,000.00.
  await expect(paper.getByText(/Adjustment of the tax year to 31 Mar 2026/)).toHaveCount(0);
  await document(
    id,
    "sales-invoice",
    "T-2",
    "2025-08-06",
    { amount: "100000.00", code: "S20" },
    { prices: "exclusive" },
  );
  await page.reload();
  const adjusted = paper.getByRole("row", { name: /Adjustment of the tax year to 31 Mar 2026/ });
  // 200,000 of 300,000 is 66.67, so 67 %: 40,200.00.
  await expect(adjusted).toContainText("40,200.00 of the year − 30,000.00 of its returns = 10,200.00");
  await expect(page.getByRole("row", { name: /VAT reclaimed on purchases/ })).toContainText("10,200.00");
  await expectAccessible(page);
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
