import { expect, test } from "vitest";
import { isFar } from "@fiscalon/core/calendar/farDate";
import { dayIn, timeZoneOf } from "@fiscalon/core/calendar/timeZone";

// Offsets and changes of clocks as the IANA time zone database has them, from memory.
test.each([
  ["AU", "NSW", "2026-03-31T13:30:00.000Z", "2026-04-01"], // UTC+11 until the first Sunday of April
  ["AU", "QLD", "2026-03-31T13:30:00.000Z", "2026-03-31"], // UTC+10 all year
  ["AU", "WA", "2026-03-31T16:30:00.000Z", "2026-04-01"],
  ["NZ", null, "2026-03-31T11:30:00.000Z", "2026-04-01"], // UTC+13 in summer
  ["GB", null, "2026-06-30T23:30:00.000Z", "2026-07-01"], // summer time
  ["GB", null, "2026-12-31T23:30:00.000Z", "2026-12-31"],
  ["IN", "MH", "2026-03-31T18:29:59.000Z", "2026-03-31"], // UTC+5:30
  ["IN", "MH", "2026-03-31T18:30:00.000Z", "2026-04-01"],
  ["US", "CA", "2026-07-01T06:59:00.000Z", "2026-06-30"], // UTC-7 in summer
  ["US", "NY", "2026-07-01T06:59:00.000Z", "2026-07-01"],
  ["CA", "NL", "2026-01-01T03:29:00.000Z", "2025-12-31"], // UTC-3:30
  ["ZZ", null, "2026-03-31T23:59:00.000Z", "2026-03-31"],
])("in %s %s the day of %s is %s", (country, region, moment, day) => {
  expect(dayIn(timeZoneOf(country, region), moment)).toBe(day);
});

test.each([
  ["2006-11-30", false],
  ["2006-11-29", true],
  ["1900-01-01", true],
  ["2028-11-30", false],
  ["2028-12-01", true],
])("seen from 30 November 2026, %s is far: %s", (date, far) => {
  expect(isFar(date, "2026-11-30")).toBe(far);
});
