import { describe, expect, test } from "vitest";
import { Packs } from "@fiscalon/core/model/packs";
import { SHIPPED } from "@fiscalon/core/packs/shipped";
import type { RegistrationRecord } from "../dist/db/models.js";
import { dueDates, furtherDays } from "../dist/books/returns/dueDates.js";

const packs = new Packs(SHIPPED);

type Rhythm = [pack: string, frequency: string, anchor: string];
type Case = [
  rhythm: Rhythm,
  end: string,
  due: string,
  payBy: string,
  why: string,
  more?: Partial<Record<"levies" | "options" | "region", unknown>>,
];

const GB: Rhythm = ["gb", "quarterly", "2026-03-31"];
const IE: Rhythm = ["ie", "two-monthly", "2026-02-28"];
const CA: Rhythm = ["ca", "quarterly", "2026-03-31"];
const AU: Rhythm = ["au", "quarterly", "2026-03-31"];
const NZ: Rhythm = ["nz", "two-monthly", "2026-01-31"];
const SG: Rhythm = ["sg", "quarterly", "2026-03-31"];
const IN: Rhythm = ["in", "quarterly", "2026-03-31"];
const AE: Rhythm = ["ae", "quarterly", "2026-03-31"];
const ZA: Rhythm = ["za", "two-monthly", "2026-01-31"];
const DE: Rhythm = ["eu-de", "quarterly", "2026-03-31"];
const CA_YEAR: Rhythm = ["ca", "annual", "2026-12-31"];
const INDIVIDUAL = { person: "individual" };
const monthly = (pack: string): Rhythm => [pack, "monthly", "2026-01-31"];

/** Days as the calendar of 2026 and early 2027 gives them; the rules from memory of the law named at each. */
const CASES: Case[] = [
  [GB, "2026-03-31", "2026-05-07", "2026-05-07", "a month and seven days, SI 1995/2518 reg. 25"],
  [
    GB,
    "2026-09-30",
    "2026-11-07",
    "2026-11-06",
    "a Saturday: the return stays, the money comes the day before",
  ],
  [GB, "2025-12-31", "2026-02-07", "2026-02-06", "a Saturday again"],
  [IE, "2026-06-30", "2026-07-23", "2026-07-23", "the 23rd through the online service, VATCA 2010 s. 76"],
  [CA, "2026-03-31", "2026-04-30", "2026-04-30", "a month, Excise Tax Act s. 238"],
  [CA, "2026-12-31", "2027-02-01", "2027-02-01", "a Sunday becomes Monday"],
  [["ca", "annual", "2026-12-31"], "2026-12-31", "2027-03-31", "2027-03-31", "three months for a year"],
  [AU, "2026-03-31", "2026-04-28", "2026-04-28", "the 28th of the next month, TAA"],
  [
    AU,
    "2025-12-31",
    "2026-03-03",
    "2026-03-03",
    "28 February is a Saturday; Monday is Labour Day in one state",
  ],
  [monthly("au"), "2026-05-31", "2026-06-22", "2026-06-22", "the 21st is a Sunday"],
  [NZ, "2026-03-31", "2026-05-07", "2026-05-07", "7 May for the end of March, GST Act s. 16"],
  [NZ, "2026-11-30", "2027-01-15", "2027-01-15", "15 January for the end of November"],
  [NZ, "2026-05-31", "2026-06-29", "2026-06-29", "the 28th is a Sunday"],
  [SG, "2026-06-30", "2026-07-31", "2026-07-31", "the end of the next month, not its 30th day"],
  [monthly("in"), "2026-07-31", "2026-08-20", "2026-08-20", "the 20th, CGST rule 61"],
  [IN, "2026-06-30", "2026-07-22", "2026-07-22", "the 22nd for a state of the first group", { region: "29" }],
  [
    IN,
    "2026-06-30",
    "2026-07-24",
    "2026-07-24",
    "the 24th for one of the second, also before the number is known",
    { region: "07" },
  ],
  [AE, "2026-03-31", "2026-04-28", "2026-04-28", "28 days, Executive Regulation art. 64"],
  [ZA, "2026-07-31", "2026-08-31", "2026-08-31", "the last business day online, VAT Act s. 28"],
  [DE, "2026-03-31", "2026-04-10", "2026-04-10", "ten days, UStG § 18"],
  [DE, "2026-09-30", "2026-10-12", "2026-10-12", "a Saturday, AO § 108"],
  [
    DE,
    "2026-03-31",
    "2026-05-11",
    "2026-05-11",
    "a month more, and then a Sunday",
    { options: { extension: "yes" } },
  ],
  ...(
    [
      [
        GB,
        "2026-09-30",
        "2026-10-31",
        "2026-10-30",
        "payments on account: no seven days more",
        { payments: "on-account" },
      ],
      [IE, "2026-06-30", "2026-07-19", "2026-07-19", "not both online: the 19th", { filing: "paper" }],
      [
        CA_YEAR,
        "2024-12-31",
        "2025-06-16",
        "2025-04-30",
        "an individual: 15 June is a Sunday, ETA 238(1)(a)(ii)",
        INDIVIDUAL,
      ],
      [
        CA_YEAR,
        "2025-12-31",
        "2026-06-15",
        "2026-04-30",
        "an individual files in June and pays in April",
        INDIVIDUAL,
      ],
      [
        ["ca", "monthly", "2026-01-31"],
        "2026-05-31",
        "2026-06-30",
        "2026-06-30",
        "by months nothing changes",
        INDIVIDUAL,
      ],
      [AU, "2026-03-31", "2026-05-12", "2026-05-12", "online two weeks more", { lodgment: "online" }],
      [AU, "2026-06-30", "2026-08-25", "2026-08-25", "by an agent four weeks more", { lodgment: "agent" }],
      [
        AU,
        "2025-12-31",
        "2026-03-03",
        "2026-03-03",
        "the December quarter has its month already",
        { lodgment: "agent" },
      ],
      [
        ["au", "annual", "2026-06-30"],
        "2026-06-30",
        "2027-03-02",
        "2027-03-02",
        "no income tax return: 28 February, a Sunday, and a holiday in one state",
        {},
      ],
      [
        ["au", "annual", "2026-06-30"],
        "2026-06-30",
        "2026-11-02",
        "2026-11-02",
        "with the income tax return: 31 October, a Saturday",
        { incomeTaxDay: "31-october" },
      ],
      [
        ["eu-de", "annual", "2026-12-31"],
        "2025-12-31",
        "2026-07-31",
        "2026-07-31",
        "the annual return, AO § 149(2)",
        {},
      ],
      [
        ["eu-de", "annual", "2026-12-31"],
        "2025-12-31",
        "2027-03-01",
        "2027-03-01",
        "by an adviser: 28 February is a Sunday",
        { adviser: "yes" },
      ],
      [
        ["eu-de", "annual", "2026-12-31"],
        "2024-12-31",
        "2026-04-30",
        "2026-04-30",
        "a longer term for 2024",
        { adviser: "yes" },
      ],
      [ZA, "2026-07-31", "2026-08-25", "2026-08-25", "on paper the 25th", { filing: "paper" }],
      [
        ZA,
        "2026-09-30",
        "2026-10-23",
        "2026-10-23",
        "on paper: the 25th is a Sunday, the Friday before",
        { filing: "paper" },
      ],
    ] as [Rhythm, string, string, string, string, Record<string, string>][]
  ).map(([rhythm, end, due, payBy, why, options]): Case => [rhythm, end, due, payBy, why, { options }]),
  [monthly("us"), "2026-07-31", "2026-08-20", "2026-08-20", "Texas: the 20th", { levies: ["SALES:TX"] }],
  [
    monthly("us"),
    "2026-08-31",
    "2026-09-21",
    "2026-09-21",
    "Texas: a Sunday becomes Monday",
    { levies: ["SALES:TX"] },
  ],
  [
    ["us", "six-monthly", "2026-06-30"],
    "2026-12-31",
    "2027-02-22",
    "2027-02-22",
    "Pennsylvania: 20 February, a Saturday",
    { levies: ["SALES:PA"] },
  ],
  [
    ["us", "quarterly", "2026-03-31"],
    "2026-09-30",
    "2026-11-02",
    "2026-11-02",
    "California: the last day of October is a Saturday",
    { levies: ["SALES:CA", "SALES:CA-COUNTY", "SALES:CA-LOCAL"] },
  ],
  [
    ["us", "quarterly", "2026-02-28"],
    "2026-02-28",
    "2026-03-20",
    "2026-03-20",
    "New York: the 20th",
    { levies: ["SALES:NY"] },
  ],
];

