import { describe, expect, test } from "vitest";
import { bill, billCredit, boxesOf, credit, doc, priced, sale } from "./support/books.ts";

/** Codes that are seldom used, worked out by hand from the law their rows name, from memory. */

// VATCA 2010 s.9, 12, 53A, 62A. T1 = 283.94 + 109.66 + 69.00 + 94.50 + 29.70 + 13.50 = 600.30; the cents are dropped.
test("Ireland: acquisitions, services and imports at every rate, zero-rated ones by value alone", () => {
  expect(
    boxesOf(
      "ie",
      [
        sale(["S23", "1234.50"]), // 283.94
        bill(["EUA13", "812.30"]), // 109.66, due and deducted
        bill(["EUA0", "455.10"]),
        bill(["EUAB", "300.00"]), // 69.00, due and cost
        bill(["PA9", "1000.00", { customsDuty: "50.00" }]), // 1,050 × 9 %
        bill(["PA0", "640.00"]),
        bill(["RCN13", "220.00"]), // 29.70
        bill(["EUP9", "150.00"]), // 13.50
        bill(["EUP0", "99.90"]),
        billCredit(["UNP", "23.00"]), // taken back after six months
        bill(["BL13", "80.00"]),
        bill(["NR", "77.00"]),
      ],
      { end: "2026-08-31" },
    ),
  ).toEqual({ T1: "600", T2: "224", T3: "376", E2: "1567", ES2: "249", PA1: "1640" });
});

// VATA 1994 s.8, Sch 8, Sch 9ZA; SI 1992/3222. Box 7 = 410 + 250 + 320 + 500 + 80 + 60 + 90.
test("Northern Ireland: EU sellers who are not registered, imports without tax, and what is blocked", () => {
  expect(
    boxesOf(
      "gb",
      [
        sale(["S20", "1000"]),
        bill(["EUNV", "410"]),
        bill(["EUCH", "250"]),
        bill(["IMP0", "320"]),
        bill(["PVAB", "500"]), // 100.00, due and cost
        bill(["RCS0", "80"]),
        bill(["BL5", "60"]),
        bill(["HBL", "90"]),
      ],
      { end: "2026-06-30", site: { country: "GB", region: "NIR" } },
    ),
  ).toEqual({ "1": "300", "3": "300", "5": "300", "6": "1080", "7": "1710" });
});

describe("Germany", () => {
  // UStG § 13b, § 17(2) no. 1. 81: 1,000.90 − 300.40 = 700.50, cut, × 19 %; 66: 95.00 − 19.00.
  const documents = [
    sale(["S19", "1000.90"]),
    credit(["BD19", "300.40"]),
    bill(["R46R", "400"]), // 28.00
    bill(["R84R", "250"]), // 17.50
    bill(["V19", "500"]),
    billCredit(["BV", "19.00"]),
    sale(["KU", "70"]),
  ];
  test("reduced reverse charges, and claims and bills that are uncollectable", () => {
    expect(boxesOf("eu-de", documents, { end: "2026-06-30" })).toEqual({
      "81": "700",
      "81.tax": "133",
      "46": "400",
      "47": "28",
      "84": "250",
      "85": "17.50",
      "66": "76",
      "67": "45.50",
      T1: "178.50",
      T2: "57",
      T3: "57",
      "83": "57",
      "50": "300",
      "37": "19",
    });
  });
  test("who files once a year has a form of its own, with what was prepaid", () => {
    const boxes = boxesOf(
      "eu-de",
      documents,
      { end: "2026-12-31", registration: { frequency: "annual", anchor: "2026-12-31" } },
      { vorauszahlung: "40.00" },
    );
    expect(boxes).toMatchObject({ "81": "700", jahr: "57", vorauszahlung: "40", rest: "17" });
    expect(boxes).not.toHaveProperty("83");
  });
});

// GSTA s 10(6), 20(3), 26: 11 = 1,150 + 690; 10 = 300 + 12; 14 = 240 + 30.
test("New Zealand: a late bill, a long stay, bad debts and entertainment", () => {
  expect(
    boxesOf(
      "nz",
      [
        sale(["S15", "2000"]),
        bill(["P15L", "1000"]),
        bill(["P9", "1000"]), // 15 % of 600 = 90.00
        bill(["BW", "30"]),
        sale(["EN", "12"]),
      ],
      { end: "2026-05-31" },
    ),
  ).toMatchObject({ "5": "2300", "8": "300", "9": "12", "10": "312", "11": "1840", "12": "240", "13": "30" });
});

