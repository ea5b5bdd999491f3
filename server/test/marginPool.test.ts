import { afterAll, beforeAll, expect, test } from "vitest";
import fc from "fast-check";
import { at, found } from "@fiscalon/core/at";
import type { MarginPool } from "@fiscalon/core/model/scheme";
import { SHIPPED } from "@fiscalon/core/packs/shipped";
import { marginPool } from "@fiscalon/core/schemes/marginPool";
import type { PoolPeriod } from "@fiscalon/core/schemes/marginPool";
import { sharedByValue, taxInside } from "@fiscalon/core/schemes/stockBook";
import type { ReturnView } from "@fiscalon/contract/returns";
import type { SchemeView } from "@fiscalon/contract/schemeView";
import { british, periodBooks } from "./support/periods.ts";
import { startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const QUARTERS = ["03-31", "06-30", "09-30", "12-31"].map((end, index) => ({
  from: `2026-${String(index * 3 + 1).padStart(2, "0")}-01`,
  to: `2026-${end}`,
}));

/** The tax of each quarter of 2026 under a pool of a country. */
function taxes(
  pack: string,
  scheme: string,
  moved: readonly [sold: number, bought: number][],
  settings: Record<string, string> = {},
  to: string | null = null,
): number[] {
  const { schemes = [], schedules } = found(SHIPPED, ({ id }) => id === pack, pack);
  const rule = found(schemes, ({ id }) => id === scheme, scheme).rule as MarginPool;
  const periods = moved.map(([sold, bought], index): PoolPeriod => ({
    ...at(QUARTERS, index),
    sold,
    bought,
  }));
  const around = { periods, schedules, digits: 2, scheme: { scheme, from: "2026-01-01", to, settings } };
  return periods.map((period) => marginPool(rule, around, new Set([period.to])).owed);
}

// VAT Notice 718, section 14, the steps; figures of the fact sheet gb.md 7.5, from memory.
test("Britain: a sixth of the margin of the period, a loss carried, stock when it begins and ends", () => {
  const gb = (...rest: [moved: [number, number][], settings?: Record<string, string>, to?: string]) =>
    taxes("gb", "gb-global-accounting", ...rest);
  expect(gb([[600_00, 480_00]])).toEqual([20_00]);
  expect(
    gb([
      [300_00, 900_00],
      [900_00, 0],
    ]),
  ).toEqual([0, 50_00]);
  expect(gb([[900_00, 100_00]], { openingStock: "200.00" })).toEqual([100_00]);
  const leaving = { brought: "300.00", closingStock: "7500.00" };
  expect(gb([[5_400_00, 1_200_00]], leaving, "2026-03-31")).toEqual([1_900_00]);
  // Tax on the stock of up to 1,000 is left alone: 6,000 hold 1,000.
  expect(gb([[600_00, 0]], { closingStock: "6000.00" }, "2026-03-31")).toEqual([100_00]);
});

// VATCA 2010 s.87(8); ie.md 7.2: 4,800 − 5,100, then 6,200 − 4,670 − 300 at 23/123.
test("Ireland: 23/123 of what is left after the loss of before", () => {
  expect(
    taxes("ie", "ie-low-value-pool", [
      [4_800_00, 5_100_00],
      [6_200_00, 4_670_00],
    ]),
  ).toEqual([0, 230_00]);
});

test("a pool never taxes more than its pieces one by one, and carries all of its losses", () => {
  const pair = fc.tuple(fc.integer({ min: 0, max: 9_999_99 }), fc.integer({ min: 0, max: 9_999_99 }));
  fc.assert(
    fc.property(fc.array(pair, { minLength: 1, maxLength: 4 }), (moved) => {
      const owed = taxes("gb", "gb-global-accounting", moved).reduce((sum, tax) => sum + tax, 0);
      const single = moved.reduce((sum, [sold, bought]) => sum + taxInside(sold - bought, "20"), 0);
      const whole = taxInside(
        moved.reduce((sum, [sold, bought]) => sum + sold - bought, 0),
        "20",
      );
      expect(owed).toBeLessThanOrEqual(single);
      expect(owed).toBeGreaterThanOrEqual(whole - moved.length);
    }),
  );
});

// A set sold for what its parts would bring, each at a gain, has their margins together; of shares nothing is lost.
test("sets and lots: margins add up, prices are shared out to the last penny", () => {
  const parts = fc.array(fc.tuple(fc.nat(9_999_99), fc.nat(9_999_99)), { minLength: 1, maxLength: 6 });
  fc.assert(
    fc.property(parts, fc.nat(9_999_99), (pieces, price) => {
      const gains = pieces.map(([cost, gain]) => ({ cost, sold: cost + gain }));
      const margin = gains.reduce((sum, { cost, sold }) => sum + sold - cost, 0);
      const apart = gains.reduce((sum, { cost, sold }) => sum + taxInside(sold - cost, "20"), 0);
      expect(Math.abs(taxInside(margin, "20") - apart)).toBeLessThanOrEqual(pieces.length);
      const shares = sharedByValue(
        price,
        pieces.map(([worth]) => worth),
      );
      expect(shares.reduce((sum, share) => sum + share, 0)).toBe(price);
    }),
  );
});

test("two quarters in the books: boxes, workpaper, closing entry, and the same after a book file", async () => {
  const books = await periodBooks(server, british());
  const joined = await books.change({
    schemes: [
      { scheme: "gb-global-accounting", from: "2026-01-01", to: null, settings: { openingStock: "200.00" } },
    ],
  });
  expect(joined.status, JSON.stringify(joined.body)).toBe(200);
  await books.post(["sales-invoice", "GAS", "300.00"], "2026-02-03");
  await books.post(["purchase-bill", "GAP", "700.00"], "2026-02-04");
  await books.post(["sales-invoice", "GAS", "1800.00"], "2026-05-03");
  await books.post(["purchase-bill", "GAP", "420.00"], "2026-05-04");
  await books.post(["sales-invoice", "S20", "100.00"], "2026-05-05");
  expect(await books.boxes("2026-03-31")).toEqual({ "6": "300", "7": "700" });
  // 1,800 − 420 − 600 carried = 780, a sixth of it 130.
  expect(await books.boxes("2026-06-30")).toMatchObject({ "1": "150", "5": "150", "6": "1770", "7": "420" });
  const [paper] = await server.ok<SchemeView[]>("GET", `${books.registration}/returns/2026-06-30/schemes`);
  expect(paper).toMatchObject({ owed: 130_00, gain: 130_00, setAside: [] });
  expect(paper?.steps.map(({ id, amount }) => [id, amount])).toEqual([
    ["sold-2026-06-30", 1_800_00],
    ["bought-2026-06-30", 420_00],
    ["carried-2026-06-30", 600_00],
    ["margin-2026-06-30", 780_00],
    ["tax-2026-06-30", 130_00],
    ["less-2026-06-30", -130_00],
  ]);
  await books.post(
    ["purchase-bill", "GAP", "1200.00", { quantity: "2", unitPrice: "600.00", amount: undefined }],
    "2026-08-04",
  );
  await books.post(
    ["purchase-bill", "GAP", "1200.00", { quantity: "3", unitPrice: "400.00", amount: undefined }],
    "2026-08-05",
  );
  const { findings } = await server.ok<ReturnView>("GET", `${books.registration}/returns/2026-09-30`);
  expect(findings.map(({ check, text }) => [check, /600\.00 for a piece/.test(text)])).toContainEqual([
    "pool-limit",
    true,
  ]);
  expect(findings.filter(({ check }) => check === "pool-limit")).toHaveLength(1);
  for (const end of ["2026-03-31", "2026-06-30"]) {
    await books.seal(end);
    await books.settle(end);
    expect(await books.left(end)).toBe(0);
  }
  await books.expectSameAfterBookFile();
});

// UStG § 25a(4): what counts is the margin of the period; (2,380 − 1,190) × 19/119 = 190, Kz 81 holds 1,000.
test("Germany: the margin without its tax stands in Kz 81", async () => {
  const books = await periodBooks(server, {
    pack: "eu-de",
    country: "DE",
    frequency: "quarterly",
    anchor: "2026-03-31",
    number: "136695976", // the example of the check-digit rule
  });
  await books.post(["purchase-bill", "MPG", "100.00"], "2026-04-04");
  const second = () => server.ok<ReturnView>("GET", `${books.registration}/returns/2026-06-30`);
  expect((await second()).findings.map(({ check }) => check)).toContain("outside-scheme");
  const schemes = [{ scheme: "de-total-margin", from: "2026-01-01", to: null, settings: {} }];
  expect((await books.change({ schemes })).status).toBe(200);
  await books.post(["sales-invoice", "MP19", "2380.00"], "2026-02-03");
  await books.post(["purchase-bill", "MPG", "1190.00"], "2026-02-04");
  expect(await books.boxes("2026-03-31")).toMatchObject({ "81": "1000", "83": "190" });
  expect((await second()).findings).toEqual([]);
  await books.seal("2026-03-31");
  await books.settle("2026-03-31");
  expect(await books.left("2026-03-31")).toBe(0);
});
