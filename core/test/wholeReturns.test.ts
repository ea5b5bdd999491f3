import { expect, test } from "vitest";
import { bill, billCredit, boxesOf, credit, doc, sale } from "./support/books.ts";

/**
 * Whole returns. Each is derived from the rules named in the fact sheet of its jurisdiction, which were written from
 * memory of the law; the sums were worked out there by hand or script, apart from this code.
 */

test("Ireland, VAT3 (VATCA 2010; fact sheet I12)", () => {
  expect(
    boxesOf(
      "ie",
      [
        sale(["S23", "5000"]),
        sale(["R13", "2000"]),
        sale(["EUG", "3000"]),
        sale(["EUSV", "800"]),
        bill(["EUA", "1400"]),
        bill(["EUP", "900"]),
        bill(["PA", "5000", { customsDuty: "200" }]),
        bill(["S23", "2600"]),
        bill(["BL", "61.50"], { prices: "inclusive" }),
      ],
      { end: "2026-06-30" },
    ),
  ).toEqual({
    T1: "3145",
    T2: "2323",
    T3: "822",
    E1: "3000",
    E2: "1400",
    ES1: "800",
    ES2: "900",
    PA1: "5000",
  });
});

test("Ireland, VAT3 is in whole euro: the cents are dropped once a box (fact sheet I16)", () => {
  const documents = [sale(["S23", "13677.70"]), bill(["S23", "10102.39"])];
  // 23 % of 13,677.70 is 3,145.87; of 10,102.39 it is 2,323.55.
  expect(boxesOf("ie", documents, { end: "2026-06-30" })).toEqual({ T1: "3145", T2: "2323", T3: "822" });
});

test("United Arab Emirates, VAT201 (Law, Returns guide; fact sheet 11)", () => {
  const from = (region: string) => ({ site: { country: "AE", region } });
  const dubai = from("DU");
  const boxes = boxesOf(
    "ae",
    [
      sale(["S5", "240000"], dubai),
      credit(["S5", "6000"], dubai),
      sale(["S5", "58000"], from("AZ")),
      sale(["S5", "31500"], from("SH")),
      sale(["TR", "-1400"], dubai),
      bill(["RC", "22000"], dubai),
      sale(["Z", "72000"], dubai),
      sale(["EX", "15000"], dubai),
      bill(["IM", "48000"], dubai),
      bill(["IMJ", "-2500"], dubai),
      credit(["BDS", "325"], dubai),
      bill(["P5", "96400"], dubai),
      billCredit(["BDP", "410"], dubai),
    ],
    { end: "2026-06-30" },
  );
  expect(boxes).toEqual({
    "1a.a": "58000",
    "1a.v": "2900",
    "1b.a": "234000",
    "1b.v": "11700",
    "1b.j": "-325",
    "1c.a": "31500",
    "1c.v": "1575",
    "2.a": "-1400",
    "2.v": "-70",
    "3.a": "22000",
    "3.v": "1100",
    "4.a": "72000",
    "5.a": "15000",
    "6.a": "48000",
    "6.v": "2400",
    "7.a": "-2500",
    "7.v": "-125",
    "8.a": "476600",
    "8.v": "19480",
    "8.j": "-325",
    "9.a": "96400",
    "9.v": "4820",
    "9.j": "-410",
    "10.a": "67500",
    "10.v": "3375",
    "11.a": "163900",
    "11.v": "8195",
    "11.j": "-410",
    "12": "19155",
    "13": "7785",
    "14": "11370",
  });
});