// Act s. 21, 67A, 16(3): a supply at 14 % credited after March 2018 goes to field 18, field 1 stays.
test("South Africa: credit notes of the old rate and late bills", () => {
  const boxes = boxesOf(
    "za",
    [
      sale(["S15", "10000"]),
      credit(["C14", "2000"]), // 280.00
      billCredit(["D14", "500"]), // 70.00
      bill(["P15L", "4000"]), // 600.00
      bill(["P15KL", "1000"]), // 150.00
    ],
    { end: "2026-06-30" },
  );
  expect(boxes).toMatchObject({
    "1": "11500",
    "4": "1500",
    "12": "70",
    "14": "150",
    "15": "600",
    "18": "280",
  });
});

// ATO, how to complete your activity statement: a variation to nil counts, and an empty label is none.
describe("Australia, instalments on the statement", () => {
  const typed = (boxes: Record<string, string>, options = {}) =>
    boxesOf("au", [sale(["S10", "1000"])], { end: "2026-06-30", registration: { options } }, boxes);
  test.each([
    [{ T7: "900" }, { "5A": "900", "8A": "1000" }],
    [
      { T7: "900", T9: "250" },
      { "5A": "250", "8A": "350" },
    ],
    [{ T7: "900", T9: "0" }, { "8A": "100" }],
    [
      { T1: "20000", T2: "2.50" },
      { T11: "500", "5A": "500" },
    ],
    [
      { T1: "20000", T2: "2.50", T3: "1.75" },
      { T11: "350", "5A": "350" },
    ],
    [{ T1: "20000", T2: "2.50", T3: "0" }, { "8A": "100" }],
    [{ F1: "300", F3: "120" }, { "6A": "120" }],
    [{ F1: "300", F3: "0" }, { "8A": "100" }],
  ])("%j", (boxes, expected) => {
    const now = typed(boxes);
    expect(now).toMatchObject(expected);
    if (!("5A" in expected)) expect(now).not.toHaveProperty("5A");
    if (!("6A" in expected)) expect(now).not.toHaveProperty("6A");
  });
  test("the simpler statement comes to the same", () => {
    expect(typed({}, { reporting: "simpler" })).toEqual(typed({}));
  });
});

// AQST s. 16: who is not registered for QST deducts the GST and bears the QST.
test("Quebec, bought by a business that is not registered for QST", () => {
  expect(boxesOf("ca", [bill(["GQC", "1000"])], { end: "2026-06-30" })).toMatchObject({ "106": "50" });
  expect(priced("ca", bill(["GQC", "1000"]))).toEqual({
    net: "1000.00",
    GST: "50.00",
    QST: "99.75",
    gross: "1149.75",
  });
});

