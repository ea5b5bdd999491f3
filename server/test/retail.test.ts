import { afterAll, beforeAll, expect, test } from "vitest";
import { at, found } from "@fiscalon/core/at";
import type { RetailTakings } from "@fiscalon/core/model/retailTakings";
import { schemesOf } from "@fiscalon/core/model/scheme";
import { gb } from "@fiscalon/core/packs/gb/pack";
import { retailTakings } from "@fiscalon/core/schemes/retailTakings";
import type { RetailPeriod } from "@fiscalon/core/schemes/retailTakings";
import type { SchemeView } from "@fiscalon/contract/schemeView";
import type { TrailStep } from "@fiscalon/contract/trail";
import type { TakingsBody, TakingsReading, TakingsSheet } from "@fiscalon/contract/takings";
import { british, periodBooks } from "./support/periods.ts";
import { expectRefusal } from "./support/refused.ts";
import { startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const Q1 = "2026-03-31";
const QUARTERS = ["03-31", "06-30", "09-30", "12-31"].map((end, index) => ({
  from: `2026-${String(index * 3 + 1).padStart(2, "0")}-01`,
  to: `2026-${end}`,
}));
const NONE = { takings: 0, atRate: [0, 0, 0], bought: [0, 0, 0], expected: [0, 0, 0] };

/** The tax of each quarter of 2026 by a method. */
function taxes(
  quarters: readonly Partial<RetailPeriod>[],
  settings: Record<string, string>,
  to: string | null = null,
): number[] {
  const rule = found(schemesOf(gb), ({ id }) => id === "gb-retail", "retail").rule as RetailTakings;
  const periods = quarters.map((quarter, index): RetailPeriod => ({
    ...at(QUARTERS, index),
    ...NONE,
    ...quarter,
  }));
  const scheme = { scheme: "gb-retail", from: "2026-01-01", to, settings };
  const around = { periods, scheme, schedules: gb.schedules, digits: 2 };
  return periods.map((period) => retailTakings(rule, around, new Set([period.to])).owed);
}

// VAT Notices 727/3 to 727/5; figures of gb.md, section 7.6.
test("direct calculation by the goods that are fewer, and apportionment by selling prices", () => {
  const zeroFewer = { method: "direct-1", minority: "zero" };
  expect(taxes([{ takings: 42_000_00, expected: [0, 0, 18_000_00] }], zeroFewer)).toEqual([4_000_00]);
  const standardFewer = { method: "direct-1", minority: "standard" };
  expect(taxes([{ takings: 42_000_00, expected: [6_000_00, 0, 0] }], standardFewer)).toEqual([1_000_00]);
  // Reduced goods are taken out first: 2,100.00 / 21, and (42,000 − 18,000 − 2,100) / 6.
  expect(taxes([{ takings: 42_000_00, expected: [0, 2_100_00, 18_000_00] }], zeroFewer)).toEqual([3_750_00]);
  const byPrices = { method: "apportionment-2" };
  expect(taxes([{ takings: 30_000_00, expected: [21_600_00, 0, 14_400_00] }], byPrices)).toEqual([3_000_00]);
  // With the stock it began with: 16,800 + 4,800 of 36,000 all the same; the fifth period looks back on four.
  const stocked = { ...byPrices, openingStandard: "4800.00", openingZero: "2400.00" };
  expect(taxes([{ takings: 30_000_00, expected: [16_800_00, 0, 12_000_00] }], stocked)).toEqual([3_000_00]);
});

// gb.md, section 7.6: each rate × its fraction; what was not told at the till bears the standard rate, so that nothing is lost.
test("at the point of sale each rate is taxed by itself, and what was not told at the standard rate", () => {
  const told = { atRate: [1_200_00, 210_00, 500_00] };
  expect(taxes([told, { ...told, takings: 60_00 }], { method: "point-of-sale" })).toEqual([210_00, 220_00]);
});

// Worked by hand from the steps of gb.md, section 7.6: VAT of the year by yearly totals less that of the periods.
test("the year of apportionment 1 and of direct calculation 2 is worked out as a whole in its last period", () => {
  const quarters = [
    { takings: 12_000_00, bought: [6_000_00, 0, 6_000_00] }, // 6,000 / 6
    { takings: 12_000_00, bought: [9_000_00, 0, 3_000_00] }, // 9,000 / 6
    { takings: 12_000_00, bought: [0, 0, 0] }, // nothing bought, so nothing is shared: the year puts it right
    { takings: 12_000_00, bought: [12_000_00, 0, 0] }, // 12,000 / 6
  ];
  // The year: 48,000 × 27,000 / 36,000 / 6 = 6,000.00, of which 4,500.00 is declared.
  expect(taxes(quarters, { method: "apportionment-1" })).toEqual([1_000_00, 1_500_00, 0, 3_500_00]);
  // Left after two quarters: 24,000 × 15,000 / 24,000 / 6 = 2,500.00, as declared.
  expect(taxes(quarters.slice(0, 2), { method: "apportionment-1" }, "2026-06-30")).toEqual([
    1_000_00, 1_500_00,
  ]);
  const direct = Array.from({ length: 4 }, () => ({ takings: 9_000_00, expected: [0, 0, 3_000_00] }));
  const stock = { method: "direct-2", minority: "zero", openingStock: "1200.00", closingStock: "3000.00" };
  // 6,000 / 6 a quarter; of the year 36,000 − (12,000 + 1,200 − 3,000) = 25,800, less 24,000: 300.00 more.
  expect(taxes(direct, stock)).toEqual([1_000_00, 1_000_00, 1_000_00, 1_300_00]);
});

test("a shop's quarter: takings of days, goods with their selling price, catering by rate; closed, agreed, taken along", async () => {
  const books = await periodBooks(server, british());
  const settings = { method: "direct-1", minority: "zero" };
  const joined = await books.change({
    schemes: [{ scheme: "gb-retail", from: "2026-01-01", to: null, settings }],
  });
  expect(joined.status).toBe(200);
  for (const day of ["2026-01-31", "2026-02-28", Q1]) await books.post(["cash-sale", "RT", "14000.00"], day);
  await books.post(["cash-sale", "RT20", "600.00"], "2026-03-05");
  const goods = { attributes: { sellingPrice: "18500.00" } };
  await books.post(["purchase-bill", "GE0", "12000.00", goods], "2026-01-15");
  await books.post(
    ["purchase-credit-note", "GE0", "300.00", { attributes: { sellingPrice: "500.00" } }],
    "2026-01-20",
  );
  await books.post(["purchase-bill", "S20", "500.00"], "2026-02-15");
  const boxes = await books.boxes(Q1);
  // 24,000 / 6 and 600 / 6; box 6 is takings less that.
  expect(boxes).toMatchObject({ "1": "4100", "4": "100", "6": "38500", "7": "12200" });
  const [paper] = await server.ok<SchemeView[]>("GET", `${books.registration}/returns/${Q1}/schemes`);
  expect(paper?.steps.filter(({ box }) => box === "1").map(({ arithmetic }) => arithmetic)).toEqual([
    "600.00 × 20 / (100 + 20) = 100.00",
    "(42,000.00 − 18,000.00) × 20 / (100 + 20) = 4,000.00",
  ]);
  const rid = books.registration.split("/").at(-1);
  const trail = async (id: string) =>
    (await server.ok<TrailStep>("GET", `${books.base}/trail?ref=scheme/${rid}/${Q1}/${id}`)).parts.map(
      ({ amount }) => amount,
    );
  expect((await trail(`expected-${Q1}-zero`)).sort()).toEqual([-500_00, 18_500_00]);
  await books.seal(Q1);
  await books.settle(Q1);
  expect(await books.left(Q1)).toBe(0);
  await books.expectSameAfterBookFile();
});

test("the takings sheet: typed and read from a file, a cash sale a day, corrected, emptied, and closed by a seal", async () => {
  const books = await periodBooks(server, british());
  const sheet = (from = "2026-02-01", to = "2026-02-03") =>
    server.ok<TakingsSheet>("GET", `${books.base}/takings?from=${from}&to=${to}`);
  const keep = (days: TakingsBody["days"]) =>
    server.call("PUT", `${books.base}/takings`, { account: "1000", days });
  const read = async (text: string) => {
    const form = new FormData();
    form.append("file", new Blob([text]), "takings.csv");
    const answer = await fetch(`${server.address}/api${books.base}/takings/read`, {
      method: "POST",
      body: form,
    });
    return { status: answer.status, body: (await answer.json()) as TakingsReading };
  };
  expectRefusal(await keep([{ date: "2026-02-01", amounts: { RT: "1" } }]), "takings/no-scheme", undefined);
  await books.change({
    schemes: [
      {
        scheme: "gb-retail",
        from: "2026-01-01",
        to: null,
        settings: { method: "direct-1", minority: "zero" },
      },
    ],
  });
  const file = await read('Date,Takings,RT20\n01/02/2026,"1,200.00",60\n2026-02-02,300,\n');
  expect(file.body.days).toEqual([
    { date: "2026-02-01", amounts: { RT: "1200.00", RT20: "60" } },
    { date: "2026-02-02", amounts: { RT: "300", RT20: "" } },
  ]);
  expect((await keep(file.body.days)).status).toBe(204);
  expect(await books.boxes(Q1)).toMatchObject({ "1": "260", "6": "1300" }); // 1,560.00 / 6
  await books.post(["cash-sale", "RT", "90.00"], "2026-02-02");
  // The one amount is corrected and the other stays; the next day is emptied.
  await keep([
    { date: "2026-02-01", amounts: { RT: "1260.00" } },
    { date: "2026-02-02", amounts: { RT: "" } },
  ]);
  const { days, account } = await sheet();
  expect(account).toBe("1000");
  expect(days.map(({ amounts, others, document }) => [amounts, others, document !== null])).toEqual([
    [{ RT: 1_260_00, RT20: 60_00 }, 0, true],
    [{}, 90_00, false],
    [{}, 0, false],
  ]);
  expect(await books.boxes(Q1)).toMatchObject({ "1": "235" }); // (1,260 + 90 + 60) / 6
  // A cell that somebody else changed meanwhile is told; the other one of its day is nobody's matter.
  const overtaken = await keep([
    { date: "2026-02-01", amounts: { RT: "1300.00" }, seen: { RT: 1_200_00, RT20: 60_00 } },
  ]);
  expectRefusal(overtaken, "takings/overtaken", "days[0].amounts.RT");
  await keep([{ date: "2026-02-01", amounts: { RT20: "60.00" }, seen: { RT: 1_200_00, RT20: 60_00 } }]);
  expect(await books.boxes(Q1)).toMatchObject({ "1": "235" });
  // All or none: the second day is wrong, so the first is not changed either.
  const half = await keep([
    { date: "2026-02-01", amounts: { RT: "1.00" } },
    { date: "2026-02-03", amounts: { S20: "1.00" } },
  ]);
  expectRefusal(half, "takings/code", "days[1].amounts");
  expect((await sheet()).days[0]?.amounts).toEqual({ RT: 1_260_00, RT20: 60_00 });
  for (const [text, code] of [
    ["Day,Other\n2026-02-01,5\n", "takings/columns"],
    ["Date,RT\n31/02/2026,5\n", "takings/csv"],
    ["Date,RT\n2026-02-01,5\n2026-02-01,6\n", "takings/csv"],
  ])
    expect((await read(text ?? "")).body).toMatchObject({ error: { code } });
  await books.seal(Q1);
  expectRefusal(await keep([{ date: "2026-02-01", amounts: { RT: "1.00" } }]), "document/sealed", undefined);
  expect((await sheet()).days[0]?.sealed).toBe(Q1);
  await books.expectSameAfterBookFile();
});
