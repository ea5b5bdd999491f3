import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { at } from "@fiscalon/core/at";
import { addDays } from "@fiscalon/core/calendar/date";
import { FiscalError } from "@fiscalon/core/errors";
import type { Component, RateRow, TaxCode } from "@fiscalon/core/model/taxCode";
import { checkCode } from "@fiscalon/core/tax/checkCode";
import { checkSchedules } from "@fiscalon/core/tax/checkSchedules";
import { codesByName, expandCode } from "@fiscalon/core/tax/expandCode";
import { rateInForce, rowInForce } from "@fiscalon/core/tax/rateInForce";
import { PACKS } from "./support/packs.ts";

const gb = PACKS.byId("gb");
const standard = at(
  gb.codes.filter(({ code }) => code === "S20"),
  0,
);
const around = {
  levies: new Set(["VAT"]),
  schedules: gb.schedules,
  accounts: gb.accounts,
  hasBox: (box: string) => gb.forms.some((form) => form.boxes.some(({ id }) => id === box)),
};

function refusal(work: () => unknown): [code?: string, field?: string] {
  try {
    work();
  } catch (error) {
    if (error instanceof FiscalError)
      return error.field === undefined ? [error.code] : [error.code, error.field];
    throw error;
  }
  return [];
}

const withComponent = (change: Partial<Component>, code: Partial<TaxCode> = {}): TaxCode => ({
  ...standard,
  ...code,
  components: standard.components.map((component) => ({ ...component, ...change })),
});

describe("a code that could not be computed, posted or landed is refused with the place of the fault", () => {
  const formula = (text: string, base?: string): Partial<Component> => ({
    rate: { kind: "formula", formula: text, ...(base === undefined ? {} : { base }) },
  });
  test.each<[string, TaxCode, string, string]>([
    ["a levy nobody has", withComponent({ levy: "GST" }), "tax/unknown-levy", "components[0].levy"],
    [
      "rates nobody has",
      withComponent({ rate: { kind: "percent", schedule: "gb.NONE" } }),
      "tax/unknown-schedule",
      "components[0].rate.schedule",
    ],
    [
      "more than all deducted",
      withComponent({ recoverable: "101" }),
      "tax/share-range",
      "components[0].recoverable",
    ],
    [
      "less than nothing deducted",
      withComponent({ recoverable: "-1" }),
      "tax/share-range",
      "components[0].recoverable",
    ],
    [
      "a share that is none",
      withComponent({ recoverable: "half" }),
      "money/not-a-number",
      "components[0].recoverable",
    ],
    [
      "a base of more than the price",
      withComponent({ base: { share: "120" } as Component["base"] }),
      "tax/share-range",
      "components[0].base.share",
    ],
    [
      "a tag that does not say what lands",
      withComponent({ boxes: { sale: "1 +x" } }),
      "tax/bad-box-tag",
      "components[0].boxes.sale",
    ],
    [
      "a tag without a sign",
      withComponent({ boxes: { sale: "1 t" } }),
      "tax/bad-box-tag",
      "components[0].boxes.sale",
    ],
    [
      "a box no form has",
      withComponent({ boxes: { purchase: "77 +t" } }),
      "tax/unknown-box",
      "components[0].boxes.purchase",
    ],
    [
      "a formula that reads a name nobody gives",
      withComponent(formula("cost * 2")),
      "formula/unknown-name",
      "components[0].rate.formula",
    ],
    [
      "a formula that reads a box",
      withComponent(formula("[1] * 2")),
      "formula/unknown-name",
      "components[0].rate.formula",
    ],
    [
      "a formula over rates nobody has",
      withComponent(formula("net * {gb.NONE}")),
      "tax/unknown-schedule",
      "components[0].rate.formula",
    ],
    [
      "a base that reads a name nobody gives",
      withComponent(formula("net", "margin")),
      "formula/unknown-name",
      "components[0].rate.base",
    ],
    [
      "shares of less than all",
      withComponent({ splits: { invoice: [{ share: "99" }] } }),
      "tax/shares",
      "components[0].splits.invoice",
    ],
    [
      "a share for an account that is not there",
      withComponent({ splits: { invoice: [{ share: "100", account: "9999" }] } }),
      "tax/no-account",
      "components[0].splits.invoice[0]",
    ],
  ])("%s", (_what, code, error, field) =>
    expect(refusal(() => checkCode(code, around))).toEqual([error, field]),
  );

  test("a levy needs an account for each side the code is on, and none for a side it is not", () => {
    const without = (role: string) => ({
      ...around,
      accounts: gb.accounts.filter((account) => account.role !== role),
    });
    const missing = ["tax/no-account", "components[0].levy"];
    expect(refusal(() => checkCode(standard, without("output-tax")))).toEqual(missing);
    expect(refusal(() => checkCode(standard, without("input-tax")))).toEqual(missing);
    expect(refusal(() => checkCode(withComponent({}, { direction: "sale" }), without("input-tax")))).toEqual(
      [],
    );
    expect(
      refusal(() =>
        checkCode(withComponent({ recoverable: "0" }, { direction: "purchase" }), without("input-tax")),
      ),
    ).toEqual([]);
    const selfAssessed = withComponent({ charged: "self-assessed" }, { direction: "purchase" });
    expect(refusal(() => checkCode(selfAssessed, without("output-tax")))).toEqual(missing);
  });

  test("an input the code asks for may be read", () => {
    expect(
      refusal(() =>
        checkCode(withComponent(formula("max(0, gross - cost) / 6"), { inputs: ["cost"] }), around),
      ),
    ).toEqual([]);
  });
});

