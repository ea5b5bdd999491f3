import fc from "fast-check";
import { createRequire } from "node:module";
import { stdnum } from "stdnum";
import { describe, expect, test } from "vitest";
import { addDays } from "@fiscalon/core/calendar/date";
import { STANDARD_RATES } from "@fiscalon/core/packs/eu/standardRates";
import { checkUnionNumber } from "@fiscalon/core/packs/eu/vatNumber";
import { PACKS } from "./support/packs.ts";
import { rowInForce } from "@fiscalon/core/tax/rateInForce";
import type { RateRow } from "@fiscalon/core/model/taxCode";

interface KnownRate {
  rate: number;
  before?: Record<string, { rate: number }>;
  states?: Record<string, KnownRate>;
}
const library = createRequire(import.meta.url)("sales-tax/res/sales_tax_rates.json") as Record<
  string,
  KnownRate
>;
const TODAY = "2026-11-25";

const rows = (id: string): readonly RateRow[] => PACKS.byId(id.split(".")[0] ?? "").schedules[id] ?? [];
const rateOn = (schedule: readonly RateRow[], on: string) => Number(rowInForce(schedule, on)?.rate);
const hst = (region: string) => (on: string) => rateOn(rows(`ca.${region}`), on) - rateOn(rows("ca.GST"), on);

const PLACES: [place: string, known: KnownRate | undefined, ours: (on: string) => number][] = [
  ...[
    ["GB", "gb.STD"],
    ["IE", "ie.STD"],
    ["CA", "ca.GST"],
    ["AU", "au.GST"],
    ["NZ", "nz.STD"],
    ["SG", "sg.STD"],
    ["AE", "ae.STD"],
    ["ZA", "za.STD"],
    ["DE", "eu-de.STD"],
    ["IN", "in.I18"],
    ["PH", "ph.STD"],
  ].map(([country = "", id = ""]): (typeof PLACES)[number] => [
    country,
    library[country],
    (on) => rateOn(rows(id), on),
  ]),
  ...["ON", "NB", "NL", "NS", "PE"].map((region): (typeof PLACES)[number] => [
    `CA-${region}`,
    library["CA"]?.states?.[region],
    hst(region),
  ]),
  ...[
    ["CA-QC", "ca.QST"],
    ["CA-BC", "ca.BCPST"],
    ["CA-SK", "ca.SKPST"],
    ["CA-MB", "ca.MBRST"],
    ["US-TX", "us.TX"],
    ["US-FL", "us.FL"],
    ["US-NY", "us.NY"],
    ["US-TN", "us.TN"],
    ["US-IL", "us.IL"],
    ["US-PA", "us.PA"],
    ["US-GA", "us.GA"],
  ].map(([place = "", id = ""]): (typeof PLACES)[number] => [
    place,
    library[place.slice(0, 2)]?.states?.[place.slice(3)],
    (on) => rateOn(rows(id), on),
  ]),
  ...Object.entries(STANDARD_RATES).map(([country, schedule]): (typeof PLACES)[number] => [
    `EU ${country}`,
    library[country],
    (on) => rateOn(schedule, on),
  ]),
];

/**
 * The `sales-tax` library for every place and date it knows and a pack has. Its changes are moments in UTC, so the days
 * right at a change are left out. No difference is known; places it has without a pack are not compared.
 */
describe("rates agree with the sales-tax library", () => {
  test.each(PLACES)("%s", (_place, known, ours) => {
    expect(known).toBeDefined();
    expect(ours(TODAY)).toBeCloseTo(100 * (known?.rate ?? 0), 9);
    for (const [moment, { rate }] of Object.entries(known?.before ?? {})) {
      expect(ours(addDays(moment.slice(0, 10), -2))).toBeCloseTo(100 * rate, 9);
    }
  });
});

const digits = (length: number) =>
  fc.string({ unit: fc.constantFrom(..."0123456789"), minLength: length, maxLength: length });
const letters = (length: number) =>
  fc.string({ unit: fc.constantFrom(..."ABCDEFGHJKLMNPQRSTUVWXYZ"), minLength: length, maxLength: length });

/** The last digit tried with each value, so that valid numbers are among those compared. */
function compared(
  start: fc.Arbitrary<string>,
  ours: (number: string) => boolean,
  theirs: (number: string) => boolean | undefined,
  ends: readonly string[] = [..."0123456789"],
) {
  let valid = 0;
  fc.assert(
    fc.property(start, (text) => {
      for (const end of ends) {
        if (ours(text + end)) valid += 1;
        if (ours(text + end) !== (theirs(text + end) ?? false)) return false;
      }
      return true;
    }),
    { numRuns: 400 },
  );
  expect(valid).toBeGreaterThan(3);
}

describe("numbers agree with the stdnum library", () => {
  const own = (id: string) => (number: string) => PACKS.byId(id).checkNumber(number).ok;
  test("Australian business numbers", () => {
    compared(digits(10), own("au"), (number) => stdnum["AU"]?.["abn"]?.validate(number).isValid);
  });
  /** Numbers of inland revenue have eight or nine digits and start above 10 million (fact sheet NZ, section 9). */
  test("New Zealand numbers", () => {
    compared(
      digits(7).map((text) => `1${text.slice(1)}`),
      own("nz"),
      (number) => stdnum["NZ"]?.["ird"]?.validate(number).isValid,
    );
  });
  test("Canadian account numbers", () => {
    compared(
      digits(8),
      (number) => own("ca")(`${number}RT0001`),
      (number) => stdnum["CA"]?.["gst"]?.validate(`${number}RT0001`).isValid,
    );
  });
  test("Indian GSTIN: state, PAN, entity, check character", () => {
    const start = fc
      .tuple(
        fc.constantFrom("27", "29", "33", "07"),
        letters(3),
        letters(1),
        fc.oneof(digits(4), fc.constant("0000")),
        letters(1),
      )
      .map(([state, three, name, number, last]) => `${state}${three}P${name}${number}${last}1Z`);
    compared(start, own("in"), (number) => stdnum["IN"]?.["gstin"]?.validate(number).isValid, [
      ..."0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ",
    ]);
  });
  test("South African numbers", () => {
    compared(
      digits(8).map((text) => `4${text}`),
      own("za"),
      (number) => stdnum["ZA"]?.["vat"]?.validate(number).isValid,
    );
  });
  test("Irish and German numbers", () => {
    compared(digits(7), own("ie"), (number) => stdnum["IE"]?.["vat"]?.validate(number).isValid, [
      ..."ABCDEFGHIJKLMNOPQRSTUVW",
    ]);
    compared(digits(8), own("de"), (number) => stdnum["DE"]?.["vat"]?.validate(number).isValid);
  });
  /** Published samples of the Commission's and the members' own pages; from memory. */
  test.each([
    ["AT", "ATU13585627"],
    ["FR", "FR83404833048"],
    ["NL", "NL004495445B01"],
    ["GR", "EL094259216"],
  ])("a number of %s passes, and fails with a digit changed", (country, number) => {
    expect(checkUnionNumber(country, number).ok).toBe(true);
    const wrong = number.replace(/(?<=^.{6})\d/, (digit) => String((Number(digit) + 1) % 10));
    expect(checkUnionNumber(country, wrong).ok).toBe(false);
  });
});
