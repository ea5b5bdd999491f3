import { describe, expect, test } from "vitest";
import { bill, boxesOf, credit, priced, sale } from "./support/books.ts";

/**
 * Examples of rates, codes and pricing. Each is derived from the rule named, in the fact sheet of its jurisdiction,
 * written from memory of the law; the figures were worked out there apart from this code.
 */
const inclusive = { prices: "inclusive" as const };
const on = (date: string) => ({ date });

describe("Ireland (VATCA 2010)", () => {
  test.each([
    ["S23", "1800", {}, { net: "1800.00", VAT: "414.00", gross: "2214.00" }],
    ["S23", "615.00", inclusive, { net: "500.00", VAT: "115.00", gross: "615.00" }],
    ["R13", "227.00", inclusive, { net: "200.00", VAT: "27.00", gross: "227.00" }],
    ["R9", "109.00", inclusive, { net: "100.00", VAT: "9.00", gross: "109.00" }],
    ["S23", "1000", on("2020-10-15"), { net: "1000.00", VAT: "210.00", gross: "1210.00" }],
  ])("%s %s", (code, amount, more, result) => {
    expect(priced("ie", sale([code, amount], more))).toEqual(result);
  });
  test("hospitality and accommodation part on 1 July 2026 (Finance Act 2025)", () => {
    const tax = (code: string, date: string) => priced("ie", sale([code, "100"], on(date)))["VAT"];
    expect([tax("H", "2026-06-30"), tax("H", "2026-07-01"), tax("AC", "2026-07-01")]).toEqual([
      "13.50",
      "9.00",
      "13.50",
    ]);
  });
  test("boxes of a credit note, construction, a margin sale", () => {
    const boxes = (document: ReturnType<typeof sale>) => boxesOf("ie", [document], { end: "2026-06-30" });
    expect(boxes(credit(["R13", "80"]))).toMatchObject({ T2: "10.80" });
    expect(boxes(bill(["RCTP", "3000"]))).toEqual({ T1: "405", T2: "405" });
    expect(boxes(bill(["EUA", "1400"]))).toEqual({ T1: "322", T2: "322", E2: "1400" });
    expect(boxes(sale(["MGS", "646", { cost: "400" }], inclusive))).toMatchObject({ T1: "46" });
    expect(boxes(sale(["MGS", "380", { cost: "400" }], inclusive))).toEqual({});
  });
});

