import { afterAll, beforeAll, expect, test } from "vitest";
import { INCLUSIVE, lived } from "./support/periods.ts";
import { nextVatNumber, startServer } from "./support/testServer.ts";
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

// VATA 1994 s.2, s.7A, s.8, s.55A; VAT Notice 700/12.
test("United Kingdom: VAT return of the quarter to June", async () => {
  const { first, post, boxes } = await lived(
    server,
    { pack: "gb", country: "GB", frequency: "quarterly", anchor: "2026-03-31", number: nextVatNumber() },
    "2026-05-12",
    "2026-06-30",
    [
      ["sales-invoice", "S20", "1234.56"], // 246.91
      ["sales-invoice", "Z", "400.00"],
      ["sales-invoice", "R5", "310.40"], // 15.52
      ["sales-credit-note", "S20", "100.10"], // 20.02
      ["purchase-bill", "PVA20", "2050.00", { with: "CN" }], // 410.00, due and deducted
      ["purchase-bill", "RCS", "730.25", { with: "US" }], // 146.05, due and deducted, in 6 and 7
      ["purchase-bill", "S20", "615.37"], // 123.07
      ["purchase-bill", "BL20", "88.00"], // blocked
      ["purchase-bill", "DRP", "500.00"], // 100.00, due and deducted, never in 6
      ["purchase-credit-note", "S20", "45.00"], // 9.00
    ],
    ["purchase-bill", "S20", "900.00"],
    "960.00", // 192.00
  );
  expect(first).toEqual({
    "1": "898.46", // 246.91 + 15.52 − 20.02 + 410.00 + 146.05 + 100.00
    "3": "898.46",
    "4": "962.12", // 410.00 + 146.05 + 123.07 + 100.00 − 9.00 + 192.00
    "5": "63.66", // a repayment, shown without sign
    "6": "2575", // 1,234.56 + 400 + 310.40 − 100.10 + 730.25 = 2,575.11
    "7": "4898", // 2,050 + 730.25 + 615.37 + 88 + 500 − 45 + 960 = 4,898.62
  });
  await post(["purchase-bill", "S20", "77.77"], "2026-06-20"); // late: 15.55
  await post(["sales-invoice", "S20", "10.00"], "2026-07-01");
  expect(await boxes("2026-06-30")).toEqual(first);
  expect(await boxes("2026-09-30")).toEqual({
    "1": "2",
    "3": "2",
    "4": "15.55",
    "5": "13.55",
    "6": "10",
    "7": "77",
  });
});

// VATCA 2010 s.46, s.53A (postponed accounting), s.12 (services received); VAT3 in whole euro.
test("Ireland: VAT3 of May and June", async () => {
  const { first, post, boxes } = await lived(
    server,
    { pack: "ie", country: "IE", number: "6388047V", frequency: "two-monthly", anchor: "2026-02-28" },
    "2026-05-12",
    "2026-06-30",
    [
      ["sales-invoice", "S23", "4321.10"], // 993.85
      ["sales-invoice", "R13", "655.00"], // 88.43
      ["sales-credit-note", "S23", "200.00"], // 46.00
      ["sales-invoice", "EUG", "1500.00", { with: "DE" }],
      ["purchase-bill", "EUP", "420.00", { with: "NL" }], // 96.60, due and deducted
      ["purchase-bill", "PA", "3000.00", { with: "US", attributes: { customsDuty: "150" } }], // 23 % of 3,150: 724.50
      ["purchase-bill", "S23", "812.34"], // 186.84
    ],
    ["purchase-bill", "R13", "300.00"],
    "350.00", // 47.25
  );
  expect(first).toEqual({
    T1: "1857", // 993.85 + 88.43 − 46.00 + 96.60 + 724.50 = 1,857.38
    T2: "1055", // 96.60 + 724.50 + 186.84 + 47.25 = 1,055.19
    T3: "802",
    E1: "1500",
    ES2: "420",
    PA1: "3000",
  });
  await post(["purchase-bill", "S23", "1000.00"], "2026-06-28");
  expect(await boxes("2026-08-31")).toEqual({ T2: "230", T4: "230" });
});

