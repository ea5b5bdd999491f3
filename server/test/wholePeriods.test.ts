import { afterAll, beforeAll, expect, test } from "vitest";
import { INCLUSIVE, lived } from "./support/periods.ts";
import { startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

/**
 * One whole ordinary period of each country through the API, as an accountant lives it: sales and purchases at several
 * rates, credit notes, goods and services from abroad, a bill corrected after posting, the return sealed, and a bill
 * that turns up after that. The figures were worked out by hand from the law named at each, from memory; the working
 * stands beside them.
 */
let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

// Excise Tax Act s.165, s.169, s.232, s.236 (meals); line 107 for credits given, RC4022.
test("Canada: GST/HST return of the quarter to June in Ontario", async () => {
  const { first, post, boxes } = await lived(
    server,
    {
      pack: "ca",
      country: "CA",
      number: "843162074RT0001",
      region: "ON",
      levies: ["GST", "HST"],
      frequency: "quarterly",
      anchor: "2026-03-31",
    },
    "2026-05-12",
    "2026-06-30",
    [
      ["sales-invoice", "HON", "2210.30"], // 287.34
      ["sales-invoice", "HNB", "640.00", { with: "CA-NB" }], // 96.00
      ["sales-invoice", "G5", "215.55", { with: "CA-AB" }], // 10.78
      ["sales-credit-note", "HON", "150.00"], // 19.50, on line 107
      ["purchase-bill", "HON", "1111.11"], // 144.44
      ["purchase-bill", "G5", "333.33", { with: "CA-AB" }], // 16.67
      ["purchase-bill", "HON-M", "60.00"], // 7.80, half of it
    ],
    ["purchase-bill", "HON", "80.00"],
    "90.00", // 11.70
  );
  expect(first).toMatchObject({
    "103": "394.12", // 287.34 + 96.00 + 10.78
    "105": "394.12",
    "106": "176.71", // 144.44 + 16.67 + 3.90 + 11.70
    "107": "19.50",
    "108": "196.21",
    "109": "197.91",
  });
  await post(["purchase-bill", "HON", "10.00"], "2026-06-29");
  expect(await boxes("2026-09-30")).toMatchObject({ "106": "1.30", "109": "-1.30" });
});

// GST Act 1999 s.9-70, s.11-5, s.38 (GST-free, exports); statement in whole dollars, cents left out.
test("Australia: activity statement of the quarter to June", async () => {
  const { first, post, boxes } = await lived(
    server,
    { pack: "au", country: "AU", number: "51824753556", frequency: "quarterly", anchor: "2026-03-31" },
    "2026-05-12",
    "2026-06-30",
    [
      ["sales-invoice", "S10", "3300.00", INCLUSIVE], // 300.00
      ["sales-invoice", "S10", "1234.56"], // 123.46
      ["sales-credit-note", "S10", "110.00", INCLUSIVE], // 10.00
      ["sales-invoice", "SX", "999.90", { with: "NZ" }],
      ["purchase-bill", "P10", "451.00", INCLUSIVE], // 41.00
      ["purchase-bill", "C10", "2000.00"], // 200.00
      ["purchase-bill", "PF", "200.00"],
    ],
    ["purchase-bill", "P10", "70.00"],
    "75.00", // 7.50
  );
  expect(first).toMatchObject({
    G1: "5547", // 3,300 + 1,358.02 − 110 + 999.90 = 5,547.92
    G2: "999",
    G10: "2200",
    G11: "733", // 451 + 200 + 82.50 = 733.50
    "1A": "413", // 300.00 + 123.46 − 10.00 = 413.46
    "1B": "248", // 41.00 + 200.00 + 7.50 = 248.50
    "9": "165",
  });
  await post(["purchase-bill", "P10", "33.00", INCLUSIVE], "2026-06-29");
  expect(await boxes("2026-09-30")).toMatchObject({ G11: "33", "1B": "3" });
});

// GST Act 1985 s.8, s.11, s.20; the return works out the tax of 3/23 from totals with tax in them.
test("New Zealand: GST101A of June and July", async () => {
  const { first, post, boxes } = await lived(
    server,
    { pack: "nz", country: "NZ", number: "47203112", frequency: "two-monthly", anchor: "2026-01-31" },
    "2026-06-12",
    "2026-07-31",
    [
      ["sales-invoice", "S15", "5750.00", INCLUSIVE],
      ["sales-invoice", "SZ", "1200.00", { with: "AU" }],
      ["sales-credit-note", "S15", "230.00", INCLUSIVE],
      ["purchase-bill", "P15", "2070.00", INCLUSIVE],
      ["expense", "P2", "460.00"],
      ["purchase-bill", "IM", "88.80", { with: "CN" }],
    ],
    ["purchase-bill", "P15", "115.00", INCLUSIVE],
    "138.00",
  );
  expect(first).toEqual({
    "5": "6720", // 5,750 + 1,200 − 230
    "6": "1200",
    "7": "5520",
    "8": "720", // 5,520 × 3/23
    "10": "720",
    "11": "2668", // 2,070 + 460 + 138
    "12": "348",
    "13": "88.80",
    "14": "436.80",
    "15": "283.20",
  });
  await post(["purchase-bill", "P15", "23.00", INCLUSIVE], "2026-07-30");
  expect(await boxes("2026-09-30")).toEqual({ "11": "23", "12": "3", "14": "3", "15": "3" });
});

// GST Act 1993 s.8, s.19, s.21; 9 % since 2024; MES imports in boxes 5 and 9.
test("Singapore: F5 of the quarter to September", async () => {
  const { first, post, boxes } = await lived(
    server,
    { pack: "sg", country: "SG", number: "201500004E", frequency: "quarterly", anchor: "2026-03-31" },
    "2026-08-12",
    "2026-09-30",
    [
      ["sales-invoice", "S", "3210.00"], // 288.90
      ["sales-invoice", "Z", "1500.00", { with: "MY" }],
      ["sales-credit-note", "S", "110.00"], // 9.90
      ["sales-invoice", "EN33", "400.00"],
      ["purchase-bill", "P", "2222.22"], // 200.00
      ["purchase-bill", "PZ", "300.00"],
      ["purchase-bill", "PI", "1000.00", { with: "CN" }], // 90.00
      ["purchase-bill", "PM", "4000.00", { with: "CN" }],
      ["purchase-bill", "BL", "50.00"],
    ],
    ["purchase-bill", "P", "700.00"],
    "710.00", // 63.90
  );
  expect(first).toMatchObject({
    "1": "3100",
    "2": "1500",
    "3": "400",
    "4": "5000",
    "5": "8232", // 2,222.22 + 300 + 1,000 + 4,000 + 710 = 8,232.22
    "6": "279",
    "7": "353.90", // 200.00 + 90.00 + 63.90
    "8": "-74.90",
    "9": "4000",
  });
  await post(["purchase-bill", "P", "100.00"], "2026-09-28");
  expect(await boxes("2026-12-31")).toMatchObject({ "5": "100", "7": "9", "8": "-9" });
});

// CGST Act s.9, s.16, s.49A and 49B, rule 88A: integrated credit first, central and state never against each other.
test("India: GSTR-3B of July in Karnataka", async () => {
  const { first, post, boxes } = await lived(
    server,
    {
      pack: "in",
      country: "IN",
      number: "29AAPFM4417K1ZR",
      region: "29",
      frequency: "monthly",
      anchor: "2026-01-31",
    },
    "2026-07-10",
    "2026-07-31",
    [
      ["sales-invoice", "S18", "10000.00"], // 900 and 900
      ["sales-invoice", "S18", "5000.00", { with: "IN-33" }], // 900
      ["sales-credit-note", "S18", "500.00"], // 45 and 45
      ["sales-invoice", "EX", "300.00"],
      ["purchase-bill", "P18", "4000.00"], // 360 and 360
      ["purchase-bill", "P18", "1000.00", { with: "IN-33" }], // 180
      ["purchase-bill", "R5", "200.00"], // 5 and 5, paid in cash, deducted
    ],
    ["purchase-bill", "P18", "100.00"],
    "200.00", // 18 and 18
  );
  expect(first).toMatchObject({
    "3.1a.txval": "14500",
    "3.1a.igst": "900",
    "3.1a.cgst": "855",
    "3.1a.sgst": "855",
    "3.1c.txval": "300",
    "3.1d.txval": "200",
    "3.1d.cgst": "5",
    "3.1d.sgst": "5",
    "4A3.cgst": "5",
    "4A5.igst": "180",
    "4A5.cgst": "378",
    "4A5.sgst": "378",
    "4C.igst": "180",
    "4C.cgst": "383",
    "4C.sgst": "383",
    "6.1A.igst.cash": "720", // 900 − 180
    "6.1A.cgst.cash": "472", // 855 − 383
    "6.1A.sgst.cash": "472",
    cash: "1674", // 720 + 472 + 472 + 10
  });
  await post(["purchase-bill", "P18", "50.00"], "2026-07-30");
  expect(await boxes("2026-08-31")).toMatchObject({ "4A5.cgst": "4.50", "4A5.sgst": "4.50" });
});

// Texas Tax Code § 151.051, § 321, § 322; half a percent for filing and paying in time, § 151.423.
test("United States: Texas return of July in Houston", async () => {
  const { first, post, boxes } = await lived(
    server,
    {
      pack: "us",
      country: "US",
      number: "40718826",
      region: "TX-HOU",
      levies: ["SALES:TX", "SALES:TX-HOU", "SALES:TX-HOU-MTA"],
      frequency: "monthly",
      anchor: "2026-01-31",
    },
    "2026-07-10",
    "2026-07-31",
    [
      ["sales-invoice", "ST", "4000.00"],
      ["sales-credit-note", "ST", "200.00"],
      ["sales-invoice", "RS", "1000.00"],
      ["sales-invoice", "XI", "600.00"],
      ["purchase-bill", "UT", "300.00"],
    ],
    ["sales-invoice", "ST", "100.00"],
    "120.00",
  );
  expect(first).toEqual({
    G1: "5520", // 4,000 − 200 + 1,000 + 600 + 120
    G2a: "1000",
    G2d: "600",
    G3: "3920",
    G4: "300",
    "G5.TX": "4220",
    "G5.TX-HOU": "4220",
    "G5.TX-HOU-MTA": "4220",
    "G6.TX": "263.75", // 6.25 %
    "G6.TX-HOU": "42.20", // 1 %
    "G6.TX-HOU-MTA": "42.20",
    G7: "348.15",
    G9: "1.74",
    G11: "346.41",
  });
  await post(["sales-invoice", "ST", "8.00"], "2026-07-30");
  expect(await boxes("2026-08-31")).toMatchObject({ G1: "8", "G6.TX": "0.50", G7: "0.66" });
});

// NIRC s. 106 to 110: common input tax by the share of exempt sales, what is in excess goes to the next quarter.
test("Philippines: 2550Q of the quarter to June, more input than output", async () => {
  const { first, post, boxes } = await lived(
    server,
    { pack: "ph", country: "PH", number: "123456789000", frequency: "quarterly", anchor: "2026-03-31" },
    "2026-05-12",
    "2026-06-30",
    [
      ["sales-invoice", "V12", "112000.00", INCLUSIVE], // 12,000.00
      ["sales-invoice", "VZ", "20000.00", { with: "US" }],
      ["sales-invoice", "VX", "5000.00"],
      ["sales-credit-note", "V12", "1000.00"], // 120.00
      ["purchase-bill", "D12", "150000.00"], // 18,000.00
      ["purchase-bill", "D12M", "10000.00"], // 1,200.00
      ["purchase-bill", "D12X", "2000.00"], // 240.00, cost
    ],
    ["purchase-bill", "D12", "1000.00"],
    "1500.00", // 180.00
  );
  expect(first).toEqual({
    "31A": "99000",
    "31B": "11880",
    "32A": "20000",
    "33A": "5000",
    "34A": "124000",
    "34B": "11880",
    "37": "11880",
    "44A": "163500",
    "44B": "19620",
    "50A": "163500",
    "50B": "19620",
    "51": "19620",
    common: "1200",
    direct: "240",
    "53": "288.39", // 240 + 1,200 × 5 ÷ 124
    "57": "288.39",
    "59": "288.39",
    "60": "19331.61",
    "61": "-7451.61",
    excess: "7451.61",
  });
  await post(["purchase-bill", "D12", "100.00"], "2026-06-29");
  expect(await boxes("2026-09-30")).toMatchObject({
    "38": "7451.61",
    "44B": "12",
    "61": "-7463.61",
    excess: "7463.61",
  });
});
