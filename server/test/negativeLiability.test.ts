import { afterAll, beforeAll, expect, test } from "vitest";
import type { SettlementView } from "@fiscalon/contract/settlement";
import type { TrailStep } from "@fiscalon/contract/trail";
import { periodBooks } from "./support/periods.ts";
import { expectRefusal } from "./support/refused.ts";
import { startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

interface Finding {
  key: string;
  check: string;
}

const KARNATAKA = {
  pack: "in",
  country: "IN",
  number: "29AAPFM4417K1ZR",
  region: "29",
  frequency: "monthly",
  anchor: "2026-01-31",
};

async function months() {
  const books = await periodBooks(server, KARNATAKA);
  /** Files and settles a month: what goes to each account, without what is cut to whole rupees. */
  const settled = async (end: string) => {
    const path = `${books.registration}/returns/${end}`;
    const { findings } = await server.ok<{ findings: Finding[] }>("GET", path);
    // The party has no number; nothing else is to be said.
    expect(findings.filter(({ check }) => check !== "no-supplier-number")).toEqual([]);
    for (const { key } of findings)
      await server.ok("POST", `${path}/acceptances`, { key, reason: "number is on the bill" });
    await server.ok("POST", `${path}/seal`);
    await server.ok("POST", `${path}/file`, {
      declared: true,
      reference: `ARN-${end}`,
    });
    await server.ok("POST", `${books.registration}/settlements/${end}`);
    const { entry } = await server.ok<SettlementView>("GET", `${books.registration}/settlements/${end}`);
    const of = (text: RegExp) =>
      entry.postings.filter((one) => text.test(one.text)).reduce((sum, { amount }) => sum + amount, 0);
    expect(Math.abs(of(/^Rounding/))).toBeLessThan(4_00);
    return { carried: of(/^Credit carried/), due: Math.abs(of(/^Due/)) };
  };
  return { ...books, settled };
}

// Instructions to GSTR-3B, table 6.1: negative liability goes into the next liability of the same head; from memory.
test("India: credit notes above the sales of a month reduce the next ones of the same head, and no other", async () => {
  const { post, boxes, settled } = await months();
  await post(["sales-credit-note", "S18", "20448.89"], "2026-07-10"); // 1,840.40 and 1,840.40
  await post(["sales-invoice", "S18", "123947.78", { with: "IN-33" }], "2026-07-11"); // 22,310.60
  expect(await boxes("2026-07-31")).toMatchObject({
    "3.1a.cgst": "-1840.40",
    "6.1A.cgst.net": "-1840",
    "6.1A.cgst.negout": "1840",
    "6.1A.sgst.negout": "1840",
    "6.1A.igst.payable": "22311",
    cash: "22311",
  });
  expect(await settled("2026-07-31")).toEqual({ carried: 3680_00, due: 22311_00 });

  await post(["sales-invoice", "S18", "13333.33"], "2026-08-12"); // 1,200.00 and 1,200.00
  const august = await boxes("2026-08-31");
  expect(august).toMatchObject({
    "6.1A.cgst.negadj": "1840",
    "6.1A.cgst.net": "-640",
    "6.1A.cgst.negout": "640",
  });
  expect(august).not.toHaveProperty("cash");
  expect(await settled("2026-08-31")).toEqual({ carried: -2400_00, due: 0 });

  await post(["sales-invoice", "S18", "55555.56"], "2026-09-12"); // 5,000.00 and 5,000.00
  expect(await boxes("2026-09-30")).toMatchObject({ "6.1A.cgst.payable": "4360", cash: "8720" });
  expect(await settled("2026-09-30")).toEqual({ carried: -1280_00, due: 8720_00 });
});

// Circ. 170/02/2022: 4A(5) net of credit notes may be negative; that the ledger makes it good later is from memory.
test("India: a supplier's credit note above the credit there is comes off the credit of the next month", async () => {
  const { post, boxes, settled } = await months();
  await post(["purchase-credit-note", "P18", "1000.00"], "2026-07-10"); // 90 and 90
  await post(["sales-invoice", "S18", "3000.00"], "2026-07-12"); // 270 and 270
  expect(await boxes("2026-07-31")).toMatchObject({ "4C.cgst": "-90", "cl.cgst": "-90", cash: "540" });
  expect(await settled("2026-07-31")).toEqual({ carried: -180_00, due: 540_00 });

  await post(["purchase-bill", "P18", "1300.00"], "2026-08-10"); // 117 and 117, of which 27 are there
  await post(["sales-invoice", "S18", "3000.00"], "2026-08-12");
  const august = await boxes("2026-08-31");
  expect(august).toMatchObject({ "op.cgst": "-90", "k.cgst": "27", "6.1A.cgst.cash": "243", cash: "486" });
  expect(august).not.toHaveProperty("cl.cgst");
  expect(await settled("2026-08-31")).toEqual({ carried: 180_00, due: 486_00 });
});

// The same for what is paid in cash under reverse charge; it stays apart from the other liability.
test("India: a credited reverse charge reduces the next one, and not the tax on sales", async () => {
  const { post, boxes, settled } = await months();
  await post(["purchase-credit-note", "R5", "4000.00"], "2026-07-10"); // 100 and 100, both ways
  await post(["sales-invoice", "S18", "2000.00"], "2026-07-12"); // 180 and 180
  expect(await boxes("2026-07-31")).toMatchObject({
    "6.1B.cgst.negout": "100",
    "cl.cgst": "-100",
    "6.1A.cgst.cash": "180",
    cash: "360",
  });
  expect((await settled("2026-07-31")).due).toBe(360_00);
  await post(["purchase-bill", "R5", "6000.00"], "2026-08-10"); // 150 and 150
  expect(await boxes("2026-08-31")).toMatchObject({
    "6.1B.cgst.payable": "50",
    "cl.cgst": "50",
    cash: "100",
  });
  expect((await settled("2026-08-31")).due).toBe(100_00);
});

// The electronic credit ledger of s.49 has a balance on the day the books begin.
test("India: credit brought in with the registration pays the first return, and is told as such", async () => {
  const { base, registration, post, boxes, settled, change } = await months();
  const opening = { "op.cgst": "500.00", "op.igst": "90.40", "6.1A.sgst.negadj": "40" };
  expectRefusal(await change({ opening: { "cl.cgst": "1" } }), "registration/no-carried-box", "opening");
  expect((await change({ opening })).status).toBe(200);
  await post(["sales-invoice", "S18", "3000.00"], "2026-07-12"); // 270 and 270
  expect(await boxes("2026-07-31")).toMatchObject({
    "op.cgst": "500",
    "6.1A.sgst.net": "230",
    "6.1A.cgst.itc.cgst": "270",
    "6.1A.sgst.itc.igst": "90",
    cash: "140",
    "cl.cgst": "230",
  });
  const rid = registration.split("/").at(-1);
  const step = await server.ok<TrailStep>("GET", `${base}/trail?ref=box/${rid}/2026-07-31/op.cgst`);
  expect(step.parts).toMatchObject([{ label: "Brought in", amount: 500_00, ref: null }]);
  expect(await settled("2026-07-31")).toEqual({ carried: -400_40, due: 140_00 });
  expectRefusal(await change({ opening: {} }), "registration/opening-sealed", "opening");

  await post(["sales-invoice", "S18", "3000.00"], "2026-08-12");
  expect(await boxes("2026-08-31")).toMatchObject({ "op.cgst": "230", cash: "310" });
  const book = await server.ok("GET", `${base}/book`);
  const { id } = await server.ok<{ id: number }>("POST", "/books", book);
  expect(await server.ok("GET", `/clients/${id}/book`)).toEqual(book);
});