// VAT Act 89 of 1991 s.7, s.11, s.16; VAT 404.
test("South Africa: VAT201 of June and July", async () => {
  const { first, post, boxes } = await lived(
    server,
    { pack: "za", country: "ZA", number: "4440000000", frequency: "two-monthly", anchor: "2026-01-31" },
    "2026-06-12",
    "2026-07-31",
    [
      ["sales-invoice", "S15", "11500.00", INCLUSIVE],
      ["sales-invoice", "S15K", "2300.00", INCLUSIVE],
      ["sales-invoice", "Z", "600.00"],
      ["sales-invoice", "ZX", "900.00", { with: "BW" }],
      ["sales-invoice", "EX", "150.00"],
      ["sales-credit-note", "S15", "345.00", INCLUSIVE],
      ["purchase-bill", "P15", "3000.00"], // 450.00
      ["purchase-bill", "P15K", "2000.00"], // 300.00
      ["purchase-bill", "IM", "210.00", { with: "CN" }],
    ],
    ["purchase-bill", "P15", "200.00"],
    "220.00", // 33.00
  );
  expect(first).toEqual({
    "1": "11155",
    "1A": "2300",
    "2": "600",
    "2A": "900",
    "3": "150",
    "4": "1455", // 11,155 × 15/115
    "4A": "300",
    "13": "1755",
    "14": "300",
    "15": "483",
    "15A": "210",
    "19": "993",
    "20": "762",
  });
  await post(["purchase-bill", "P15", "100.00"], "2026-07-30");
  expect(await boxes("2026-09-30")).toEqual({ "15": "15", "19": "15", "20": "-15" });
});

// Federal Decree-Law 8 of 2017 art. 2, 48, 53, 54; VAT201 guide.
test("United Arab Emirates: VAT201 of the quarter to June from Dubai", async () => {
  const { first, post, boxes } = await lived(
    server,
    {
      pack: "ae",
      country: "AE",
      number: "100294771500003",
      region: "DU",
      frequency: "quarterly",
      anchor: "2026-03-31",
    },
    "2026-05-12",
    "2026-06-30",
    [
      ["sales-invoice", "S5", "12340.00"], // 617.00
      ["sales-credit-note", "S5", "40.00"], // 2.00
      ["sales-invoice", "Z", "700.00"],
      ["sales-invoice", "EX", "80.00"],
      ["purchase-bill", "RC", "900.00", { with: "GB" }], // 45.00
      ["purchase-bill", "IM", "1000.00", { with: "CN" }], // 50.00
      ["purchase-bill", "P5", "4321.00"], // 216.05
    ],
    ["purchase-bill", "P5", "100.00"],
    "160.00", // 8.00
  );
  expect(first).toEqual({
    "1b.a": "12300",
    "1b.v": "615",
    "3.a": "900",
    "3.v": "45",
    "4.a": "700",
    "5.a": "80",
    "6.a": "1000",
    "6.v": "50",
    "8.a": "14980",
    "8.v": "710",
    "9.a": "4481",
    "9.v": "224.05",
    "10.a": "1900",
    "10.v": "95",
    "11.a": "6381",
    "11.v": "319.05",
    "12": "710",
    "13": "319.05",
    "14": "390.95",
  });
  await post(["purchase-bill", "P5", "20.00"], "2026-06-29");
  expect(await boxes("2026-09-30")).toMatchObject({ "9.a": "20", "9.v": "1", "14": "-1" });
});

// UStG § 12, § 13b, § 15, § 18; bases in whole euro, cents left out, the tax of 81 and 86 from them.
test("Germany: UStVA of the quarter to June", async () => {
  const { first, post, boxes } = await lived(
    server,
    { pack: "eu-de", country: "DE", number: "DE271828000", frequency: "quarterly", anchor: "2026-03-31" },
    "2026-05-12",
    "2026-06-30",
    [
      ["sales-invoice", "S19", "1234.90"],
      ["sales-credit-note", "S19", "34.00"],
      ["sales-invoice", "S7", "505.80"],
      ["sales-invoice", "IGL", "700.70", { with: "FR" }],
      ["purchase-bill", "IGE19", "300.50", { with: "FR" }], // 57.10 deducted
      ["purchase-bill", "R46", "400.40", { with: "FR" }], // 76.08, due and deducted
      ["purchase-bill", "V19", "901.00"], // 171.19
    ],
    ["purchase-bill", "V19", "100.00"],
    "150.00", // 28.50
  );
  expect(first).toEqual({
    "81": "1200", // 1,200.90
    "81.tax": "228",
    "86": "505",
    "86.tax": "35.35",
    "41": "700",
    "89": "300",
    "89.tax": "57",
    "46": "400",
    "47": "76.08",
    "66": "199.69",
    "61": "57.10",
    "67": "76.08",
    T1: "396.43", // with 76.08 of services
    T2: "63.56",
    T3: "63.56",
    "83": "63.56", // 228.00 + 35.35 + 57.00 + 76.08 − 199.69 − 57.10 − 76.08
  });
  await post(["purchase-bill", "V19", "10.00"], "2026-06-29");
  expect(await boxes("2026-09-30")).toEqual({ "66": "1.90", T2: "-1.90", T3: "-1.90", "83": "-1.90" });
});
