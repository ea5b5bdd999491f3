import { describe, expect, test } from "vitest";
import { found } from "@fiscalon/core/at";
import type { FilingPeriod } from "@fiscalon/core/calendar/filingPeriods";
import type { UnpaidRule } from "@fiscalon/core/model/unpaidRule";
import { SHIPPED } from "@fiscalon/core/packs/shipped";
import { expandCode } from "@fiscalon/core/tax/expandCode";
import { timeOver, unpaidProposal } from "@fiscalon/core/returns/unpaid";
import type { UnpaidItem } from "@fiscalon/core/returns/unpaid";

function ruleOf(pack: string, id: string, value?: string): UnpaidRule {
  const { unpaid = [] } = found(SHIPPED, (one) => one.id === pack, pack);
  return found(unpaid, (rule) => rule.id === id && (value === undefined || rule.option?.[1] === value), id);
}

const quarter = (from: string, to: string): FilingPeriod => ({ from, to });

function bill(date: string, gross: number, tax: number, more: Partial<UnpaidItem> = {}): UnpaidItem {
  return {
    date,
    supply: date,
    due: null,
    reported: date,
    gross,
    unpaid: gross,
    taxes: [{ levy: "VAT", tax, done: 0 }],
    ...more,
  };
}
const vat = (amount: number) => [{ levy: "VAT", amount }];

