import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { describe, expect, test } from "vitest";
import { Packs } from "@fiscalon/core/model/packs";
import { SHIPPED } from "@fiscalon/core/packs/shipped";
import { expandCode } from "@fiscalon/core/tax/expandCode";
import { filled, withQuery } from "../src/api/client.ts";
import { formulaWords } from "@fiscalon/core/returns/formulaWords";
import { SCREENS } from "../src/app/screens.ts";
import { inOtherOrder, isLawfulOrder } from "../src/features/setup/codeBenchInputs.ts";
import { writtenDate } from "../src/kit/dateOrder.ts";
import { plainAmount, plural, showPeriod } from "../src/kit/format.ts";

const packs = new Packs(SHIPPED);

describe("figures and dates as people write them", () => {
  test.each([
    ["1,234.50", "1234.50"],
    ["−3", "-3"],
    [" 12 000 ", "12000"],
    ["", ""],
  ])("%s is sent as %s", (typed, sent) => expect(plainAmount(typed)).toBe(sent));

  test("a date in the order of the place", () => {
    expect((["dmy", "mdy", "ymd"] as const).map((order) => writtenDate("2026-07-04", order))).toEqual([
      "04/07/2026",
      "07/04/2026",
      "2026-07-04",
    ]);
    expect(writtenDate("", "dmy")).toBe("");
  });

  test.each([
    ["2026-07-01", "2026-09-30", "Jul to Sept 2026"],
    ["2026-07-01", "2026-07-31", "Jul 2026"],
    ["2025-11-01", "2026-01-31", "Nov to Jan 2026"],
    ["2026-07-15", "2026-09-30", "15 Jul to 30 Sept 2026"],
  ])("the period %s to %s is %s", (from, to, words) => expect(showPeriod(from, to)).toBe(words));

  test("a day, and how many", () => {
    expect([displayDate("2026-07-04"), displayDate("")]).toEqual(["4 Jul 2026", ""]);
    expect([plural(1, "line"), plural(1200, "line"), plural(2, "entry", "entries")]).toEqual([
      "1 line",
      "1,200 lines",
      "2 entries",
    ]);
  });
});

describe("formulas of forms in words", () => {
  test.each([
    ["[1] + [2]", "box 1 + box 2"],
    ["[A] - [B] * 2", "A − B × 2"],
  ])("%s", (formula, words) => expect(formulaWords(formula, packs)).toBe(words));

  test("no formula of any form shows a rate by its id", () => {
    for (const pack of SHIPPED)
      for (const form of pack.forms)
        for (const box of form.boxes)
          if (box.kind === "formula")
            expect(formulaWords(box.formula, packs)).not.toMatch(/[{}]|\b[a-z]{2}\.[A-Z]/);
  });
});

test("no levy shows itself by a code of ours: papers and tables have words for it", () => {
  for (const pack of SHIPPED)
    for (const { levy } of pack.levies) expect(packs.levyName(levy)).not.toMatch(/:/);
  expect(packs.levyNames(["GST", "BCPST"])).toBe("GST, BC PST");
  expect(packs.levyName("a levy nobody knows")).toBe("a levy nobody knows");
});

describe("the order of stacked levies", () => {
  const stacked = SHIPPED.flatMap((pack) => pack.codes.flatMap(expandCode)).filter(
    (code) => code.order !== undefined && code.components.length > 1,
  );
  test("there are such codes, each lawful as it ships, unlawful turned round, lawful turned back", () => {
    expect(stacked.length).toBeGreaterThan(0);
    for (const code of stacked) {
      const turned = inOtherOrder(code);
      expect([code.code, isLawfulOrder(code, packs)]).toEqual([code.code, true]);
      if (!turned) continue;
      expect(isLawfulOrder(turned, packs)).toBe(false);
      expect(isLawfulOrder(inOtherOrder(turned) ?? turned, packs)).toBe(true);
    }
  });
});

test("paths of the API are filled in and escaped, a query leaves out what is undefined", () => {
  expect(filled("/clients/:id/codes/:code", [3, "S 20/x"])).toBe("/clients/3/codes/S%2020%2Fx");
  expect(withQuery("/clients", { search: "a&b", limit: undefined })).toBe("/clients?search=a%26b");
  expect(withQuery("/clients", {})).toBe("/clients");
});

test("every screen has one address, and every one that is told in the palette has words", () => {
  const paths = SCREENS.map(({ path, of }) => `${of} ${path}`);
  expect(new Set(paths).size).toBe(paths.length);
});
