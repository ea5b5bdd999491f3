import { afterAll, beforeAll, expect, test } from "vitest";
import type { MethodComparison } from "@fiscalon/contract/compareMethods";
import type { SchemeView } from "@fiscalon/contract/schemeView";
import type { TrailStep } from "@fiscalon/contract/trail";
import { INCLUSIVE, periodBooks } from "./support/periods.ts";
import { startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

const [Q1, Q2] = ["2026-03-31", "2026-06-30"];
let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

async function trader(region: string, schemes: string[], levies = ["GST", "HST"]) {
  const books = await periodBooks(server, {
    pack: "ca",
    country: "CA",
    region,
    levies,
    frequency: "quarterly",
    anchor: Q1,
    number: "123456782RT0001",
  });
  const list = schemes.map((scheme) => ({ scheme, from: "2026-01-01", to: null, settings: {} }));
  expect((await books.change({ schemes: list })).status).toBe(200);
  return books;
}

// W9 of ca.md (RC4022, from memory): 12,600.00 × 5/105, PST in the total; 41,245.00 × 13/113.
test("input tax from what bills come to, with provincial sales tax and half of meals, rounded once a rate", async () => {
  const books = await trader("BC", ["ca-simplified-credits"]);
  await books.post(["sales-invoice", "G5", "30000.00"], "2026-02-01");
  // 10,000.00 with GST 500.00 and PST 700.00: 11,200.00.
  await books.post(["purchase-bill", "GBC", "10000.00"], "2026-02-02");
  await books.post(["purchase-bill", "G5", "1050.00", INCLUSIVE], "2026-02-03");
  // A meal of 700.00 counts with its half.
  await books.post(["purchase-bill", "G5-M", "700.00", INCLUSIVE], "2026-02-04");
  await books.post(["purchase-bill", "HON", "41245.00", { ...INCLUSIVE, with: "CA-ON" }], "2026-02-05");
  // None of these is in the totals: no tax, zero-rated, or tax at the border, which is deducted as it is.
  await books.post(["purchase-bill", "NT", "500.00"], "2026-02-06");
  await books.post(["purchase-bill", "Z", "800.00"], "2026-02-07");
  await books.post(["purchase-bill", "TXO", "90.00"], "2026-02-08");
  const boxes = await books.boxes(Q1);
  expect(boxes).toMatchObject({ "103": "1500", "106": "5435", "109": "-3935" });
  const [paper] = await server.ok<SchemeView[]>("GET", `${books.registration}/returns/${Q1}/schemes`);
  expect(paper?.steps.map(({ arithmetic }) => arithmetic)).toEqual([
    "12,600.00",
    "12,600.00 × 5/105 = 600.00",
    "41,245.00",
    "41,245.00 × 13/113 = 4,745.00",
  ]);
  const rid = books.registration.split("/").at(-1);
  const step = await server.ok<TrailStep>(
    "GET",
    `${books.base}/trail?ref=scheme/${rid}/${Q1}/billed-${Q1}-5`,
  );
  expect(step.parts.map(({ amount }) => amount).sort()).toEqual([1_050_00, 11_200_00, 350_00]);

  // A supplier's credit note lowers the totals of its own quarter.
  await books.post(["purchase-credit-note", "HON", "1130.00", { ...INCLUSIVE, with: "CA-ON" }], "2026-04-02");
  expect(await books.boxes(Q2)).toMatchObject({ "106": "-130" });
  await books.seal(Q1);
  await books.settle(Q1);
  expect(await books.left(Q1)).toBe(0);
  await books.expectSameAfterBookFile();
  const { methods } = await server.ok<MethodComparison>("POST", `${books.registration}/methods`, {
    answers: {},
  });
  expect(methods.find(({ id }) => id === "ca-simplified-credits")).toMatchObject({ now: true, bar: null });
});

// ca.md, section 7: totals of the QST with it and without GST, from memory of IN-203.
test("both taxes of Québec from totals, each of its own", async () => {
  const books = await trader("QC", ["ca-simplified-credits", "ca-simplified-refunds"], ["GST", "HST", "QST"]);
  await books.post(["purchase-bill", "GQ", "10000.00"], "2026-02-02");
  await books.post(["purchase-bill", "GQ-M", "400.00"], "2026-02-03");
  const boxes = await books.boxes(Q1);
  // 10,500.00 and half of 420.00; 10,997.50 and half of 439.90.
  expect(boxes).toMatchObject({ "106": "510", Q206: "1017.45" });
});
