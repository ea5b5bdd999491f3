import { describe, expect, test } from "vitest";
import { localTime, tradingDay } from "@fiscalon/core/calendar/tradingDay";
import { summaryOfDay } from "@fiscalon/core/incoming/terminalDay";
import type { TerminalMapping, TerminalTransaction } from "@fiscalon/core/incoming/terminalDay";

/** Zone rules: IANA time zone database; the clocks of Europe/London changed on 29 March and 25 October 2026. */
describe("the trading day of a moment", () => {
  test.each([
    ["2026-07-04T01:30:00Z", "Europe/London", "04:00", "2026-07-03"],
    ["2026-07-04T03:00:00Z", "Europe/London", "04:00", "2026-07-04"],
    ["2026-07-04T02:59:59Z", "Europe/London", "04:00", "2026-07-03"],
    // The night of 25 hours: 00:30 UTC is 01:30 the first time, 01:30 UTC is 01:30 again.
    ["2026-10-25T00:30:00Z", "Europe/London", "01:45", "2026-10-24"],
    ["2026-10-25T01:30:00Z", "Europe/London", "01:45", "2026-10-24"],
    ["2026-10-25T01:45:00Z", "Europe/London", "01:45", "2026-10-25"],
    // The night of 23 hours: 00:59 UTC is 00:59, 01:00 UTC is 02:00.
    ["2026-03-29T00:59:00Z", "Europe/London", "01:30", "2026-03-28"],
    ["2026-03-29T01:00:00Z", "Europe/London", "01:30", "2026-03-29"],
    ["2026-01-01T10:59:00Z", "Pacific/Auckland", "00:00", "2026-01-01"],
    ["2026-01-01T11:00:00Z", "Pacific/Auckland", "00:00", "2026-01-02"],
    ["2026-01-01T07:59:00Z", "America/Vancouver", "00:00", "2025-12-31"],
  ])("%s in %s, cut off at %s, is %s", (instant, zone, cutOff, day) => {
    expect(tradingDay(instant, zone, cutOff)).toBe(day);
  });
  test("midnight is hour 0 of the new day", () => {
    expect(localTime("2026-06-30T23:00:00Z", "Europe/London")).toEqual({ date: "2026-07-01", time: "00:00" });
  });
});

const mapping: TerminalMapping = {
  taxes: { VAT: { code: "S20", account: "4000" } },
  surcharge: { code: "S20", account: "4000" },
  tip: { code: "OS", account: "4900" },
  fee: { code: "EX", account: "6800" },
  bank: "1000",
};
const sold = (more: Partial<TerminalTransaction>): TerminalTransaction => ({
  id: "1",
  at: "2026-07-03T12:00:00Z",
  kind: "sale",
  gross: 1_000,
  items: [{ name: "Bowl", amount: 1_000, tax: "VAT" }],
  surcharge: 0,
  tip: 0,
  fee: 17,
  ...more,
});

describe("a day of a terminal", () => {
  test("a surcharge is a sale line, a tip its own, a refund apart", () => {
    const day = [
      sold({ gross: 1_065, surcharge: 15, tip: 50 }),
      sold({ id: "2" }),
      sold({ id: "3", kind: "refund", gross: -400, items: [{ name: "Bowl", amount: -400, tax: "VAT" }] }),
    ];
    const lines = summaryOfDay("2026-07-03", "T1", day, mapping, 2)?.lines.map(({ text, amount, code }) => [
      text,
      amount,
      code,
    ]);
    expect(lines).toEqual([
      ["Card takings, VAT", "20.00", "S20"],
      ["Card surcharge", "0.15", "S20"],
      ["Tips", "0.50", "OS"],
      ["Card takings, VAT, refunded", "-4.00", "S20"],
    ]);
  });
  test("what does not add up, or has no code, stops the day", () => {
    expect(() => summaryOfDay("2026-07-03", "T1", [sold({ gross: 999 })], mapping, 2)).toThrow(
      /does not add up/,
    );
    const strange = sold({ items: [{ name: "Bowl", amount: 1_000, tax: "MwSt" }] });
    expect(() => summaryOfDay("2026-07-03", "T1", [strange], mapping, 2)).toThrow(/“MwSt”/);
  });
});
