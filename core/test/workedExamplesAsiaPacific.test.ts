import { describe, expect, test } from "vitest";
import { bill, expense, boxesOf, credit, priced, sale } from "./support/books.ts";

/**
 * Examples of rates, codes and pricing. Each is derived from the rule named, in the fact sheet of its jurisdiction,
 * written from memory of the law; the figures were worked out there apart from this code.
 */
const inclusive = { prices: "inclusive" as const };
const on = (date: string) => ({ date });

describe("Australia (GSTA, WETA, LCTA)", () => {
  test("total invoice rule and taxable supply rule (s 9-90)", () => {
    const invoice = sale([
      ["S10", "10.14"],
      ["S10", "10.14"],
      ["S10", "10.14"],
    ]);
    expect(priced("au", invoice)).toEqual({ net: "30.42", GST: "3.04", gross: "33.46" });
    expect(priced("au", invoice, { rounding: { level: "line", mode: "half-up" } })["gross"]).toBe("33.45");
  });
  test("an eleventh of the price", () => {
    expect(priced("au", sale(["S10", "99.99"], inclusive))).toEqual({
      net: "90.90",
      GST: "9.09",
      gross: "99.99",
    });
  });
  test("wine: 29 %, then 10 % on top of it, in both modes", () => {
    const result = { net: "1800.00", WET: "522.00", GST: "232.20", gross: "2554.20" };
    expect(priced("au", sale(["WW", "1800.00"]))).toEqual(result);
    expect(priced("au", sale(["WW", "2554.20"], inclusive))).toEqual(result);
    expect(boxesOf("au", [sale(["WW", "1800.00"])], { end: "2026-06-30" })).toMatchObject({
      G1: "2554",
      "1A": "232",
      "1C": "522",
    });
  });
  test("wine at the cellar door, by half the retail price and by the average wholesale price", () => {
    const half = { net: "277.36", WET: "52.64", GST: "33.00", gross: "363.00" };
    expect(priced("au", sale(["WR", "363.00"], inclusive))).toEqual(half);
    expect(priced("au", sale(["WR", "277.36"]))).toMatchObject({ gross: "362.99" });
    const average = sale(["WA", "792.00", { averagePrice: "14.20" }], {
      ...inclusive,
      line: { quantity: "24" },
    });
    expect(priced("au", average)).toEqual({ net: "621.17", WET: "98.83", GST: "72.00", gross: "792.00" });
  });
  test("a luxury car, from the price and from the total", () => {
    const result = { net: "100000.00", GST: "10000.00", LCT: "8829.90", gross: "118829.90" };
    expect(priced("au", sale(["LC", "100000.00"], on("2025-09-10")))).toEqual(result);
    expect(priced("au", sale(["LC", "118829.90"], { ...inclusive, ...on("2025-09-10") }))).toEqual(result);
    expect(priced("au", sale(["LC", "50000.00"], on("2025-09-10")))["LCT"]).toBe("0.00");
  });
  test("a credit note of the quarter before is an adjustment (Div 19)", () => {
    const note = credit(["S10", "1100.00"], { ...inclusive, date: "2025-10-10", originalDate: "2025-09-01" });
    expect(boxesOf("au", [note], { end: "2025-12-31" })).toMatchObject({ "1B": "100", G18: "1100" });
  });
  test("offshore software, 40 % creditable, and a deferred import", () => {
    expect(boxesOf("au", [bill(["RC", "8000", { recoverable: "40" }])], { end: "2026-06-30" })).toMatchObject(
      {
        "1A": "800",
        "1B": "320",
        G11: "8800",
        G13: "5280",
        G7: "8800",
        G20: "320",
      },
    );
    expect(boxesOf("au", [bill(["ID", "4000"])], { end: "2026-06-30" })).toMatchObject({
      "7A": "4000",
      G11: "44000",
      "1B": "4000",
    });
  });
  test("second-hand goods and property on margin", () => {
    expect(boxesOf("au", [bill(["P2", "250"])], { end: "2026-06-30" })).toMatchObject({
      "1B": "22",
      G11: "250",
    });
    expect(priced("au", sale(["SM", "715000", { cost: "440000" }], inclusive))["GST"]).toBe("25000.00");
  });
});

