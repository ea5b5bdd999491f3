import { afterAll, beforeAll, expect, test } from "vitest";
import { filingPeriods } from "@fiscalon/core/calendar/filingPeriods";
import { found } from "@fiscalon/core/at";
import { yearOnReturn } from "@fiscalon/core/returns/yearEnd";
import type { ReturnView } from "@fiscalon/contract/returns";
import { periodBooks } from "./support/periods.ts";
import { startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const ONTARIO = {
  pack: "ca",
  country: "CA",
  region: "ON",
  levies: ["GST", "HST"],
  number: "843162074RT0001", // invented, with its check digit
};
const quarterly = (options: Record<string, string>) =>
  periodBooks(server, { ...ONTARIO, frequency: "quarterly", anchor: "2026-03-31", options });
type Books = Awaited<ReturnType<typeof quarterly>>;

const view = ({ registration }: Books, end: string) =>
  server.ok<ReturnView>("GET", `${registration}/returns/${end}`);
const yearEnd = async (books: Books, end: string) =>
  (await view(books, end)).findings.filter(({ check }) => check === "year-end");
const meal = (books: Books, code: string, day: string) =>
  books.post(["purchase-bill", code, "84.00", { account: "6600" }], day);

// ETA 236(1): what was claimed in full is added to net tax, for the first reporting period after the fiscal year, or for
// the year where it is the reporting period. From memory of the law; 84.00 + HST 10.92 as in a restaurant of Toronto.
test("meals deducted in full: half of the year goes to line 104 of the first quarter after it", async () => {
  const books = await quarterly({ meals: "yearEnd", fiscalYear: "9" });
  await meal(books, "HON", "2026-05-12");
  await meal(books, "HON-M", "2026-06-12"); // half already
  await books.post(["purchase-bill", "HON", "84.00", { account: "6000" }], "2026-06-13"); // no meal
  await meal(books, "HON", "2026-10-02"); // of the next fiscal year
  expect(await books.boxes("2026-06-30")).toMatchObject({ "106": "27.30" }); // 10.92 + 5.46 + 10.92
  expect(await yearEnd(books, "2026-06-30")).toEqual([]);
  expect(await yearEnd(books, "2026-09-30")).toEqual([]);
  const finding = found(await yearEnd(books, "2026-12-31"), () => true, "of the year to September");
  expect(finding).toMatchObject({ adjust: { box: "104", amount: 546 } });

  await server.ok("POST", `${books.registration}/returns/2026-12-31/adjustments`, {
    box: "104",
    amount: "5.46",
    reason: finding.text,
    evidence: "",
  });
  expect(await yearEnd(books, "2026-12-31")).toEqual([]);
  expect(await books.boxes("2026-12-31")).toMatchObject({ "104": "5.46", "105": "5.46", "109": "-5.46" });
});

test("filed yearly: on the return of the year itself; who deducts half as bills arrive is asked nothing", async () => {
  const yearly = await periodBooks(server, {
    ...ONTARIO,
    frequency: "annual",
    anchor: "2026-12-31",
    options: { meals: "yearEnd" },
  });
  await meal(yearly, "HON", "2026-05-12");
  expect(await yearEnd(yearly, "2026-12-31")).toMatchObject([{ adjust: { box: "104", amount: 546 } }]);

  const asYouGo = await quarterly({ fiscalYear: "9" });
  await meal(asYouGo, "HON", "2026-05-12");
  expect(await yearEnd(asYouGo, "2026-12-31")).toEqual([]);
});

test("a year is found once, whatever month it ends in and however often returns are filed", () => {
  for (const [frequency, anchor] of [
    ["monthly", "2026-12-31"],
    ["quarterly", "2026-11-30"],
    ["annual", "2026-12-31"],
  ] as const)
    for (let month = 1; month <= 12; month += 1) {
      const rule = { frequency, anchor, from: "2024-05-15", to: null };
      const ends = filingPeriods(rule, "2024-05-15", "2030-12-31").flatMap(
        (period) => yearOnReturn(month, rule, period)?.to ?? [],
      );
      const years = new Set(ends.map((day) => day.slice(0, 4)));
      expect(ends).toHaveLength(years.size);
      expect(years.size).toBeGreaterThanOrEqual(5);
      expect(ends).toEqual([...ends].sort());
    }
  // The first return of who files for the year is of a part of it, and is the return of that year all the same.
  const first = { frequency: "annual", anchor: "2026-12-31", from: "2026-05-15", to: null } as const;
  expect(yearOnReturn(12, first, { from: "2026-05-15", to: "2026-12-31" })?.to).toBe("2026-12-31");
});
