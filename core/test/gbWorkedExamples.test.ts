import { describe, expect, test } from "vitest";
import { dueDate, dueRuleFor } from "@fiscalon/core/calendar/dueDate";
import { gb } from "@fiscalon/core/packs/gb/pack";
import { nineBoxes } from "@fiscalon/core/packs/gb/form";
import { returnBody } from "@fiscalon/core/formats/authority/returnBody";
import { exactFromDecimal, exactToText } from "@fiscalon/core/money/exact";
import { afterLineStep, roundTax } from "@fiscalon/core/tax/rounding";
import { gbDocument, gbEffect, gbSetup, movedBy, nineBoxesOf } from "./support/gbBooks.ts";

/** Figures marked "published" stand in the named notice; the others follow from the named rule. From memory. */
describe("worked examples of the United Kingdom", () => {
  test("line rounding of 86.76p (published: VAT Notice 700, 17.5.1)", () => {
    const exact = exactFromDecimal("86.76");
    expect(roundTax(exact, { level: "line", mode: "half-up" })).toBe(87);
    expect(exactToText(afterLineStep(exact, { level: "document", mode: "down", lineStep: "0.1" }), 3)).toBe(
      "86.8",
    );
  });

  test("tax-exclusive at four rates (VATA 1994 s.2, VAT Notice 700/12)", () => {
    const invoice = gbDocument("sales-invoice", [
      { amount: "1249.00", code: "S20" },
      { amount: "380.00", code: "R5" },
      { amount: "215.00", code: "Z" },
      { amount: "160.00", code: "EX" },
    ]);
    expect(gbEffect(invoice).priced).toMatchObject({ net: 200400, tax: 26880, gross: 227280 });
    expect(movedBy(invoice)).toEqual({ "1": "268.80", "6": "2004.00" });
  });

  test.each([
    ["89.99", "S20", "2026-05-11", 1500, 7499],
    ["47.25", "R5", "2026-05-11", 225, 4500],
    ["99.00", "H", "2021-11-05", 1100, 8800],
    ["100.80", "H", "2020-07-14", 1680, 8400],
    ["100.80", "H", "2020-07-15", 480, 9600],
    ["100.80", "H", "2022-03-31", 1120, 8960],
    ["100.80", "H", "2022-04-01", 1680, 8400],
  ])("tax-inclusive %s with %s on %s (VAT Notice 700; SI 2020/728)", (amount, code, date, tax, net) => {
    const sale = gbDocument("sales-invoice", [{ amount, code }], { prices: "inclusive", date });
    expect(gbEffect(sale).priced).toMatchObject({ tax, net });
  });

  test("a credit note lands in the same boxes with the other sign (VAT Notice 700/12)", () => {
    expect(movedBy(gbDocument("sales-credit-note", [{ amount: "125.00", code: "S20" }]))).toEqual({
      "1": "-25.00",
      "6": "-125.00",
    });
  });

  test("three lines in every permitted rounding (VAT Notice 700, 17.5)", () => {
    const lines = ["3.37", "6.18", "9.99"].map((amount) => ({ amount, code: "S20" }));
    const tax = Object.fromEntries(
      gb.roundings.map(({ id, rounding }) => [
        id,
        gbEffect(gbDocument("sales-invoice", lines), gbSetup(rounding)).priced.lines.map(
          (l) => l.gross - l.net,
        ),
      ]),
    );
    const total = (id: string) => (tax[id] ?? []).reduce((a, b) => a + b, 0);
    expect(tax["line_penny"]).toEqual([67, 124, 200]);
    expect(total("total_down")).toBe(390);
    expect(total("retail_total_nearest")).toBe(391);
    expect(total("line_tenth_penny_then_down")).toBe(390);
  });

  test.each([
    [
      "services from abroad, VATA 1994 s.8",
      "RCS",
      "2400.00",
      { "1": "480.00", "4": "480.00", "6": "2400.00", "7": "2400.00" },
    ],
    [
      "domestic reverse charge, VAT Notice 735",
      "DRP",
      "6000.00",
      { "1": "1200.00", "4": "1200.00", "7": "6000.00" },
    ],
    [
      "postponed import, VAT Notice 702",
      "PVA20",
      "3150.00",
      { "1": "630.00", "4": "630.00", "7": "3150.00" },
    ],
    ["blocked, SI 1992/3222", "BL20", "150.00", { "7": "150.00" }],
    ["car lease, SI 1992/3222", "CL50", "380.00", { "4": "38.00", "7": "380.00" }],
  ])("%s", (_name, code, amount, boxes) => {
    expect(movedBy(gbDocument("purchase-bill", [{ amount, code }]))).toEqual(boxes);
  });

  test("the supplier of a domestic reverse charge charges nothing (VAT Notice 735)", () => {
    const sale = gbDocument("sales-invoice", [{ amount: "6000.00", code: "DRS" }]);
    expect(gbEffect(sale).priced.tax).toBe(0);
    expect(movedBy(sale)).toEqual({ "6": "6000.00" });
  });

  test("goods between Northern Ireland and the EU (VAT Notice 725)", () => {
    const boxes = nineBoxesOf([
      gbDocument("purchase-bill", [{ amount: "1000.00", code: "EUA" }]),
      gbDocument("sales-invoice", [{ amount: "3000.00", code: "EUS" }]),
    ]);
    expect(boxes).toEqual(["0.00", "200.00", "200.00", "200.00", "0.00", "3000", "1000", "3000", "1000"]);
  });

  test("a whole quarter on the invoice basis (derived from VAT Notice 700/12)", () => {
    const sale = (code: string, amount: string) => gbDocument("sales-invoice", [{ amount, code }]);
    const bill = (code: string, amount: string) => gbDocument("purchase-bill", [{ amount, code }]);
    const boxes = nineBoxesOf([
      sale("S20", "9400.00"),
      gbDocument("sales-invoice", [{ amount: "2136.00", code: "S20" }], { prices: "inclusive" }),
      sale("R5", "1100.00"),
      sale("Z", "640.00"),
      sale("XG", "2000.00"),
      gbDocument("sales-credit-note", [{ amount: "260.00", code: "S20" }]),
      bill("S20", "3725.00"),
      bill("RCS", "600.00"),
      bill("PVA20", "1450.00"),
      bill("BL20", "150.00"),
      bill("CL50", "380.00"),
      gbDocument("purchase-credit-note", [{ amount: "85.00", code: "S20" }]),
    ]);
    expect(boxes).toEqual(["2649.00", "0.00", "2649.00", "1176.00", "1473.00", "15260", "6220", "0", "0"]);
  });

  test("the authority's JSON of that quarter (HMRC Developer Hub, VAT (MTD) API 1.0)", () => {
    const minor = [264900, 0, 264900, 117600, 147300, 1526000, 622000, 0, 0];
    const body = returnBody(
      nineBoxes,
      "26A2",
      minor.map((amount, index) => ({ box: String(index + 1), amount })),
    );
    expect(JSON.parse(JSON.stringify(body))).toEqual({
      periodKey: "26A2",
      vatDueSales: 2649,
      vatDueAcquisitions: 0,
      totalVatDue: 2649,
      vatReclaimedCurrPeriod: 1176,
      netVatDue: 1473,
      totalValueSalesExVAT: 15260,
      totalValuePurchasesExVAT: 6220,
      totalValueGoodsSuppliedExVAT: 0,
      totalAcquisitionsExVAT: 0,
      finalised: true,
    });
  });

  test.each([
    ["2026-03-31", "2026-05-07"],
    ["2026-04-30", "2026-06-07"],
    ["2026-05-31", "2026-07-07"],
    ["2026-06-30", "2026-08-07"],
    ["2026-07-31", "2026-09-07"],
    ["2028-02-29", "2028-04-07"],
    ["2026-11-30", "2027-01-07"],
  ])("a period to %s is due on %s (SI 1995/2518 reg. 25)", (end, due) => {
    const rule = dueRuleFor(gb.due, { periodEnd: end, frequency: "quarterly", levies: ["VAT"] });
    expect(rule && dueDate(rule, end)).toBe(due);
  });
});
