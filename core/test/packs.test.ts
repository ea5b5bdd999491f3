import { describe, expect, test } from "vitest";
import { at } from "@fiscalon/core/at";
import { checkPack } from "@fiscalon/core/jurisdictions/checkPack";
import { PACKS } from "./support/packs.ts";
import { ON_DEMAND } from "@fiscalon/core/packs/onDemand";
import { SHIPPED } from "@fiscalon/core/packs/shipped";
import { formOn } from "@fiscalon/core/returns/formOn";
import { dueDate, dueRuleFor } from "@fiscalon/core/calendar/dueDate";
import { filingPeriodOn } from "@fiscalon/core/calendar/filingPeriods";

test("packs that are fetched one by one are those that ship, by every name, in the same order", async () => {
  const fetched = await Promise.all(ON_DEMAND.map(({ load }) => load()));
  expect(fetched).toEqual(SHIPPED);
  expect(ON_DEMAND.map(({ names, country }) => [names, country])).toEqual(
    SHIPPED.map(({ id, aliases = [], country }) => [[...new Set([id, ...aliases])], country]),
  );
});

describe.each(PACKS.all.map((pack) => [pack.id, pack] as const))("pack %s", (_id, pack) => {
  test("keeps the contract: rates, codes, boxes, forms, rules, accounts", () => {
    expect(() => checkPack(pack)).not.toThrow();
  });
  test("has a form and a due date for every rhythm it offers", () => {
    for (const rhythm of pack.rhythms) {
      const period = filingPeriodOn({ ...rhythm, from: "2018-01-01", to: null }, "2026-05-11");
      const levies = pack.forms[0]?.levies ?? [];
      const end = period?.to ?? "";
      expect(formOn(pack, end, { levies }).boxes.length).toBeGreaterThan(4);
      const rule = dueRuleFor(pack.due, { periodEnd: end, frequency: rhythm.frequency, levies });
      expect(rule && dueDate(rule, end) > end).toBe(true);
    }
  });
  test("says where the law of the checks on claims stands, where tax is deducted at all", () => {
    if (!pack.levies.some(({ deducted }) => deducted)) return;
    for (const check of ["self-assessed", "no-supplier-number", "unregistered-supplier", "old"] as const)
      expect(pack.claims?.sources[check], check).toMatch(/\d/);
    expect(pack.claims?.numberAbove).toBeGreaterThanOrEqual(0);
  });
  test("names the source of every code, rate, rule and note", () => {
    const sources = [
      ...pack.codes.map(({ source }) => source),
      ...Object.values(pack.schedules).flatMap((rows) => rows.map(({ source }) => source)),
      ...pack.rules.map(({ source }) => source),
      ...pack.notes.map(({ source }) => source),
      ...pack.due.map(({ source }) => source),
    ];
    expect(sources.filter((source) => source.trim().length < 3)).toEqual([]);
  });
});

test("a scheme that names what a jurisdiction does not have is refused, with the place", () => {
  const gb = PACKS.byId("gb");
  const stockBook = gb.stockBook && { ...gb.stockBook, purchases: ["MGP", "NONE"] };
  expect(() => checkPack({ ...gb, ...(stockBook ? { stockBook } : {}) })).toThrow(/NONE is no code/);
  const codes = [...gb.codes, at(gb.codes, 0)];
  expect(() => checkPack({ ...gb, codes })).toThrow(/two codes S20/);
  const instalments = (gb.instalments ?? []).map((rule) => ({ ...rule, paidIn: "110" }));
  expect(() => checkPack({ ...gb, instalments })).toThrow(/110 is no box/);
});

test.each([
  ["AU", "au"],
  ["DE", "eu-de"],
])("the pack of %s is found by country and by other names", (country, id) => {
  expect(PACKS.byId(id).country).toBe(country);
  expect(PACKS.byId(country.toLowerCase()).id).toBe(id);
});