describe("Canada (ETA, AQST)", () => {
  const lines = (...rows: [string, string][]) => rows as [string, string][];
  test("one rounding for a document, or one a line (ETA 165.2)", () => {
    const invoice = sale(lines(["HON", "10.10"], ["HON", "10.10"], ["HON", "10.10"]));
    expect(priced("ca", invoice)).toEqual({ net: "30.30", HST: "3.94", gross: "34.24" });
    expect(priced("ca", invoice, { rounding: { level: "line", mode: "half-up" } })["HST"]).toBe("3.93");
  });
  test("Nova Scotia on both sides of 1 April 2025, and a credit note of the old sale at the old rate", () => {
    const price = (date: string) => priced("ca", sale(["HNS", "1140.00"], { date, ...inclusive }));
    expect(price("2025-03-20")).toEqual({ net: "991.30", HST: "148.70", gross: "1140.00" });
    expect(price("2025-04-10")).toEqual({ net: "1000.00", HST: "140.00", gross: "1140.00" });
    const note = credit(["HNS", "1140.00"], { date: "2025-05-06", originalDate: "2025-03-20", ...inclusive });
    expect(boxesOf("ca", [note], { end: "2025-06-30" })).toMatchObject({ "101": "-991", "107": "148.70" });
  });
  test("Quebec: both taxes on the net", () => {
    expect(priced("ca", sale(["GQ", "1234.56"]))).toEqual({
      net: "1234.56",
      GST: "61.73",
      QST: "123.15",
      gross: "1419.44",
    });
    expect(priced("ca", sale(["GQ", "862.31"], inclusive))).toEqual({
      net: "750.00",
      GST: "37.50",
      QST: "74.81",
      gross: "862.31",
    });
  });
  test("provincial sales tax is cost", () => {
    expect(priced("ca", bill(["GBC", "418.75"]))).toEqual({
      net: "418.75",
      GST: "20.94",
      BCPST: "29.31",
      gross: "469.00",
    });
    expect(priced("ca", bill(["GSK", "418.75"]))).toEqual({
      net: "418.75",
      GST: "20.94",
      SKPST: "25.13",
      gross: "464.82",
    });
    expect(priced("ca", bill(["GMB", "418.75"]))["MBRST"]).toBe("29.31");
    expect(priced("ca", bill(["GMB", "100"], on("2019-06-30")))["MBRST"]).toBe("8.00");
    expect(boxesOf("ca", [bill(["GBC", "418.75"])], { end: "2026-06-30" })["106"]).toBe("20.94");
  });
  test("a broker's bill: duty, tax only, fee", () => {
    const broker = bill([
      ["NT", "221.04"],
      ["TXO", "181.08"],
      ["HON", "62.00"],
    ]);
    expect(priced("ca", broker)).toMatchObject({ gross: "472.18" });
    expect(boxesOf("ca", [broker], { end: "2026-06-30" })["106"]).toBe("189.14");
    expect(priced("ca", bill(["IMG", "3621.62"]))).toEqual({ net: "0.00", GST: "181.08", gross: "181.08" });
  });
  test("an imported service of a dentist, 40 % commercial", () => {
    const boxes = boxesOf("ca", [bill(["SON", "4147.50", { recoverable: "40" }])], { end: "2026-06-30" });
    expect(boxes).toMatchObject({ "405": "539.18", "106": "215.67" });
  });
  test("a till with a point-of-sale rebate", () => {
    const till = sale([
      ["RON", "24.99"],
      ["HON", "40.00"],
      ["Z", "6.49"],
    ]);
    expect(priced("ca", till)).toMatchObject({ HST: "6.45", gross: "77.93" });
    expect(boxesOf("ca", [till], { end: "2026-06-30" })).toMatchObject({ "101": "71", "103": "6.45" });
  });
});

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
    expect(boxesOf("nz", [bill(["P2", "460.00"])], { end: "2026-05-31" })).toMatchObject({
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
      /no I12 rate in force on 2025-09-22/,
    );
    expect(() => priced("in", sale(["S40", "100"], { ...to("24"), ...on("2025-09-21") }))).toThrow(
      /no I40 rate in force/,
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
    expect(() => priced("ae", sale(["S5", "100"], on("2017-12-31")))).toThrow(/no STD rate in force/);
  });
});

describe("South Africa (Act)", () => {
  test.each([
    ["1150.00", inclusive, { net: "1000.00", VAT: "150.00", gross: "1150.00" }],
    ["999.99", inclusive, { net: "869.56", VAT: "130.43", gross: "999.99" }],
    ["2000.00", on("2018-03-29"), { net: "2000.00", VAT: "280.00", gross: "2280.00" }],
    ["4000.00", on("2025-05-12"), { net: "4000.00", VAT: "600.00", gross: "4600.00" }],
  ])("S15 %s %o", (amount, more, result) => {
    expect(priced("za", sale(["S15", amount], more))).toEqual(result);
  });
  test("lodging over 28 days, second-hand goods", () => {
    expect(priced("za", sale(["AL", "20000"]))).toEqual({
      net: "20000.00",
      VAT: "1800.00",
      gross: "21800.00",
    });
    expect(boxesOf("za", [bill(["SH", "9200"])], { end: "2026-05-31" })["15"]).toBe("1200");
  });
});

