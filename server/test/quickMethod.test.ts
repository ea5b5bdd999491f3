import { afterAll, beforeAll, expect, onTestFinished, test, vi } from "vitest";
import type { MethodComparison } from "@fiscalon/contract/compareMethods";
import type { SchemeView } from "@fiscalon/contract/schemeView";
import type { TrailStep } from "@fiscalon/contract/trail";
import { INCLUSIVE, periodBooks } from "./support/periods.ts";
import { expectRefusal } from "./support/refused.ts";
import { startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

const [Q1, Q2, Q3] = ["2026-03-31", "2026-06-30", "2026-09-30"];
let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const inForce = (scheme: string, settings: Record<string, string>, from = "2026-01-01") => ({
  scheme,
  from,
  to: null,
  settings,
});
const quick = (seat: string, sells: string, used = "") =>
  inForce("ca-quick-method", { seat, sells, ...(used === "" ? {} : { used }) });

async function trader(region: string, schemes: object[], levies = ["GST", "HST"]) {
  const books = await periodBooks(server, {
    pack: "ca",
    country: "CA",
    region,
    levies,
    frequency: "quarterly",
    anchor: Q1,
    number: "123456782RT0001",
  });
  const join = (list: object[]) => books.change({ schemes: list });
  expect((await join(schemes)).status).toBe(200);
  return {
    ...books,
    join,
    papers: (end: string) => server.ok<SchemeView[]>("GET", `${books.registration}/returns/${end}/schemes`),
  };
}

const gross = (where: string) => ({ ...INCLUSIVE, with: `CA-${where}` });

// W8 of ca.md; the rates from RC4058, from memory. The second quarter has used the first slice.
test("the quick method in Ontario: a rate by where it is made, capital property deducted, one percent of the first 30,000", async () => {
  const books = await trader("ON", [quick("ON", "services")]);
  await books.post(["sales-invoice", "HON", "20000.00", gross("ON")], "2026-02-02");
  await books.post(["sales-invoice", "HON", "8500.00", gross("ON")], "2026-03-02");
  await books.post(["sales-credit-note", "HON", "250.00", gross("ON")], "2026-03-05");
  await books.post(["sales-invoice", "G5", "5250.00", gross("AB")], "2026-02-20");
  await books.post(["sales-invoice", "ZX", "3000.00", { with: "US" }], "2026-02-21");
  await books.post(["purchase-bill", "HON-C", "1500.00"], "2026-02-03");
  await books.post(["purchase-bill", "HON", "900.00"], "2026-02-04");
  const boxes = await books.boxes(Q1);
  expect(boxes).toMatchObject({
    "101": "36500",
    "90": "33500",
    "91": "3000",
    "103": "2580.50",
    "106": "195",
    "107": "300",
    "108": "495",
    "109": "2085.50",
  });
  expect(boxes["104"]).toBeUndefined();
  const [paper] = await books.papers(Q1);
  expect(paper?.steps.filter(({ box }) => box === "103").map(({ arithmetic }) => arithmetic)).toEqual([
    "5,250.00 × 1.8 % = 94.50",
    "28,250.00 × 8.8 % = 2,486.00",
  ]);
  // The step of one destination opens its own sales, those of the other stand apart.
  const rid = books.registration.split("/").at(-1);
  const alberta = paper?.steps.find(({ amount }) => amount === 94_50)?.id;
  const step = await server.ok<TrailStep>("GET", `${books.base}/trail?ref=scheme/${rid}/${Q1}/${alberta}`);
  expect(step.parts.map(({ amount }) => amount)).toEqual([5_250_00]);

  await books.seal(Q1);
  await books.settle(Q1);
  expect(await books.left(Q1)).toBe(0);
  expect(await books.boxes(Q1)).toEqual(boxes);

  await books.post(["sales-invoice", "HON", "11300.00"], "2026-05-02");
  expect((await books.boxes(Q2))["107"]).toBeUndefined();
  // Late of the first quarter, on the second return: at its own rate, and the slice stays used.
  await books.post(["sales-invoice", "HON", "1000.00"], "2026-03-20");
  const later = await books.boxes(Q2);
  expect(later["103"]).toBe("1223.11"); // 12,769.00 and 1,130.00 at 8.8 %: 1,123.67 + 99.44
  expect(later["107"]).toBeUndefined();
  await books.expectSameAfterBookFile();
  expectRefusal(await books.join([]), "scheme/sealed", "schemes");
});

// Table of ca.md, section 7: 12,000.00 of the first slice are left in a quarter that straddles it; a new year has its own.
test("the first slice runs over the periods of a fiscal year, with what was used elsewhere, and begins anew", async () => {
  const books = await trader("AB", [quick("federal", "services", "8000.00")]);
  await books.change({ options: { fiscalYear: "6" } });
  await books.post(["sales-invoice", "G5", "10000.00"], "2026-02-02");
  await books.post(["sales-invoice", "G5", "20000.00"], "2026-05-02");
  await books.post(["sales-invoice", "G5", "20000.00"], "2026-08-02");
  const given = async (end: string) => (await books.boxes(end))["107"];
  expect([await given(Q1), await given(Q2), await given(Q3)]).toEqual(["105", "115", "210"]);
});

// ca.md, section 7: Nova Scotia from April 2025, and resellers in Ontario, whose supplies outside bear nought.
test("Nova Scotia after its rate fell, and what is given back of supplies whose rate is nought", async () => {
  const books = await trader("NS", [quick("NS", "services", "30000.00")]);
  await books.post(["sales-invoice", "HNS", "22800.00", gross("NS")], "2026-02-02");
  await books.post(["sales-invoice", "HON", "5650.00", gross("ON")], "2026-02-03");
  expect(await books.boxes(Q1)).toMatchObject({ "103": "2629.10", "109": "2629.10" });
  const shop = await trader("ON", [quick("ON", "reseller", "30000.00")]);
  await shop.post(["sales-invoice", "HON", "11300.00", gross("ON")], "2026-02-02");
  await shop.post(["sales-invoice", "G5", "2100.00", gross("AB")], "2026-02-03");
  expect(await shop.boxes(Q1)).toMatchObject({ "103": "497.20", "107": "58.80", "109": "438.40" });
});

// ca.md, section 7, worked: Québec, services, both methods, first quarter.
test("the quick method of both taxes in Québec, at once and each with its own slice", async () => {
  const both = [quick("federal", "services"), inForce("ca-qst-quick-method", { sells: "services" })];
  const books = await trader("QC", both, ["GST", "HST", "QST"]);
  await books.post(["sales-invoice", "GQ", "40000.00"], "2026-02-02");
  await books.post(["purchase-bill", "GQ", "3000.00"], "2026-02-03");
  expect(await books.boxes(Q1)).toMatchObject({
    "101": "42000",
    "103": "1512",
    "107": "300",
    "109": "1212",
    Q203: "2903.34",
    Q207: "314.21",
    Q209: "2589.13",
    "115": "3801.13",
  });
  const papers = await books.papers(Q1);
  // 2,000.00 + 3,990.00 charged; 150.00 + 299.25 not deducted.
  expect(papers.reduce((sum, { gain }) => sum + gain, 0)).toBe(3_801_13 - 2_000_00 - 3_990_00 + 449_25);
  await books.seal(Q1);
  await books.settle(Q1);
  expect(await books.left(Q1)).toBe(0);
  // One beside the other, but not twice the same, and not both ways of the same tax.
  const twice = [...both, inForce("ca-charity", {})];
  expectRefusal(await books.join(twice), "scheme/overlap", "schemes[0].to");
});

// ca.md, section 7: a charity in Alberta. The rebate on line 111 is typed.
test("a charity remits three fifths of the tax it charges and deducts that of capital property", async () => {
  const books = await trader("AB", [inForce("ca-charity", {})]);
  await books.post(["sales-invoice", "G5", "100000.00"], "2026-02-02");
  await books.post(["sales-invoice", "A5", "2000.00"], "2026-02-12");
  await books.post(["purchase-bill", "G5-C", "8000.00"], "2026-02-03");
  await books.post(["purchase-bill", "G5", "36000.00"], "2026-02-04");
  expect(await books.boxes(Q1)).toMatchObject({
    "101": "102000",
    "103": "3100",
    "106": "400",
    "109": "2700",
  });
});

test("the comparison of a method in force is its returns, with what of the first slice was used before the year compared", async () => {
  vi.useFakeTimers({ toFake: ["Date"], now: new Date("2026-11-20T12:00:00Z") });
  onTestFinished(() => void vi.useRealTimers());
  const books = await periodBooks(
    server,
    {
      pack: "ca",
      country: "CA",
      region: "AB",
      levies: ["GST", "HST"],
      frequency: "quarterly",
      anchor: Q1,
      number: "123456782RT0001",
    },
    "2025-01-01",
  );
  await books.change({ schemes: [{ ...quick("federal", "services"), from: "2025-01-01" }] });
  for (const month of ["2025-02", "2025-11", "2026-02", "2026-08"])
    await books.post(["sales-invoice", "G5", "20000.00"], `${month}-02`);
  const { methods, periods } = await server.ok<MethodComparison>("POST", `${books.registration}/methods`, {
    answers: {},
  });
  const method = methods.find(({ now }) => now);
  expect(periods.map(({ to }) => to)).toEqual(["2025-12-31", Q1, Q2, Q3]);
  for (const [index, { to }] of periods.entries()) {
    const boxes = await books.boxes(to);
    expect([method?.output[index], method?.input[index]]).toEqual(
      ["105", "108"].map((box) => Math.round(Number(boxes[box] ?? 0) * 100)),
    );
  }
  // 21,000.00 were used in February, so 9,000.00 were left for November.
  expect(method?.input[0]).toBe(90_00);
});

test("the comparison comes to what the return does when the method is in force", async () => {
  const books = await trader("ON", []);
  await books.post(["sales-invoice", "HON", "11300.00", gross("ON")], "2026-02-02");
  await books.post(["purchase-bill", "HON", "900.00"], "2026-05-04");
  const { methods } = await server.ok<MethodComparison>("POST", `${books.registration}/methods`, {
    answers: { seat: "ON", sells: "services" },
  });
  const method = methods.find(({ id }) => id === "ca-quick-method");
  expect(methods.map(({ id }) => id)).toEqual(["ordinary", "ca-quick-method", "ca-simplified-credits"]);
  await books.join([quick("ON", "services")]);
  const boxes = await books.boxes(Q1);
  expect(method?.output[0]).toBe(Number(boxes["105"]) * 100);
  expect(method?.input[0]).toBe(Number(boxes["108"]) * 100);
  // What it differs by is told in full.
  const gain = (method?.causes ?? []).reduce((sum, { amount }) => sum + amount, 0);
  const net = (one: (typeof methods)[number] | undefined) =>
    [...(one?.output ?? []), ...(one?.input ?? []).map((amount) => -amount)].reduce(
      (sum, amount) => sum + amount,
      0,
    );
  expect(gain).toBe(net(method) - net(methods[0]));
});