describe("New Zealand (GSTA)", () => {
  test("exclusive, inclusive, an imported service, a long stay", () => {
    expect(
      priced(
        "nz",
        sale([
          ["S15", "33.33"],
          ["S15", "33.33"],
          ["S15", "33.33"],
        ]),
      ),
    ).toEqual({ net: "99.99", GST: "15.00", gross: "114.99" });
    expect(priced("nz", sale(["S15", "345.00"], inclusive))).toEqual({
      net: "300.00",
      GST: "45.00",
      gross: "345.00",
    });
    expect(
      boxesOf("nz", [bill(["RC", "10000", { recoverable: "30" }])], { end: "2026-05-31" }),
    ).toMatchObject({ "5": "11500", "11": "3450" });
    expect(priced("nz", sale(["S9", "400.00"]))).toEqual({ net: "400.00", GST: "36.00", gross: "436.00" });
    expect(boxesOf("nz", [sale(["S9", "400.00"])], { end: "2026-05-31" })).toMatchObject({
      "5": "276",
      "8": "36",
    });
    expect(boxesOf("nz", [expense(["P2", "460.00"])], { end: "2026-05-31" })).toMatchObject({
      "11": "460",
      "12": "60",
    });
  });
});

describe("Singapore (GSTA)", () => {
  test.each([
    ["1234.50", {}, "111.11"],
    ["109.00", inclusive, "9.00"],
    ["54.00", { ...inclusive, ...on("2023-06-01") }, "4.00"],
    ["53.50", { ...inclusive, ...on("2022-06-01") }, "3.50"],
  ])("%s %o", (amount, more, tax) => {
    expect(priced("sg", sale(["S", amount], more))["GST"]).toBe(tax);
  });
  test("customer accounting and reverse charge, box by box", () => {
    const boxes = (document: ReturnType<typeof sale>) => boxesOf("sg", [document], { end: "2026-06-30" });
    expect(boxes(sale(["CA", "15000"]))).toEqual({ "1": "15000", "4": "15000" });
    expect(boxes(bill(["CB", "15000"]))).toMatchObject({
      "1": "15000",
      "5": "15000",
      "6": "1350",
      "7": "1350",
    });
    expect(boxes(bill(["RS", "20000", { recoverable: "85" }]))).toMatchObject({
      "1": "20000",
      "14": "20000",
      "5": "20000",
      "6": "1800",
      "7": "1530",
    });
    expect(boxes(credit(["S", "1000"], { originalDate: "2023-08-01" }))).toMatchObject({
      "1": "-1000",
      "6": "-80",
    });
  });
});

describe("India (CGST, IGST)", () => {
  const site = { country: "IN", region: "27" };
  const to = (region: string, registered = false) => ({
    site,
    party: { country: "IN", region, registered, taxNumber: null, standing: {} },
  });
  test("inside the state and across states (R.46, R.35)", () => {
    expect(priced("in", sale(["S18", "12345.67"], to("27")))).toEqual({
      net: "12345.67",
      CGST: "1111.11",
      SGST: "1111.11",
      gross: "14567.89",
    });
    expect(priced("in", sale(["S18", "999.00"], { ...to("27"), ...inclusive }))).toEqual({
      net: "846.62",
      CGST: "76.19",
      SGST: "76.19",
      gross: "999.00",
    });
    expect(priced("in", sale(["S18", "999.00"], { ...to("24"), ...inclusive }))).toEqual({
      net: "846.61",
      IGST: "152.39",
      gross: "999.00",
    });
    expect(priced("in", sale(["S5", "999.00"], { ...to("27"), ...inclusive }))).toMatchObject({
      net: "951.42",
      CGST: "23.79",
    });
    expect(
      priced("in", sale(["S18", "100"], { ...to("38"), site: { country: "IN", region: "38" } })),
    ).toMatchObject({ CGST: "9.00", UTGST: "9.00" });
  });
  test("the limit for large sales to consumers across states fell on 1 August 2024", () => {
    const invoice = (date: string) =>
      sale(
        [
          ["S18", "118000"],
          ["S5", "10500"],
        ],
        { ...to("24"), ...inclusive, date },
      );
    const boxes = (date: string, end: string) => boxesOf("in", [invoice(date)], { end, site });
    expect(boxes("2024-07-10", "2024-07-31")).toMatchObject({
      "g1.7B1.txval": "110000",
      "3.2.unreg.24.txval": "110000",
      "3.2.unreg.24.igst": "18500",
    });
    expect(boxes("2024-09-10", "2024-09-30")).toMatchObject({
      "g1.5A.txval": "110000",
      "3.2.unreg.24.igst": "18500",
    });
  });
  test("credit notes by customer and original (section 4.1)", () => {
    const note = (more: object) =>
      boxesOf("in", [credit(["S18", "1000"], more)], { end: "2026-05-31", site });
    expect(note(to("24", true))).toMatchObject({ "g1.9B.cdnr.txval": "-1000", "3.1a.igst": "-180" });
    expect(note({ ...to("24"), originalDate: "2026-03-02", originalGross: 200_000_00 })).toMatchObject({
      "g1.9B.cdnur.txval": "-1000",
      "3.2.unreg.24.txval": "-1000",
    });
    expect(note({ ...to("24"), originalDate: "2026-03-02", originalGross: 20_000_00 })).toMatchObject({
      "g1.7B1.txval": "-1000",
      "3.2.unreg.24.txval": "-1000",
    });
  });
  test("road transport, on both sides", () => {
    expect(boxesOf("in", [sale(["SRC5", "64000"], to("27", true))], { end: "2026-05-31", site })).toEqual({
      "g1.4B.txval": "64000",
      "g1.4B.cgst": "1600",
      "g1.4B.sgst": "1600",
    });
    expect(boxesOf("in", [bill(["R5", "64000"], to("27"))], { end: "2026-05-31", site })).toMatchObject({
      "3.1d.txval": "64000",
      "3.1d.cgst": "1600",
      "4A3.sgst": "1600",
      "6.1B.cgst.payable": "1600",
      cash: "3200",
    });
  });
  test("slabs by date: 12 % ended on 21 September 2025, 40 % began the day after", () => {
    expect(priced("in", sale(["S12", "100"], { ...to("24"), ...on("2025-09-21") }))["IGST"]).toBe("12.00");
    expect(() => priced("in", sale(["S12", "100"], { ...to("24"), ...on("2025-09-22") }))).toThrow(
      /No rate of IGST is in force on 22 Sept 2025/,
    );
    expect(() => priced("in", sale(["S40", "100"], { ...to("24"), ...on("2025-09-21") }))).toThrow(
      /No rate of IGST is in force on 21 Sept 2025/,
    );
  });
  test("an import of goods", () => {
    expect(boxesOf("in", [bill(["IG18", "270625"], to("27"))], { end: "2026-05-31", site })["4A1.igst"]).toBe(
      "48712.50",
    );
  });
});

