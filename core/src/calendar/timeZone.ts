import { Temporal } from "temporal-polyfill";
import type { CalendarDate } from "./date.ts";

/** A country with one clock, or with one by region; `""` is where most of it lives. */
type Clocks = string | Readonly<Record<string, string>>;

/**
 * The clocks of countries by their codes, and of their regions where these keep several. Source: the zones of the IANA
 * time zone database, from memory; of regions with two clocks that of their largest city.
 */
const CLOCKS: Readonly<Record<string, Clocks>> = {
  AE: "Asia/Dubai",
  AT: "Europe/Vienna",
  AU: {
    "": "Australia/Sydney",
    NT: "Australia/Darwin",
    QLD: "Australia/Brisbane",
    SA: "Australia/Adelaide",
    TAS: "Australia/Hobart",
    VIC: "Australia/Melbourne",
    WA: "Australia/Perth",
  },
  BE: "Europe/Brussels",
  BG: "Europe/Sofia",
  CA: {
    "": "America/Toronto",
    AB: "America/Edmonton",
    BC: "America/Vancouver",
    MB: "America/Winnipeg",
    NB: "America/Moncton",
    NL: "America/St_Johns",
    NS: "America/Halifax",
    NT: "America/Yellowknife",
    NU: "America/Iqaluit",
    PE: "America/Halifax",
    SK: "America/Regina",
    YT: "America/Whitehorse",
  },
  CH: "Europe/Zurich",
  CY: "Asia/Nicosia",
  CZ: "Europe/Prague",
  DE: "Europe/Berlin",
  DK: "Europe/Copenhagen",
  EE: "Europe/Tallinn",
  ES: { "": "Europe/Madrid", CN: "Atlantic/Canary" },
  FI: "Europe/Helsinki",
  FR: "Europe/Paris",
  GB: "Europe/London",
  GR: "Europe/Athens",
  HK: "Asia/Hong_Kong",
  HR: "Europe/Zagreb",
  HU: "Europe/Budapest",
  IE: "Europe/Dublin",
  IN: "Asia/Kolkata",
  IT: "Europe/Rome",
  JP: "Asia/Tokyo",
  LT: "Europe/Vilnius",
  LU: "Europe/Luxembourg",
  LV: "Europe/Riga",
  MT: "Europe/Malta",
  MY: "Asia/Kuala_Lumpur",
  NL: "Europe/Amsterdam",
  NO: "Europe/Oslo",
  NZ: "Pacific/Auckland",
  PH: "Asia/Manila",
  PL: "Europe/Warsaw",
  PT: { "": "Europe/Lisbon", "20": "Atlantic/Azores", "30": "Atlantic/Madeira" },
  RO: "Europe/Bucharest",
  SE: "Europe/Stockholm",
  SG: "Asia/Singapore",
  SI: "Europe/Ljubljana",
  SK: "Europe/Bratislava",
  US: {
    "": "America/New_York",
    AK: "America/Anchorage",
    AL: "America/Chicago",
    AR: "America/Chicago",
    AZ: "America/Phoenix",
    CA: "America/Los_Angeles",
    CO: "America/Denver",
    HI: "Pacific/Honolulu",
    IA: "America/Chicago",
    ID: "America/Boise",
    IL: "America/Chicago",
    KS: "America/Chicago",
    LA: "America/Chicago",
    MN: "America/Chicago",
    MO: "America/Chicago",
    MS: "America/Chicago",
    MT: "America/Denver",
    ND: "America/Chicago",
    NE: "America/Chicago",
    NM: "America/Denver",
    NV: "America/Los_Angeles",
    OK: "America/Chicago",
    OR: "America/Los_Angeles",
    SD: "America/Chicago",
    TN: "America/Chicago",
    TX: "America/Chicago",
    UT: "America/Denver",
    WA: "America/Los_Angeles",
    WI: "America/Chicago",
    WY: "America/Denver",
  },
  ZA: "Africa/Johannesburg",
};

/** The clock at sea: where nobody said which one it is. */
const UNKNOWN = "UTC";

/** The IANA name of the time zone a place keeps; `UTC` for a country that is not known here. */
export function timeZoneOf(country: string, region: string | null): string {
  const clocks = CLOCKS[country] ?? UNKNOWN;
  if (typeof clocks === "string") return clocks;
  return clocks[region ?? ""] ?? clocks[""] ?? UNKNOWN;
}

/** The day it is in a time zone at a moment (ISO 8601 with its offset, as `2026-03-31T23:30:00.000Z`). */
export function dayIn(zone: string, moment: string): CalendarDate {
  if (zone === UNKNOWN && moment.endsWith("Z")) return moment.slice(0, 10);
  return Temporal.Instant.from(moment).toZonedDateTimeISO(zone).toPlainDate().toString();
}