describe("tax of what stays unpaid", () => {
  // VAT Notice 700/18, and E13 of the sheet: 4,800 billed, 1,200 received: 600.00; 900 received later: 150.00 back.
  test("United Kingdom: relief of the seller after six months, and back by what is received", () => {
    const rule = ruleOf("gb", "bad-debt");
    const item = bill("2026-01-05", 4_800_00, 800_00, { due: "2026-02-04", unpaid: 3_600_00 });
    expect(timeOver(rule, item)).toBe("2026-08-05");
    expect(unpaidProposal(rule, item, quarter("2026-04-01", "2026-06-30"))).toBeUndefined();
    const claim = unpaidProposal(rule, item, quarter("2026-07-01", "2026-09-30"));
    expect(claim).toMatchObject({ way: "relief", taxes: vat(600_00) });
    const after = { ...item, unpaid: 2_700_00, taxes: [{ levy: "VAT", tax: 800_00, done: 600_00 }] };
    expect(unpaidProposal(rule, after, quarter("2026-10-01", "2026-12-31"))).toMatchObject({
      way: "back",
      taxes: vat(150_00),
    });
    // Four years and six months of the day time runs from.
    expect(unpaidProposal(rule, item, quarter("2030-07-01", "2030-09-30"))).toBeDefined();
    expect(unpaidProposal(rule, item, quarter("2030-10-01", "2030-12-31"))).toBeUndefined();
  });

  test("United Kingdom: the later of due day and supply; the buyer repays in the period in which they end", () => {
    const rule = ruleOf("gb", "unpaid-input");
    const item = bill("2026-01-05", 720_00, 120_00, { due: "2025-12-31", supply: "2026-01-05" });
    expect(timeOver(rule, item)).toBe("2026-07-06");
    expect(unpaidProposal(rule, item, quarter("2026-07-01", "2026-09-30"))?.taxes).toEqual(vat(120_00));
  });

  // Example of ie.md 7.8: 1,230.00, 230.00 deducted in January and February, 369.00 paid; 492.00 in October.
  test("Ireland: six months after the end of the period of the deduction", () => {
    const rule = ruleOf("ie", "unpaid-input");
    const item = bill("2026-01-20", 1_230_00, 230_00, { reported: "2026-02-28", unpaid: 861_00 });
    expect(unpaidProposal(rule, item, quarter("2026-05-01", "2026-06-30"))).toBeUndefined();
    expect(unpaidProposal(rule, item, quarter("2026-07-01", "2026-08-31"))?.taxes).toEqual(vat(161_00));
    const paid = { ...item, unpaid: 369_00, taxes: [{ levy: "VAT", tax: 230_00, done: 161_00 }] };
    expect(unpaidProposal(rule, paid, quarter("2026-09-01", "2026-10-31"))).toMatchObject({
      way: "back",
      taxes: vat(92_00),
    });
  });

  // Example 12 of ae.md: 8,610.00 agreed for 15 February 2026; 4,305.00 paid in February 2027.
  test("Emirates: six months after the agreed day, on the next return or on that one", () => {
    const item = bill("2026-01-15", 8_610_00, 410_00, { due: "2026-02-15" });
    const [third, fourth] = [quarter("2026-07-01", "2026-09-30"), quarter("2026-10-01", "2026-12-31")];
    expect(unpaidProposal(ruleOf("ae", "unpaid-input", "next"), item, third)).toBeUndefined();
    expect(unpaidProposal(ruleOf("ae", "unpaid-input", "next"), item, fourth)?.taxes).toEqual(vat(410_00));
    expect(unpaidProposal(ruleOf("ae", "unpaid-input", "same"), item, third)?.taxes).toEqual(vat(410_00));
    const paid = { ...item, unpaid: 4_305_00, taxes: [{ levy: "VAT", tax: 410_00, done: 410_00 }] };
    expect(
      unpaidProposal(ruleOf("ae", "unpaid-input", "next"), paid, quarter("2027-01-01", "2027-03-31")),
    ).toMatchObject({ way: "back", taxes: vat(205_00) });
    // 7.7: 6,825.00 of a Dubai sale unpaid is 325.00.
    const sale = bill("2026-01-15", 6_825_00, 325_00);
    expect(unpaidProposal(ruleOf("ae", "bad-debt"), sale, third)?.taxes).toEqual(vat(325_00));
  });

  // E8 of in.md: invoice of 10 April 2025, 47,200 of 1,18,000 unpaid on day 180, which is 7 October; 23,600 paid later.
  test("India: 180 days, head by head, and again on payment", () => {
    const item = bill("2025-04-10", 1_18_000_00, 0, {
      unpaid: 47_200_00,
      taxes: [
        { levy: "CGST", tax: 9_000_00, done: 0 },
        { levy: "SGST", tax: 9_000_00, done: 0 },
      ],
    });
    const [october, november] = [quarter("2025-10-01", "2025-10-31"), quarter("2025-11-01", "2025-11-30")];
    const [same, next] = [ruleOf("in", "unpaid-input", "same"), ruleOf("in", "unpaid-input", "next")];
    expect(timeOver(same, item)).toBe("2025-10-08");
    const each = [
      { levy: "CGST", amount: 3_600_00 },
      { levy: "SGST", amount: 3_600_00 },
    ];
    expect(unpaidProposal(same, item, october)?.taxes).toEqual(each);
    expect(unpaidProposal(next, item, october)).toBeUndefined();
    expect(unpaidProposal(next, item, november)?.taxes).toEqual(each);
    const taxes = item.taxes.map((one) => ({ ...one, done: 3_600_00 }));
    expect(
      unpaidProposal(next, { ...item, unpaid: 23_600_00, taxes }, quarter("2025-12-01", "2025-12-31")),
    ).toMatchObject({ way: "back", taxes: each.map((one) => ({ ...one, amount: 1_800_00 })) });
  });

  // za.md 7.6: 11,500 with 1,500.00, of which 4,600 unpaid: 600.00; sg.md 7.6: a bill of 2024, 2,180.00 with 180.00.
  test("South Africa and Singapore: twelve months", () => {
    const item = bill("2025-03-10", 11_500_00, 1_500_00, { reported: "2025-03-31", unpaid: 4_600_00 });
    const rule = ruleOf("za", "unpaid-input");
    expect(unpaidProposal(rule, item, quarter("2026-02-01", "2026-03-31"))).toBeUndefined();
    expect(unpaidProposal(rule, item, quarter("2026-04-01", "2026-05-31"))?.taxes).toEqual(vat(600_00));
    const unpaid = bill("2024-02-10", 2_180_00, 180_00);
    expect(
      unpaidProposal(ruleOf("sg", "unpaid-input"), unpaid, quarter("2025-01-01", "2025-03-31"))?.taxes,
    ).toEqual(vat(180_00));
  });
});

test("every rule names codes its pack has, in an option it offers", () => {
  for (const { unpaid = [], codes, options = [] } of SHIPPED) {
    const names = new Set(codes.flatMap(expandCode).map(({ code }) => code));
    for (const { relief, back, option, source } of unpaid) {
      expect([names.has(relief), names.has(back), source.length > 4]).toEqual([true, true, true]);
      if (option) {
        const offered = options.find(({ id }) => id === option[0])?.values.map(({ value }) => value);
        expect(offered).toContain(option[1]);
      }
    }
  }
});