describe("United Arab Emirates (Law, ER)", () => {
  const boxes = (document: ReturnType<typeof sale>, region: string) =>
    boxesOf("ae", [document], { end: "2026-06-30", site: { country: "AE", region } });
  test("by emirate, in both modes", () => {
    expect(boxes(sale(["S5", "1000"]), "DU")).toMatchObject({ "1b.a": "1000", "1b.v": "50" });
    expect(boxes(sale(["S5", "99.99"], inclusive), "Sharjah")).toMatchObject({
      "1c.a": "95.23",
      "1c.v": "4.76",
    });
    expect(boxes(credit(["S5", "52.50"], inclusive), "DU")).toMatchObject({ "1b.a": "-50", "1b.v": "-2.50" });
    expect(
      boxes(
        sale([
          ["S5", "800"],
          ["Z", "300"],
          ["EX", "200"],
        ]),
        "AJ",
      ),
    ).toMatchObject({ "1d.v": "40", "4.a": "300", "5.a": "200" });
    expect(boxes(sale(["S5", "1000", { emirate: "RK" }]), "DU")).toMatchObject({ "1f.a": "1000" });
  });
  test("reverse charge and margin", () => {
    expect(boxes(bill(["RC", "22000"]), "DU")).toMatchObject({ "3.v": "1100", "10.v": "1100" });
    expect(boxes(bill(["RCN", "22000"]), "DU")).toMatchObject({ "3.a": "22000", "14": "1100" });
    expect(boxes(sale(["PM", "68000", { cost: "60500" }], inclusive), "DU")).toMatchObject({
      "1b.a": "7142.86",
      "1b.v": "357.14",
    });
    expect(boxes(sale(["PM", "41000", { cost: "43500" }], inclusive), "DU")).toEqual({});
  });
  test("rounding by line and by document; no VAT before 2018", () => {
    const invoice = sale([
      ["S5", "10.10"],
      ["S5", "10.10"],
      ["S5", "10.10"],
    ]);
    expect(priced("ae", invoice)["VAT"]).toBe("1.53");
    expect(priced("ae", invoice, { rounding: { level: "document", mode: "half-up" } })["VAT"]).toBe("1.52");
    expect(() => priced("ae", sale(["S5", "100"], on("2017-12-31")))).toThrow(/No rate of VAT is in force/);
  });
});
