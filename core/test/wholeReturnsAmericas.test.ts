import { expect, test } from "vitest";
import type { DocumentInput } from "@fiscalon/core/model/document";
import type { RegistrationSetup } from "@fiscalon/core/model/registration";
import { bill, billCredit, boxesOf, credit, sale } from "./support/books.ts";
import { PACKS } from "./support/packs.ts";

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

/** A return of one place in the United States. */
function stateReturn(
  region: string,
  levies: string[],
  documents: DocumentInput[],
  end: string,
  registration: Partial<RegistrationSetup> = {},
) {
  const own = {
    levies: levies.map((one) => `SALES:${one}`),
    frequency: "monthly" as const,
    anchor: "2026-01-31",
  };
  return boxesOf("us", documents, {
    end,
    site: { country: "US", region },
    registration: { ...own, ...registration },
  });
}
const on = (date: string) => ({ date });
const QUARTER = { frequency: "quarterly", anchor: "2026-03-31" } as const;

// O.C.G.A. § 48-8-3(57): groceries are free of the state's 4 %, not of the local 4.90 %. § 48-8-50: G7 = 3,213.00, kept 90.00 + 1.065.
test("Georgia: groceries bear local taxes only; the allowance falls after 3,000", () => {
  const levies = ["GA", "GA-MARTA", "GA-LOST", "GA-EDU", "GA-TSP", "GA-MOST"];
  const documents = [sale(["ST", "35000"]), sale(["SL", "2100"]), credit(["SL", "100"]), sale(["XP", "400"])];
  expect(stateReturn("GA-ATL", levies, documents, "2026-05-31")).toEqual({
    G1: "37400",
    G2c: "2400",
    G3: "35000",
    "G5.GA": "35000",
    "G5.GA-MARTA": "37000",
    "G5.GA-LOST": "37000",
    "G5.GA-EDU": "37000",
    "G5.GA-TSP": "37000",
    "G5.GA-MOST": "37000",
    "G6.GA": "1400",
    "G6.GA-MARTA": "555",
    "G6.GA-LOST": "370",
    "G6.GA-EDU": "370",
    "G6.GA-TSP": "148",
    "G6.GA-MOST": "370",
    G7: "3213",
    G9: "91.07",
    G11: "3121.93",
  });
});

// Cal. Rev. & Tax. Code § 6051, § 7202 f.; district rates from memory: 2.25 % to March 2025, 2.50 % from April. No allowance.
test("California: a credit note bears the district's rate of its sale, the quarter both", () => {
  const levies = ["CA", "CA-COUNTY", "CA-LOCAL", "CA-LAX"];
  const documents = [
    sale(["ST", "8000"], on("2025-05-06")),
    credit(["ST", "600"], { ...on("2025-04-11"), originalDate: "2025-03-20" }),
    bill(["UT", "350"], on("2025-06-02")),
  ];
  expect(stateReturn("CA-LAX", levies, documents, "2025-06-30", QUARTER)).toMatchObject({
    G1: "7400",
    G4: "350",
    "G5.CA-LAX": "7750",
    "G6.CA": "465",
    "G6.CA-COUNTY": "19.38",
    "G6.CA-LOCAL": "77.50",
    "G6.CA-LAX": "195.25", // 8,350 × 2.50 % − 600 × 2.25 %
    G11: "757.13",
  });
});

// Tenn. Code § 67-6-702: the part of a single article up to 1,600; from memory 2.25 % to January 2025, 2.75 % after.
test("Tennessee: a quarter in which the local rate changes is taxed at both", () => {
  const documents = [sale(["ST", "1000"], on("2025-01-20")), sale(["ST", "1000"], on("2025-02-20"))];
  const levies = PACKS.byId("us")
    .levies.map(({ levy }) => levy.slice("SALES:".length))
    .filter((levy) => levy.startsWith("TN"));
  const boxes = stateReturn("TN-NAS", levies, documents, "2025-03-31", QUARTER);
  expect([boxes["G6.TN"], boxes["G7"]]).toEqual(["140", "190"]);
});

// 35 ILCS 120/3 as amended 2024; Tax Law § 1137(f); Tax Reform Code § 227: what is kept of the tax in G7.
test.each([
  [
    "IL-CHI",
    ["IL", "IL-COOK", "IL-CHI", "IL-RTA"],
    "2026-05-31",
    {},
    "600000",
    "1000",
    "of 61,500.00: 1,076.25, capped",
  ],
  [
    "IL-CHI",
    ["IL", "IL-COOK", "IL-CHI", "IL-RTA"],
    "2026-06-30",
    QUARTER,
    "600000",
    "1076.25",
    "three months' cap",
  ],
  [
    "IL-CHI",
    ["IL", "IL-COOK", "IL-CHI", "IL-RTA"],
    "2024-05-31",
    {},
    "600000",
    "1076.25",
    "no cap before 2025",
  ],
  [
    "NY-NYC",
    ["NY", "NY-NYC", "NY-MCTD"],
    "2026-05-31",
    {},
    "40000",
    undefined,
    "monthly filers keep nothing",
  ],
  [
    "NY-NYC",
    ["NY", "NY-NYC", "NY-MCTD"],
    "2026-05-31",
    { frequency: "quarterly", anchor: "2026-02-28" },
    "40000",
    "177.50",
    "5 % of 3,550.00",
  ],
  ["PA-PHL", ["PA", "PA-PHL"], "2026-05-31", {}, "40000", "25", "1 % of 3,200.00, capped"],
  [
    "PA-PHL",
    ["PA", "PA-PHL"],
    "2026-06-30",
    { frequency: "six-monthly", anchor: "2026-06-30" },
    "200000",
    "150",
    "1 % of 16,000.00, capped",
  ],
  [
    "PA-PHL",
    ["PA", "PA-PHL"],
    "2026-05-31",
    { options: { allowance: "lost" } },
    "40000",
    undefined,
    "filed late",
  ],
  [
    "CA-SFO",
    ["CA", "CA-COUNTY", "CA-LOCAL", "CA-SFO"],
    "2026-05-31",
    {},
    "40000",
    undefined,
    "California has none",
  ],
] as [string, string[], string, Partial<RegistrationSetup>, string, string | undefined, string][])(
  "%s of %j to %s %j: %s keeps %s: %s",
  (region, levies, end, registration, amount, kept) => {
    const documents = [sale(["ST", amount], on(end))];
    expect(stateReturn(region, levies, documents, end, registration)["G9"]).toBe(kept);
  },
);