describe("rates by date", () => {
  const day = fc.nat(40).map((days) => addDays("2026-01-01", days));
  const row = fc.record({
    from: day,
    length: fc.option(fc.nat(12), { nil: null }),
    rate: fc.constantFrom("0", "5", "17.5", "20"),
  });
  const rows = fc.array(row, { maxLength: 5 }).map((list) =>
    list.map(({ from, length, rate }): RateRow => ({
      from,
      to: length === null ? null : addDays(from, length),
      rate,
      source: "",
    })),
  );

  test("are refused where two hold on a day, and else say one rate a day or none", () => {
    fc.assert(
      fc.property(rows, (list) => {
        const [code] = refusal(() => checkSchedules({ "x.STD": list }));
        let doubled = false;
        for (let days = 0; days < 60; days += 1) {
          const on = addDays("2026-01-01", days);
          const holding = list.filter(({ from, to }) => from <= on && (to === null || on <= to));
          doubled ||= holding.length > 1;
          if (code === undefined) expect(rowInForce(list, on)).toEqual(holding[0]);
        }
        expect(code).toBe(doubled ? "tax/overlapping-rates" : undefined);
      }),
      { numRuns: 800 },
    );
  });

  test.each([
    [
      "a row that ends before it begins",
      [{ from: "2026-02-01", to: "2026-01-31", rate: "20", source: "" }],
      "tax/bad-rate-row",
      "schedules.x.STD[0].from",
    ],
    [
      "a day that does not exist",
      [{ from: "2026-02-30", to: null, rate: "20", source: "" }],
      "tax/bad-rate-row",
      "schedules.x.STD[0].from",
    ],
    [
      "a rate that is none",
      [{ from: "2026-02-01", to: null, rate: "a fifth", source: "" }],
      "money/not-a-number",
      "schedules.x.STD[0]",
    ],
  ])("%s is refused", (_what, list, code, field) => {
    expect(refusal(() => checkSchedules({ "x.STD": list }))).toEqual([code, field]);
  });

  test("no rate in force is an error that names the day, never nought", () => {
    const component = at(standard.components, 0);
    expect(() => rateInForce(component, { "gb.STD": [] }, "2026-01-01")).toThrow(
      /No rate of VAT is in force on 1 Jan 2026/,
    );
    expect(rateInForce({ ...component, rate: { kind: "none" } }, {}, "2026-01-01")).toBeUndefined();
  });
});

describe("the codes a definition stands for", () => {
  test("have names of their own in every pack, and nothing is left open in them", () => {
    for (const pack of PACKS.all) {
      const all = pack.codes.flatMap(expandCode);
      expect([pack.id, codesByName(pack.codes).size]).toEqual([pack.id, all.length]);
      for (const code of all) {
        expect(code.code, pack.id).not.toMatch(/[{}\s]/);
        expect(JSON.stringify(code.components), `${pack.id} ${code.code}`).not.toMatch(/\{[rp]\}/);
      }
    }
  });

  test("a variant is bought with, and deducts another share of what is deducted at all", () => {
    for (const pack of PACKS.all)
      for (const code of pack.codes)
        for (const { suffix, recoverable } of code.variants ?? []) {
          const made = codesByName([{ ...code, family: undefined } as TaxCode]).get(`${code.code}-${suffix}`);
          expect(made?.direction).toBe("purchase");
          made?.components.forEach((component, index) =>
            expect(component.recoverable).toBe(
              code.components[index]?.recoverable === "0" ? "0" : recoverable,
            ),
          );
        }
  });
});
