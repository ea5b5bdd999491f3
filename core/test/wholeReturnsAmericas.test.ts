import { expect, test } from "vitest";
import { bill, billCredit, boxesOf, credit, sale } from "./support/books.ts";

/**
 * Whole returns. Each is derived from the rules named in the fact sheet of its jurisdiction, which were written from
 * memory of the law; the sums were worked out there by hand or script, apart from this code.
 */

test("Canada, GST/HST return, credit notes as the Act says and netted (RC4022; fact sheet W13)", () => {
  const documents = [
    sale(["HON", "24000"]),
    sale(["HNB", "3200"]),
    sale(["G5", "1500"]),
    sale(["HNS", "2000"]),
    sale(["ZX", "5000"]),
    sale(["E", "1300"]),
    credit(["HON", "400"]),
    bill(["HON", "9000"]),
    bill(["HON-M", "240"]),
    bill(["G5", "800"]),
    bill(["TXO", "181.08"]),
    billCredit(["HON", "150"]),
    bill(["SON", "4147.50", { recoverable: "40" }]),
  ].map((one) => ({ ...one, date: "2026-02-11" }));
  const common = {
    "101": "36600",
    "90": "30300",
    "91": "6300",
    "109": "2300.15",
    "113A": "2300.15",
    "405": "539.18",
  };
  const last = { "113B": "539.18", "113C": "2839.33", "115": "2839.33" };
  expect(boxesOf("ca", documents, { end: "2026-03-31" })).toEqual({
    ...common,
    ...last,
    "103": "3955",
    "104": "19.50",
    "105": "3974.50",
    "106": "1622.35",
    "107": "52",
    "108": "1674.35",
  });
  const registration = { options: { creditNotes: "netted" } };
  expect(boxesOf("ca", documents, { end: "2026-03-31", registration })).toEqual({
    ...common,
    ...last,
    "103": "3903",
    "105": "3903",
    "106": "1602.85",
    "108": "1602.85",
  });
});

test("Quebec, combined return (FPZ-500; fact sheet W14)", () => {
  expect(
    boxesOf(
      "ca",
      [
        sale(["GQ", "18000"]),
        sale(["ZX", "2500"]),
        sale(["HON", "1000"]),
        credit(["GQ", "300"]),
        bill(["GQ", "6240"]),
        bill(["GQ-M", "180"]),
        bill(["HON", "500"]),
      ],
      { end: "2026-06-30", registration: { levies: ["GST", "HST", "QST"] } },
    ),
  ).toEqual({
    "101": "21200",
    "90": "18700",
    "91": "2500",
    "103": "1030",
    "105": "1030",
    "106": "381.50",
    "107": "15",
    "108": "396.50",
    "109": "633.50",
    "113": "633.50",
    Q203: "1795.50",
    Q205: "1795.50",
    Q206: "631.42",
    Q207: "29.93",
    Q208: "661.35",
    Q209: "1134.15",
    Q213: "1134.15",
    "115": "1767.65",
  });
});

test("British Columbia, PST return with commission (FIN 400; fact sheet W10)", () => {
  const options = {
    end: "2026-05-31",
    registration: { levies: ["BCPST"] },
    site: { country: "CA", region: "BC" },
  };
  expect(
    boxesOf("ca", [sale(["GBC", "21150.71"]), sale(["G5", "8849.29"]), bill(["XBC", "600"])], options),
  ).toEqual({
    "BC.A": "30000",
    "BC.B": "1480.55",
    "BC.C": "97.72",
    "BC.D": "1382.83",
    "BC.E": "42",
    "BC.G": "1424.83",
  });
});

test.each([
  ["18.40", "18.40"],
  ["250.00", "22"],
  ["1480.55", "97.72"],
  ["7200.00", "198"],
])("British Columbia, commission on %s is %s (fact sheet W10)", (tax, commission) => {
  const registration = { levies: ["BCPST"] };
  const invoice = sale(["PBC", "1000"], { line: { typedTax: { BCPST: tax } } });
  expect(boxesOf("ca", [invoice], { end: "2026-05-31", registration })["BC.C"]).toBe(commission);
});

test.each([
  ["12.00", "3"],
  ["150.00", "22.50"],
  ["850.00", "36.50"],
  ["3000.00", "58"],
  ["3000.01", undefined],
])("Manitoba, commission on %s is %s (fact sheet W10)", (tax, commission) => {
  const registration = { levies: ["MBRST"] };
  const invoice = sale(["PMB", "1000"], { line: { typedTax: { MBRST: tax } } });
  expect(boxesOf("ca", [invoice], { end: "2026-05-31", registration })["MB.6"]).toBe(commission);
});

test("Texas, Houston month (Tax Code § 151; fact sheet 10)", () => {
  const site = { country: "US", region: "TX-HOU" };
  const registration = { levies: ["SALES:TX", "SALES:TX-HOU", "SALES:TX-HOU-MTA"] };
  expect(
    boxesOf(
      "us",
      [
        sale(["ST", "26650"]),
        sale(["ST", "1250"]),
        credit(["ST", "900"]),
        sale(["RS", "14000"]),
        sale(["XB", "2600"]),
        sale(["XP", "3150"]),
        sale(["XI", "6000"]),
        bill(["UT", "1800"]),
      ],
      { end: "2026-05-31", site, registration },
    ),
  ).toEqual({
    G1: "52750",
    G2a: "14000",
    G2b: "2600",
    G2c: "3150",
    G2d: "6000",
    G3: "27000",
    G4: "1800",
    "G5.TX": "28800",
    "G5.TX-HOU": "28800",
    "G5.TX-HOU-MTA": "28800",
    "G6.TX": "1800",
    "G6.TX-HOU": "288",
    "G6.TX-HOU-MTA": "288",
    G7: "2376",
    G9: "11.88",
    G11: "2364.12",
  });
});

test("Florida, Miami month with a capped surtax (Fla. Stat. § 212; fact sheet 11)", () => {
  const site = { country: "US", region: "FL-MIA" };
  const registration = { levies: ["SALES:FL", "SALES:FL-MIA"] };
  expect(
    boxesOf(
      "us",
      [
        sale(["ST", "12200"], { line: { quantity: "10" } }),
        sale(["ST", "7800"], { line: { quantity: "1" } }),
        sale(["XB", "5000"]),
        bill(["UT", "500"]),
      ],
      { end: "2026-05-31", site, registration },
    ),
  ).toEqual({
    G1: "25000",
    G2b: "5000",
    G3: "20000",
    G4: "500",
    "G5.FL": "20500",
    "G5.FL-MIA": "17700",
    "G6.FL": "1230",
    "G6.FL-MIA": "177",
    G7: "1407",
    G9: "30",
    G11: "1377",
  });
});