describe("India", () => {
  const site = { country: "IN", region: "27" };
  const inState = (registered: boolean, date: string) => ({
    date,
    party: { country: "IN", region: "27", registered, taxNumber: null, standing: {} },
  });
  const has = (boxes: Record<string, string>, keys: readonly string[]) =>
    Object.fromEntries(keys.map((key) => [key, boxes[key] ?? "0"]));

  // Compensation Act s.8, 11(2): on the value without tax, and its credit against cess only. From memory.
  test("compensation cess by value and by unit, with its credit, to its last day", () => {
    const documents = [
      // A car of 600,000 at 28 % and 20 % cess; coal, 150 t at 5 % and 400 a tonne.
      sale(["S28C", "600000", { cess: "20" }], inState(false, "2025-08-04")),
      sale(["S5U", "450000", { cess: "400" }], { ...inState(true, "2025-08-05"), line: { quantity: "150" } }),
      bill(["P28C", "400000", { cess: "20" }], inState(true, "2025-08-01")),
    ];
    expect(
      has(boxesOf("in", documents, { end: "2025-08-31", site }), [
        "3.1a.txval",
        "3.1a.cgst",
        "3.1a.cess",
        "g1.7A1.cess",
        "g1.4A.cess",
        "4A5.cess",
        "6.1A.cess.itc.cess",
        "6.1A.cess.cash",
      ]),
    ).toEqual({
      "3.1a.txval": "1050000",
      "3.1a.cgst": "95250", // 84,000 + 11,250
      "3.1a.cess": "180000", // 120,000 + 60,000
      "g1.7A1.cess": "120000",
      "g1.4A.cess": "60000",
      "4A5.cess": "80000",
      "6.1A.cess.itc.cess": "80000",
      "6.1A.cess.cash": "100000",
    });
    const late = [sale(["S28C", "1000", { cess: "20" }], inState(true, "2026-02-01"))];
    expect(() => boxesOf("in", late, { end: "2026-02-28", site })).toThrow();
  });

  // Sheet, E21: credit in the statement in September, goods in October; Circ. 170/02/2022.
  test("credit reversed and taken again: 4B2, then 4A5 with 4D1 beside", () => {
    const seller = {
      ...inState(true, "2025-09-20"),
      party: { country: "IN", region: "29", registered: true, taxNumber: null, standing: {} },
    };
    expect(
      has(boxesOf("in", [bill(["PD18", "50000"], seller)], { end: "2025-09-30", site }), [
        "4A5.igst",
        "4B2.igst",
        "4C.igst",
      ]),
    ).toEqual({ "4A5.igst": "9000", "4B2.igst": "9000", "4C.igst": "0" });
    const again = doc("expense", ["RCL", "0"], {
      date: "2025-10-08",
      line: { typedTax: { IGST: "9000.00" } },
    });
    expect(
      has(boxesOf("in", [again], { end: "2025-10-31", site }), [
        "4A5.igst",
        "4D1.igst",
        "4C.igst",
        "cl.igst",
      ]),
    ).toEqual({ "4A5.igst": "9000", "4D1.igst": "9000", "4C.igst": "9000", "cl.igst": "9000" });
    // Sheet, E8: 18,000 × 47,200 ÷ 118,000 of a bill unpaid for 180 days.
    const unpaid = doc("expense", ["REV", "0"], {
      date: "2025-10-31",
      line: { typedTax: { IGST: "-7200.00" } },
    });
    expect(has(boxesOf("in", [unpaid], { end: "2025-10-31", site }), ["4B2.igst", "4C.igst"])).toEqual({
      "4B2.igst": "7200",
      "4C.igst": "-7200",
    });
  });
});

// Act s. 13(2): customs value 80,000 and a tenth of it, 9,000 of duty; 15 % of 97,000 is 14,550.
test("South Africa: the tax on an import from its customs value", () => {
  const boxes = boxesOf("za", [bill(["IMV", "80000", { customsDuty: "9000" }])], { end: "2026-05-31" });
  expect(boxes).toMatchObject({ "15A": "14550" });
});

// 35 ILCS 120/2-10; Tenn. Code § 67-6-228, from memory: the state's rate of food, local tax where it comes on top.
test("United States: food at the reduced rate of the state, before and after it ended", () => {
  const state = (region: string, date: string) => ({
    date,
    party: { country: "US", region, registered: false, taxNumber: null, standing: {} },
  });
  const taxed = (region: string, levies: string[], date: string, end: string) =>
    boxesOf("us", [sale(["SR", "200"], state(region, date))], {
      end,
      site: { country: "US", region },
      registration: { levies, frequency: "monthly", anchor: end },
    });
  const illinois = ["SALES:IL", "SALES:IL-COOK", "SALES:IL-CHI", "SALES:IL-RTA"];
  expect(taxed("IL-CHI", illinois, "2025-12-10", "2025-12-31")).toMatchObject({
    G1: "200",
    "G6.IL": "2",
    G7: "2",
  });
  expect(taxed("IL-CHI", illinois, "2026-01-10", "2026-01-31")).not.toHaveProperty("G7");
  // 4 % and 2.75 % of Nashville.
  expect(taxed("TN-NAS", ["SALES:TN", "SALES:TN-NAS"], "2026-01-10", "2026-01-31")).toMatchObject({
    "G6.TN": "8",
    "G6.TN-NAS": "5.50",
    G7: "13.50",
  });
});

// BC Bulletin PST 001: who files or pays late keeps nothing; example W10 of the fact sheet for who is in time.
test("British Columbia: the commission goes with filing and paying in time", () => {
  const registration = { levies: ["BCPST"], frequency: "monthly" as const, anchor: "2026-05-31" };
  const site = { country: "CA", region: "BC" };
  const party = { country: "CA", region: "BC", registered: false, taxNumber: null, standing: {} };
  const documents = [sale(["GBC", "21150.71"], { party })];
  const commission = (options: Record<string, string>) =>
    boxesOf("ca", documents, { end: "2026-05-31", site, registration: { ...registration, options } })["BC.C"];
  expect(commission({})).toBe("97.72"); // 6.6 % of 1,480.55
  expect(commission({ allowance: "lost" })).toBeUndefined();
});
