import { afterAll, beforeAll, expect, test } from "vitest";
import fc from "fast-check";
import { at, found } from "@fiscalon/core/at";
import type { Attribution } from "@fiscalon/core/model/attribution";
import { SHIPPED } from "@fiscalon/core/packs/shipped";
import { attribution } from "@fiscalon/core/schemes/attribution";
import type { AttributedPeriod } from "@fiscalon/core/schemes/attributedTax";
import type { SchemeView } from "@fiscalon/contract/schemeView";
import { british, periodBooks } from "./support/periods.ts";
import { startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

type Figures = [taxable: number, exempt: number, direct: number, onExempt: number, residual: number];

/** Quarters from January 2025 on; what each return owes more than if all input tax but that on exempt supplies were deducted. */
function sharedBy(pack: string, levy: string, figures: readonly Figures[], settings: Record<string, string>) {
  const { schemes = [] } = found(SHIPPED, ({ id }) => id === pack, pack);
  const { rule } = found(schemes, (one) => one.rule.kind === "attribution", pack);
  const periods = figures.map(([taxable, exempt, direct, onExempt, residual], index): AttributedPeriod => {
    const [year, quarter] = [2025 + Math.floor(index / 4), index % 4];
    return {
      from: `${year}-${["01", "04", "07", "10"][quarter]}-01`,
      to: `${year}-${["03-31", "06-30", "09-30", "12-31"][quarter]}`,
      taxable: taxable * 100,
      exempt: exempt * 100,
      taxes: [
        {
          levy,
          direct: direct * 100,
          exempt: onExempt * 100,
          withheld: onExempt * 100,
          residual: residual * 100,
        },
      ],
    };
  });
  const scheme = { scheme: "", from: "2025-01-01", to: null, settings };
  const around = { periods, scheme, digits: 2 };
  return periods.map(({ to }) => attribution(rule as Attribution, around, new Set([to])));
}
const owed = (...given: Parameters<typeof sharedBy>) => sharedBy(...given).map((one) => one.owed / 100);

const GB = { yearEnds: "3", rate: "period", percent: "", adjusted: "next" };

// VAT Notice 706: the standard method, the percentage taken up to a whole one, the three tests. Figures from memory.
test("Britain: the share up to a whole percent, the three tests of what is little enough", () => {
  const quarter = (...figures: Figures) => at(owed("gb", "VAT", [figures], GB), 0);
  // 80,000 of 93,000 is 86.02, so 87 %: of 10,000 stay 1,300.
  expect(quarter(80_000, 13_000, 5_000, 3_000, 10_000)).toBe(1_300);
  // Test 1: 1,875 in all in three months, exempt supplies just half. All is deducted, that on exempt supplies too.
  expect(quarter(50_000, 50_000, 875, 500, 500)).toBe(-500);
  expect(quarter(50_000, 50_001, 875, 500, 501)).toBe(-500); // test 3: 500 + 251 of 1,876
  // Test 2: without what serves taxable supplies 1,875.
  expect(quarter(90_000, 10_000, 40_000, 1_500, 375)).toBe(-1_500);
  // Test 3: 1,500 + 10 % of 3,750 is 1,875; a penny's worth more fails.
  expect(quarter(90_000, 10_000, 10_000, 1_500, 3_750)).toBe(-1_500);
  expect(quarter(90_000, 10_000, 10_000, 1_500, 3_760)).toBe(376);
  // reg. 101(5): shared tax above 400,000 a month: 86.02 % of 1,300,000, taken up to 86.03, not 87 %.
  expect(quarter(80_000, 13_000, 5_000_000, 3_000, 1_200_000)).toBe(156_000);
  expect(quarter(80_000, 13_000, 5_000_000, 3_000, 1_300_000)).toBe(181_610);
});

// gb.md 7.7: year A 20,000, B 3,200, C 10,000 at 380,000 to 60,000: all is deducted; recovered before 27,450.
test("Britain: the tax year as a whole, on the return after it or on its last", () => {
  const quarters: Figures[] = [
    [200_000, 30_000, 5_000, 800, 2_500], // to March 2025, a year of its own
    [95_000, 15_000, 5_000, 800, 2_500],
    [95_000, 15_000, 5_000, 800, 2_500],
    [95_000, 15_000, 5_000, 800, 2_500],
    [95_000, 15_000, 5_000, 800, 2_500],
    [95_000, 15_000, 5_000, 0, 0],
  ];
  // A quarter: 87 %, 325 of 2,500 refused; 800 + 325 = 1,125 is little enough, so all is deducted: nothing to adjust.
  expect(owed("gb", "VAT", quarters, GB).slice(1)).toEqual([-800, -800, -800, -800, 0]);
  const dear = quarters.map(([taxable, exempt, direct, , residual]): Figures => [
    taxable,
    exempt,
    direct,
    residual === 0 ? 0 : 2_000,
    residual,
  ]);
  const uneven = dear.map((one, index): Figures =>
    index === 2 ? [35_000, 45_000, 5_000, 2_000, 2_500] : one,
  );
  // 44 % in that quarter; the year 320,000 of 410,000 is 78.05, so 79 %: 7,900 against 3 × 2,175 + 1,100 = 7,625.
  expect(owed("gb", "VAT", uneven, GB).slice(1)).toEqual([325, 1_400, 325, 325, -275]);
  expect(owed("gb", "VAT", uneven, { ...GB, adjusted: "last" }).slice(1)).toEqual([325, 1_400, 325, 50, 0]);
});

// sg.md 7.4: 850,000 of 1,000,000 and 50,000 a month exempt; 4,000 residual at 85 %.
test("Singapore: two decimals, all of it up to 40,000 a month and 5 %", () => {
  const settings = { ...GB, yearEnds: "3" };
  expect(owed("sg", "GST", [[850_000, 150_000, 9_000, 1_200, 4_000]], settings)).toEqual([600]);
  expect(owed("sg", "GST", [[2_280_000, 120_000, 9_000, 1_200, 4_000]], settings)).toEqual([-1_200]);
  expect(owed("sg", "GST", [[700_000, 300_000, 0, 0, 1]], settings)).toEqual([0.3]);
});

// za.md 7.1: 60,000 claimed at 82 %, final 79.40 %: field 12 takes 1,560 back. BGR 16: from 95 % all.
test("South Africa: by the year before, the difference to fields 12 and 18", () => {
  const settings = { yearEnds: "12", rate: "year-before", percent: "82", adjusted: "next" };
  const year: Figures[] = [1, 2, 3, 4].map(() => [794, 206, 0, 0, 15_000]);
  const results = sharedBy("za", "VAT", [...year, [950, 50, 0, 0, 100]], settings);
  expect(results.map((one) => one.owed / 100)).toEqual([2_700, 2_700, 2_700, 2_700, 1_560 + 20.6]);
  expect(at(results, 4).steps.find(({ id }) => id.startsWith("year"))).toMatchObject({
    box: "12",
    amount: 1_560_00,
  });
  expect(owed("za", "VAT", [[950, 50, 0, 0, 100]], { ...settings, percent: "", rate: "period" })).toEqual([
    0,
  ]);
});

// ae.md 7.5 and example 8: 36,000 and 9,250 attributed, 79.558 is 80 %, of 12,480 stay 2,496.
test("the Emirates: by input tax, to the nearest percent", () => {
  expect(owed("ae", "VAT", [[0, 0, 36_000, 9_250, 12_480]], { ...GB, yearEnds: "12" })).toEqual([2_496]);
});

// ie.md 7.9: 8,400 estimated at 70 %, in fact 412,500 of 550,000.
test("Ireland: an estimate in the year, reviewed after it", () => {
  const settings = { yearEnds: "12", rate: "year-before", percent: "70", adjusted: "next" };
  const year: Figures[] = [1, 2, 3, 4].map(() => [412_500, 137_500, 0, 0, 2_100]);
  expect(owed("ie", "VAT", [...year, [1, 0, 0, 0, 0]], settings)).toEqual([630, 630, 630, 630, -420]);
});

test("what the year deducts is what its returns and its adjustment deduct, whatever the quarters look like", () => {
  const quarter = fc.tuple(...Array.from({ length: 5 }, () => fc.nat(50_000)));
  fc.assert(
    fc.property(fc.array(quarter, { minLength: 4, maxLength: 4 }), (quarters) => {
      const nothing: Figures = [0, 0, 0, 0, 0];
      const all = [...(quarters as Figures[]), nothing];
      const settings = { yearEnds: "12", rate: "period", percent: "", adjusted: "next" };
      const sum = owed("gb", "VAT", all, settings).reduce((total, one) => total + Math.round(one * 100), 0);
      const last = sharedBy("gb", "VAT", all, { ...settings, adjusted: "last" }).map((one) => one.owed);
      expect(last.reduce((total, one) => total + one, 0)).toBe(sum);
    }),
  );
});

test("a mixed-use year in the books: boxes, cost to its account, workpaper, round trip", async () => {
  const books = await periodBooks(server, british());
  const settings = { yearEnds: "3", rate: "period", percent: "", adjusted: "next" };
  const schemes = [{ scheme: "gb-partial-exemption", from: "2026-01-01", to: null, settings }];
  const joined = await books.change({ schemes });
  expect(joined.status, JSON.stringify(joined.body)).toBe(200);
  await books.post(["sales-invoice", "S20", "80000.00"], "2026-02-03");
  await books.post(["sales-invoice", "EX", "13000.00"], "2026-02-03");
  await books.post(["sales-invoice", "SA20", "9000.00"], "2026-02-03"); // an asset, left out
  await books.post(["purchase-bill", "S20", "25000.00"], "2026-02-04");
  await books.post(["purchase-bill", "S20E", "15000.00"], "2026-02-04");
  await books.post(["purchase-bill", "S20M", "50000.00"], "2026-02-04");
  const END = "2026-03-31";
  // 80,000 of 93,000: 87 %. 5,000 + 8,700 of 10,000.
  expect(await books.boxes(END)).toMatchObject({
    "1": "17800",
    "4": "13700",
    "5": "4100",
    "6": "102000",
    "7": "90000",
  });
  const [paper] = await server.ok<SchemeView[]>("GET", `${books.registration}/returns/${END}/schemes`);
  expect(paper).toMatchObject({ owed: 1_300_00, gain: 1_300_00 });
  const points = [{ from: "2026-01-01", to: END, value: 13_98 }];
  expect(paper?.course).toEqual({ title: "Share of exempt supplies", unit: "percent", points });
  await books.seal(END);
  await books.settle(END);
  expect(await books.left(END)).toBe(0);
  // The tax year to March was this quarter alone: nothing to adjust in June.
  await books.post(["purchase-bill", "S20M", "100.00"], "2026-05-04");
  expect(await books.boxes("2026-06-30")).toMatchObject({ "4": "20" });
  await books.expectSameAfterBookFile();
});

// in.md E7: C2 32,000 of one head, exempt 6,00,000 of 24,00,000, some private: D1 8,000, D2 1,600.
test("India: common credit is reversed head by head", async () => {
  const books = await periodBooks(server, {
    pack: "in",
    country: "IN",
    region: "27",
    frequency: "monthly",
    anchor: "2026-01-31",
    number: "27AAPFU0939F1ZV", // the example of the portal's own help
  });
  const settings = { yearEnds: "3", rate: "period", percent: "", adjusted: "next", private: "yes" };
  const schemes = [{ scheme: "in-common-credit", from: "2026-04-01", to: null, settings }];
  expect((await books.change({ schemes })).status).toBe(200);
  await books.post(["sales-invoice", "S18", "1800000.00"], "2026-04-03");
  await books.post(["sales-invoice", "EX", "600000.00"], "2026-04-03");
  await books.post(["purchase-bill", "PM18", "355555.56"], "2026-04-04"); // 32,000.00 a head
  expect(await books.boxes("2026-04-30")).toMatchObject({
    "4A5.cgst": "32000",
    "4A5.sgst": "32000",
    "4B1.cgst": "9600",
    "4B1.sgst": "9600",
    "4C.cgst": "22400",
  });
});