describe("Germany (UStG)", () => {
  const relief = on("2020-08-11");
  test.each([
    ["S19", "238.00", inclusive, { net: "200.00", VAT: "38.00", gross: "238.00" }],
    ["S19", "99.99", inclusive, { net: "84.03", VAT: "15.96", gross: "99.99" }],
    ["S16", "99.99", { ...inclusive, ...relief }, { net: "86.20", VAT: "13.79", gross: "99.99" }],
    ["S7", "25.60", inclusive, { net: "23.93", VAT: "1.67", gross: "25.60" }],
    ["S5", "25.60", { ...inclusive, ...relief }, { net: "24.38", VAT: "1.22", gross: "25.60" }],
  ])("%s %s %o", (code, amount, more, result) => {
    expect(priced("eu-de", sale([code, amount], more))).toEqual(result);
  });
  test("19 % is not in force in the second half of 2020", () => {
    expect(() => priced("eu-de", sale(["S19", "100"], relief))).toThrow(/no R19 rate in force on 2020-08-11/);
  });
  test("margin, services and goods from the EU", () => {
    const boxes = (document: ReturnType<typeof sale>) => boxesOf("eu-de", [document], { end: "2026-06-30" });
    expect(boxes(sale(["M19", "5500", { cost: "4200" }], inclusive))).toMatchObject({ "81": "1092" });
    expect(boxes(bill(["R46", "2150.40"]))).toMatchObject({ "46": "2150", "47": "408.58", "67": "408.58" });
    expect(boxes(bill(["IGE19", "9876.54"]))).toMatchObject({
      "89": "9876",
      "89.tax": "1876.44",
      "61": "1876.54",
    });
  });
});

describe("United States (state acts)", () => {
  const at = (region: string) => ({ site: { country: "US", region } });
  test("stacks of Houston and New York City, inclusive too", () => {
    expect(priced("us", sale(["ST", "250.00"], at("TX-HOU")))).toMatchObject({
      "SALES:TX": "15.63",
      "SALES:TX-HOU": "2.50",
      gross: "270.63",
    });
    expect(priced("us", sale(["ST", "149.95"], at("NY-NYC")))).toMatchObject({
      "SALES:NY": "6.00",
      "SALES:NY-NYC": "6.75",
      "SALES:NY-MCTD": "0.56",
      gross: "163.26",
    });
    expect(priced("us", sale(["ST", "541.25"], { ...at("TX-HOU"), ...inclusive }))).toMatchObject({
      net: "500.00",
      "SALES:TX": "31.25",
    });
  });
  test("all taxes of a line rounded together (SSUTA § 324)", () => {
    const combined = { rounding: { level: "line" as const, mode: "half-up" as const, combined: true } };
    const line = sale(["ST", "12.50"], at("TX-HOU"));
    expect(priced("us", line)["gross"]).toBe("13.54");
    expect(priced("us", line, combined)).toMatchObject({
      "SALES:TX": "0.78",
      "SALES:TX-HOU": "0.13",
      "SALES:TX-HOU-MTA": "0.12",
    });
  });
  test("caps: Miami surtax, Tennessee single article", () => {
    expect(priced("us", sale(["ST", "7800"], at("FL-MIA")))).toMatchObject({
      "SALES:FL": "468.00",
      "SALES:FL-MIA": "50.00",
    });
    expect(priced("us", sale(["ST", "2100"], { ...at("TN-NAS"), ...on("2025-03-10") }))).toMatchObject({
      "SALES:TN": "147.00",
      "SALES:TN-NAS": "44.00",
      "SALES:TN-SAT": "13.75",
      gross: "2304.75",
    });
    expect(priced("us", sale(["ST", "8318.00"], { ...at("FL-MIA"), ...inclusive }))).toMatchObject({
      net: "7800.00",
      "SALES:FL": "468.00",
      "SALES:FL-MIA": "50.00",
    });
  });
  test("sourcing: inside Texas by the seller's place, otherwise by the buyer's", () => {
    const buyer = (region: string) => ({
      party: { country: "US", region, registered: null, taxNumber: null, standing: {} },
    });
    expect(Object.keys(priced("us", sale(["ST", "100"], { ...at("TX-AUS"), ...buyer("TX-HOU") })))).toContain(
      "SALES:TX-AUS",
    );
    expect(Object.keys(priced("us", sale(["ST", "100"], { ...at("FL-MIA"), ...buyer("FL-BRO") })))).toContain(
      "SALES:FL-BRO",
    );
  });
});