test("South Africa, VAT201 (Act, VAT 404; fact sheet 11)", () => {
  const inclusive = { prices: "inclusive" as const };
  const boxes = boxesOf(
    "za",
    [
      sale(["S15", "345000"], inclusive),
      sale(["S15", "17250"], inclusive),
      credit(["S15", "5750"], inclusive),
      sale(["S15K", "57500"], inclusive),
      sale(["Z", "24000"]),
      sale(["ZX", "86000"]),
      sale(["EX", "15000"]),
      sale(["AL", "20000"]),
      sale(["AS", "34500"], inclusive),
      sale(["CU", "4600"]),
      sale(["OA", "1260"]),
      bill(["P15K", "60000"]),
      bill(["IMK", "10575"]),
      bill(["P15", "123000"]),
      bill(["IM", "3300"]),
      bill(["CI", "600"]),
      bill(["BD", "5700"], { originalDate: "2018-01-15" }),
      bill(["OI", "140"]),
    ],
    { end: "2026-05-31" },
  );
  expect(boxes).toEqual({
    "1": "356500",
    "1A": "57500",
    "2": "24000",
    "2A": "86000",
    "3": "15000",
    "4": "46500",
    "4A": "7500",
    "5": "23000",
    "6": "13800",
    "7": "34500",
    "8": "48300",
    "9": "6300",
    "10": "4600",
    "11": "600",
    "12": "1260",
    "13": "62160",
    "14": "9000",
    "14A": "10575",
    "15": "18450",
    "15A": "3300",
    "16": "600",
    "17": "700",
    "18": "140",
    "19": "42765",
    "20": "19395",
  });
});

test("Germany, UStVA, and in December with the special prepayment (UStG § 18; fact sheet 11)", () => {
  const documents = [
    sale(["S19", "48236.80"]),
    sale(["S19", "3190.45"]),
    credit(["S19", "1240.00"]),
    sale(["S7", "6420.75"]),
    credit(["S7", "88.20"]),
    sale(["IGL", "15890.90"]),
    sale(["EXP", "7200.00"]),
    sale(["EXM", "1800.00"]),
    sale(["IGS", "4310.50"]),
    sale(["RCS", "2500.00"]),
    bill(["IGE19", "9876.54"]),
    bill(["IGE7", "1234.99"]),
    bill(["R46", "2150.40"]),
    bill(["R84", "3300.00"]),
    bill(["V19", "33254.05"], { line: { typedTax: { VAT: "6318.27" } } }),
    bill(["IMV", "812.40"]),
  ];
  const boxes = {
    "81": "50187",
    "81.tax": "9535.53",
    "86": "6332",
    "86.tax": "443.24",
    "41": "15890",
    "43": "7200",
    "48": "1800",
    "89": "9876",
    "89.tax": "1876.44",
    "93": "1234",
    "93.tax": "86.38",
    "46": "2150",
    "47": "408.58",
    "84": "3300",
    "85": "627",
    "60": "2500",
    "21": "4310",
    "66": "6318.27",
    "61": "1962.99",
    "62": "812.40",
    "67": "1035.58",
  };
  // 9,535.53 + 443.24 + 1,876.44 + 86.38 + 408.58 + 627.00, less 6,318.27 + 1,962.99 + 812.40 + 1,035.58
  const subtotals = { T1: "12977.17", T2: "2847.93", T3: "2847.93" };
  expect(boxesOf("eu-de", documents, { end: "2026-06-30" })).toEqual({
    ...boxes,
    ...subtotals,
    "83": "2847.93",
  });
  expect(boxesOf("eu-de", documents, { end: "2026-12-31" }, { "39": "2856" })).toEqual({
    ...boxes,
    ...subtotals,
    "39": "2856",
    "83": "-8.07",
  });
});

test("United Kingdom, a journal can carry bad debt relief and a scale charge (VAT Notice 700/18, 700/64)", () => {
  const journal = doc("journal", [["BDR", "600.00"]], {});
  const relief = { ...journal, lines: [...journal.lines, { account: "6800", amount: "-600.00" }] };
  const charge = {
    ...doc("journal", [["FSC", "-120.00"]], { prices: "inclusive", line: { account: "6500" } }),
  };
  const scale = { ...charge, lines: [...charge.lines, { account: "6500", amount: "120.00" }] };
  expect(boxesOf("gb", [relief, scale], { end: "2026-06-30" })).toEqual({
    "1": "20",
    "3": "20",
    "4": "600",
    "5": "580",
    "6": "100",
  });
});
