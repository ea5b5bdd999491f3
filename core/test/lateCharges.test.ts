import { expect, test } from "vitest";
import { found } from "@fiscalon/core/at";
import { SHIPPED } from "@fiscalon/core/packs/shipped";
import { lateCharges } from "@fiscalon/core/returns/lateCharges";
import type { LateReturn } from "@fiscalon/core/returns/lateCharges";

/** What a country charges, by id, in major units. */
function charged(pack: string, late: Partial<LateReturn> & Pick<LateReturn, "due" | "today">) {
  const { late: rules = [], schedules } = found(SHIPPED, ({ id }) => id === pack, pack);
  const one: LateReturn = { payBy: late.due, filed: null, owed: { "": 0 }, payments: [], ...late };
  return Object.fromEntries(
    lateCharges(rules, { schedules, digits: 2 }, () => one).map(({ rule, amount }) => [
      rule.id,
      amount / 100,
    ]),
  );
}
const owed = (amount: number) => ({ "": amount * 100 });

// E13 of in.md: due on 20 November, filed on 5 December; R.88B, N 19/2021-CT.
test("India: 18 % a year on cash, head by head to the rupee, and the fee by the day", () => {
  const heads = { IGST: 45_600_00, CGST: 22_300_00, SGST: 22_300_00 };
  const late = { due: "2025-11-20", today: "2025-12-05", owed: heads };
  expect(charged("in", late)).toEqual({ interest: 337 + 165 + 165, fee: 750 * 3 });
  // The fee is reckoned once where it is told apart by no head.
  expect(charged("in", { ...late, owed: owed(90_200) })["fee"]).toBe(750);
  expect(charged("in", { ...late, owed: owed(0) })).toEqual({ fee: 300 });
  expect(charged("in", { ...late, today: "2025-11-20" })).toEqual({});
});

// W15 of ca.md: 8,000.00 owing, three full months; ETA 280.1. None on a refund.
test("Canada: one percent, and a quarter of one for each full month, twelve at most", () => {
  const sum = (today: string, amount = 8_000) =>
    Object.values(charged("ca", { due: "2026-01-31", today, owed: owed(amount) })).reduce((a, b) => a + b, 0);
  expect(sum("2026-05-15")).toBe(140);
  expect(sum("2026-02-01")).toBe(80);
  expect(sum("2028-01-31")).toBe(320);
  expect(sum("2026-05-15", -8_000)).toBe(0);
});

// HMRC guidance on late payment penalties, from memory: nothing to day 15; then on the balance at day 15 and at day 30.
test("Britain: penalties of day 15 and 30 and by the day from day 31; interest by its rates of each day", () => {
  const due = "2025-08-07";
  const late = (today: string, payments: LateReturn["payments"] = []) =>
    charged("gb", { due, today, owed: owed(10_000), payments });
  expect(Object.keys(late("2025-08-22"))).toEqual(["interest"]);
  expect(late("2025-08-23")).toMatchObject({ "day-15": 300 });
  expect(late("2025-09-07", [{ date: "2025-08-20", amount: 4_000_00 }])).toMatchObject({
    "day-15": 180,
    "day-30": 180,
  });
  // 31 August to 6 September are days 24 to 30; day 31 is the 7th, and bears 10 % a year: 10 days by the 16th.
  expect(late("2025-09-16")["second"]).toBe(27.4);
  // 8.25 % for 19 days to 26 August, 8 % for 21 days from then on.
  expect(late("2025-09-16")["interest"]).toBe(Math.round((10_000 * (8.25 * 19 + 8 * 21)) / 365) / 100);
  // Paid: interest stops with the day of payment, and nothing else is due.
  expect(late("2026-09-16", [{ date: "2025-08-12", amount: 10_000_00 }])).toEqual({ interest: 11.3 });
});

// AO § 240 (1): taken down to 50, for each month begun; common example of 1,234.56 and 35 days, no source.
test("Germany: one percent for each month begun, of the amount taken down to fifty", () => {
  expect(charged("eu-de", { due: "2026-02-10", today: "2026-03-17", owed: owed(1_234.56) })).toEqual({
    surcharge: 24,
  });
  expect(charged("eu-de", { due: "2026-02-10", today: "2026-02-11", owed: owed(49) })).toEqual({});
});

// The sheets of za, sg, nz, ie and ae; the laws named in the packs.
test("shares at once, on a day, by the month and by the day", () => {
  const late = { due: "2026-03-31", today: "2026-07-01", owed: owed(2_000) };
  expect(charged("za", late)).toEqual({ penalty: 200 });
  // 5 %; 60 days end on 30 May, a month later is full on 30 June; the fee begins its fourth month.
  expect(charged("sg", late)).toEqual({ filing: 800, payment: 100, "payment-months": 40 });
  expect(charged("nz", late)).toEqual({ filing: 250, "day-1": 20, "day-7": 80 });
  expect(charged("ie", { ...late, today: "2026-04-10" })).toEqual({ interest: 5.48 });
  expect(charged("ae", { ...late, today: "2026-05-02" })).toEqual({
    filing: 1_000,
    payment: 40,
    "payment-months": 80,
  });
  expect(charged("au", { ...late, today: "2026-04-29" })).toEqual({ failure: 660 });
});
