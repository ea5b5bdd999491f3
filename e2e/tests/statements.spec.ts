import { expect, test } from "@playwright/test";
import { expectAccessible } from "../support/axe.ts";
import { british } from "../support/british.ts";
import { send } from "../support/api.ts";
import { startServer } from "../support/server.ts";
import type { RunningServer } from "../support/server.ts";

let server: RunningServer;
test.beforeAll(async () => {
  server = await startServer();
});
test.afterAll(() => server.stop());

const OWN = "29AAKCH4821P1ZX";
const MILL = "29AAFCM1177Q1ZS";
const DYER = "29AADCS9042L1ZU";

const invoice = (inum: string, dt: string, txval: number) => {
  const tax = (txval * 9) / 100;
  const items = [{ num: 1, rt: 18, txval, igst: 0, cgst: tax, sgst: tax, cess: 0 }];
  return { inum, typ: "R", dt, val: txval * 1.18, pos: "29", rev: "N", itcavl: "Y", items };
};
const FILE = {
  data: {
    gstin: OWN,
    rtnprd: "102026",
    gendt: "14-11-2026",
    docdata: {
      b2b: [
        {
          ctin: MILL,
          trdnm: "Millrace Yarns",
          inv: [
            invoice("MY/26-27/0101", "05-10-2026", 10000),
            invoice("MY/26-27/0102", "09-10-2026", 5200),
            invoice("MY/26-27/0107", "21-10-2026", 700),
          ],
        },
      ],
    },
  },
};

test("a furnished list is dropped, what agrees accepted, one credit held back, and the return shows it", async ({
  page,
}) => {
  const { id } = await send(server, "POST", "/api/clients", {
    name: "Weir Street Weavers",
    country: "IN",
    place: { name: "Shed", country: "IN", region: "29" },
    registration: { pack: "in", from: "2026-04-01", frequency: "monthly", anchor: "2026-10-31", number: OWN },
  });
  const party = async (name: string, taxNumber: string) =>
    (
      await send(server, "POST", `/api/clients/${id}/contacts`, {
        name,
        country: "IN",
        region: "29",
        registered: true,
        taxNumber,
      })
    ).id;
  const mill = await party("Millrace Yarns", MILL);
  const dyer = await party("Damson Dyers", DYER);
  for (const [number, date, contact, amount] of [
    ["0101", "2026-10-05", mill, "10000"],
    ["0102", "2026-10-09", mill, "2500"],
    ["DD-9", "2026-10-12", dyer, "3000"],
  ] as const)
    await send(server, "POST", `/api/clients/${id}/documents`, {
      kind: "purchase-bill",
      date,
      prices: "exclusive",
      number,
      contact,
      lines: [{ code: "P18", amount }],
    });

  await page.goto(`${server.address}/c/${id}/agree/statements?period=2026-10-31`);
  await page.getByRole("button", { name: "Bring in a statement" }).click();
  await page.getByLabel("Statement file").setInputFiles({
    name: "2b.json",
    mimeType: "application/json",
    buffer: Buffer.from(JSON.stringify(FILE)),
  });
  await expect(
    page.getByRole("heading", { name: /GSTR-2B, what suppliers furnished, to 31 Oct 2026/ }),
  ).toBeVisible();
  const outcome = (name: string) => page.getByRole("row", { name: new RegExp(`^\\W*${name}`) });
  await expect(outcome("Only theirs")).toContainText("126.00");
  await expect(outcome("Only ours")).toContainText("−540.00");
  await expectAccessible(page);

  await page.getByRole("button", { name: /Accept 1 that agree/ }).click();
  await expect(page.getByRole("button", { name: /Accept 0 that agree/ })).toBeDisabled();

  await page.getByRole("button", { name: "Only ours" }).click();
  await expect(page.getByRole("row", { name: /Damson Dyers/ })).toContainText("DD-9");
  await page.keyboard.press("h");
  await expect(page.getByRole("row", { name: /Damson Dyers/ })).toContainText("credit held back");
  await expect(page.getByText("its credit is held back")).toBeVisible();

  await page.goto(`${server.address}/c/${id}/return/2026-10-31`);
  await expect(page.getByRole("button", { name: /^Box 4A5\.cgst 1,125\.00/ })).toBeVisible();

  await page.goto(`${server.address}/c/${id}/agree/held?period=2026-10-31`);
  await expect(page.getByRole("row", { name: /DD-9/ })).toContainText("540.00");
});

const REGISTER = `Date,Customer,Goods value,Duty,GST
2026-01-03,Northgate,1000.00,20.00,180.00
2026-01-14,Harbour,2000.00,,
2026-02-09,Hill,500.00,10.00,0.00
`;

test("a register alone: columns make up two values, blanks in the tax column are told apart, a figure opens its rows", async ({
  page,
}) => {
  const { id } = await british(server, "Quayside Prints");
  await page.goto(`${server.address}/c/${id}/agree/register`);
  await expect(page.getByText("No register yet")).toBeVisible();
  await page
    .getByLabel("Register file")
    .setInputFiles({ name: "sales.csv", mimeType: "text/csv", buffer: Buffer.from(REGISTER) });
  await expect(page.getByRole("heading", { name: "sales.csv" })).toBeVisible();
  await expect(page.getByRole("row", { name: /Duty.*not used/ })).toContainText("30.00");
  await page.getByRole("checkbox", { name: "Duty is part of the value on the return" }).check();
  await expect(page.getByRole("row", { name: /Value on the return/ })).toContainText("3,530.00");
  await expect(page.getByRole("row", { name: /Tax blank/ })).toContainText("2,000.00");
  await page.getByLabel("Sales in the profit and loss account").fill("3,600.00");
  await page.getByRole("button", { name: "Compare" }).click();
  await expect(page.getByRole("row", { name: /In the profit and loss account, not here/ })).toContainText(
    "100.00",
  );
  await page.getByRole("button", { name: "2026-01, blank: 2,000.00, open rows" }).click();
  await expect(page.getByRole("region", { name: "Rows behind the figure" })).toContainText("Harbour");
  await expectAccessible(page);
});