const dueOf = (rhythm: Rhythm, end: string, more: object = {}) =>
  dueDates({ packs }, registrationOf(rhythm, more), end);

function registrationOf([pack, frequency, anchor]: Rhythm, more: object): RegistrationRecord {
  const { defaultLevies, levies } = packs.byId(pack);
  return {
    pack,
    levies: defaultLevies ?? levies.map(({ levy }) => levy),
    options: {},
    region: null,
    validFrom: "2020-01-01",
    validTo: null,
    frequency,
    anchor,
    changes: [],
    ...more,
  } as unknown as RegistrationRecord;
}

describe("when a return is due, and its money", () => {
  test.each(CASES)("%j to %s: %s, paid by %s: %s", (rhythm, end, due, payBy, _why, more) => {
    expect(dueOf(rhythm, end, more)).toEqual({ due, payBy });
  });

  test("always after the period, never on a weekend where the law moves it, the money never after the return", () => {
    const moved = new Set([CA, AU, NZ, DE]);
    for (const rhythm of [GB, IE, CA, AU, NZ, SG, AE, ZA, DE])
      for (let month = 1; month <= 24; month += 1) {
        const last = new Date(Date.UTC(2026, month, 0)).toISOString().slice(0, 10);
        const { due, payBy } = dueOf(rhythm, last);
        expect(due > last, `${rhythm[0]} ${last}`).toBe(true);
        expect(payBy <= due, `${rhythm[0]} ${last}`).toBe(true);
        const weekday = new Date(due).getUTCDay();
        if (moved.has(rhythm)) expect([0, 6], `${rhythm[0]} ${last} ${due}`).not.toContain(weekday);
      }
  });
});

// N 83/2020-CT, CGST Rules R.59(2) and R.61(3), from memory: a quarterly filer furnishes and deposits by the month.
test("what is due in India beside the return, by rhythm; nothing under composition", () => {
  const days = (rhythm: Rhythm, end: string, options: object = {}) =>
    furtherDays({ packs }, registrationOf(rhythm, { options }), end).map(({ name, due }) => [due, name]);
  expect(days(monthly("in"), "2026-08-31")).toEqual([["2026-09-11", "GSTR-1"]]);
  expect(days(IN, "2026-09-30")).toEqual([
    ["2026-08-13", "Invoices of the first month (IFF)"],
    ["2026-08-25", "Deposit of the first month (PMT-06)"],
    ["2026-09-13", "Invoices of the second month (IFF)"],
    ["2026-09-25", "Deposit of the second month (PMT-06)"],
    ["2026-10-13", "GSTR-1"],
  ]);
  expect(days(IN, "2026-09-30", { composition: "trader" })).toEqual([]);
  expect(days(GB, "2026-09-30")).toEqual([]);
});
