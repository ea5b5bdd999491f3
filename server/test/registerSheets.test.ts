import { afterAll, beforeAll, expect, test } from "vitest";
import type { SheetPivot, SheetRowPage, SheetView } from "@fiscalon/contract/registerSheets";
import { newClient, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

// As another system exports it: no document numbers, duty and freight in columns of their own, tax blank on exports.
const REGISTER = `Sales by invoice,,,,,,,
Date,Customer,Country,Goods value,Freight,Duty,GST,Rate
03/01/2026,Northgate,IN,"1,000.00",50.00,20.00,180.00,18
14/01/2026,Harbour,SG,"2,000.00",,,,
09/02/2026,Northgate,IN,500.00,,10.00,0.00,0
20/02/2026,Hill,IN,(100.00),,,(18.00),18
Total,,,"3,400.00",50.00,30.00,162.00,
`;

// Worked out by hand from the rows above. Common practice, no source.
test("a register alone: both values, split by blank tax, by month and party, what is not used named with its sum", async () => {
  const { base } = await newClient(server);
  const { status, body } = await server.upload(`${base}/register-sheets`, "sales.csv", REGISTER);
  expect([status, body]).toMatchObject([201, { rows: 4 }]);
  const one = `${base}/register-sheets/${body.id}`;
  const first = await server.ok<SheetView>("GET", one);
  expect(first.columns.map(({ name, kind, sum, blanks }) => [name, kind, sum, blanks])).toEqual([
    ["Date", "date", null, 0],
    ["Customer", "text", null, 0],
    ["Country", "text", null, 0],
    ["Goods value", "amount", 3400_00, 0],
    ["Freight", "amount", 50_00, 3],
    ["Duty", "amount", 30_00, 2],
    ["GST", "amount", 162_00, 1],
    ["Rate", "text", null, 1],
  ]);
  expect(first.mapping).toMatchObject({ accounts: [3], returns: [3], tax: 6, date: 0, party: 1 });
  expect(first.unused.map(({ name, sum }) => [name, sum])).toEqual([
    ["Freight", 50_00],
    ["Duty", 30_00],
  ]);

  const mapping = { ...first.mapping, accounts: [3, 4], returns: [3, 4, 5], told: "3500.00" };
  await server.ok("PUT", `${one}/mapping`, mapping);
  const view = await server.ok<SheetView>("GET", one);
  expect(view).toMatchObject({
    accounts: 3450_00,
    returns: 3480_00,
    told: 3500_00,
    untold: 50_00,
    unused: [],
  });
  expect(view.causes).toEqual([{ at: 5, name: "Duty", amount: 30_00 }]);
  expect(view.split).toEqual([
    { id: "taxed", rows: 2, accounts: 950_00, returns: 970_00, tax: 162_00 },
    { id: "nought", rows: 1, accounts: 500_00, returns: 510_00, tax: 0 },
    { id: "blank", rows: 1, accounts: 2000_00, returns: 2000_00, tax: 0 },
  ]);
  expect(view.months.map(({ month, accounts, returns }) => [month, accounts, returns])).toEqual([
    ["2026-01", 3050_00, 3070_00],
    ["2026-02", 400_00, 410_00],
  ]);

  const pivot = await server.ok<SheetPivot>("GET", `${one}/pivot?rows=c1&columns=tax&figure=returns`);
  expect(pivot.total).toBe(view.returns);
  expect(pivot.columns).toEqual(["blank", "nought", "with tax"]);
  expect(pivot.rows.map(({ key, amounts, total, count }) => [key, amounts, total, count])).toEqual([
    ["Harbour", [2000_00, null, null], 2000_00, 1],
    ["Northgate", [null, 510_00, 1070_00], 1580_00, 2],
    ["Hill", [null, null, -100_00], -100_00, 1],
  ]);
  const behind = await server.ok<SheetRowPage>(
    "GET",
    `${one}/rows?rows=c1&columns=tax&row=Northgate&column=nought`,
  );
  expect(behind).toMatchObject({
    total: 1,
    rows: [{ no: 3, cells: ["2026-02-09", "Northgate", "IN", 500_00, null, 10_00, 0, "0"] }],
  });

  // The same columns come again: they are read as they were.
  const again = await server.upload(`${base}/register-sheets`, "next.csv", REGISTER);
  expect((again.body as unknown as SheetView).mapping).toMatchObject({
    accounts: [3, 4],
    returns: [3, 4, 5],
    told: "",
  });
  const book = await server.ok<{ registerSheets: object[] }>("GET", `${base}/book`);
  const { id: copy } = await server.ok<{ id: number }>("POST", "/books", book);
  expect(await server.ok<typeof book>("GET", `/clients/${copy}/book`)).toMatchObject({
    registerSheets: book.registerSheets,
  });
  const none = await server.upload(`${base}/register-sheets`, "words.csv", "Name,City\nA,B\n");
  expect(none).toMatchObject({ status: 422, body: { error: { code: "register/no-amounts" } } });
  const wrong = await server.call("PUT", `${one}/mapping`, { ...mapping, accounts: [1] });
  expect(wrong).toMatchObject({ status: 422, body: { error: { code: "register/not-amounts" } } });
});
