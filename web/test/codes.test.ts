import { describe, expect, test } from "vitest";
import { at } from "@fiscalon/core/at";
import { FiscalError } from "@fiscalon/core/errors";
import { setupFromPlain } from "@fiscalon/core/facts/plainSetup";
import type { PlainSetup } from "@fiscalon/core/facts/plainSetup";
import type { JurisdictionPack } from "@fiscalon/core/model/pack";
import { Packs } from "@fiscalon/core/model/packs";
import { minorDigits } from "@fiscalon/core/money/currency";
import { SHIPPED } from "@fiscalon/core/packs/shipped";
import { codesByName, expandCode } from "@fiscalon/core/tax/expandCode";
import type { TaxCode } from "@fiscalon/core/model/taxCode";
import { boxesOf, effectiveWords, stackParts, writtenCode } from "../src/records/codeWords.ts";
import { benchSetup, inOtherOrder, tryCode } from "../src/features/setup/codeBenchInputs.ts";
import type { Trial } from "../src/features/setup/codeBenchInputs.ts";
import { placeChoices, placeWords } from "../src/features/setup/ruleWords.ts";

const packs = new Packs(SHIPPED);

function codeIn(pack: string, name: string): TaxCode {
  const code = codesByName(packs.byId(pack).codes).get(name);
  if (!code) throw new Error(`${pack} has no code ${name}`);
  return code;
}

/** A client at home in the country of a pack, without a registration. */
function clientOf(pack: JurisdictionPack): { plain: PlainSetup; effect: ReturnType<typeof setupFromPlain> } {
  const plain: PlainSetup = {
    digits: minorDigits(pack.currency),
    currency: pack.currency,
    today: "2026-05-11",
    codes: pack.codes,
    schedules: pack.schedules,
    accounts: pack.accounts,
    registrations: [],
    sealed: [],
    archived: [],
    rules: pack.rules,
    places: [],
    saleCode: null,
    purchaseCode: null,
  };
  return { plain, effect: setupFromPlain(plain, packs) };
}

const TRIAL: Trial = {
  amount: "100",
  quantity: "",
  date: "2026-05-11",
  side: "sale",
  credit: false,
  place: null,
  country: "",
  region: "",
  party: "registered",
  inputs: {},
};

describe("a code in a list", () => {
  test.each([
    ["gb", "S20", ["VAT 20 %"], "20 %", "6 1", "S20"],
    ["gb", "Z", ["VAT 0 %"], "–", "6", "Z"],
    ["nz", "S15", ["GST 15 %"], "15 %", "5", "S15"],
    ["ae", "S5", ["VAT 5 %"], "5 %", "1*.a 1*.v", "S5"],
  ])("%s %s: its levies, what they add, its boxes", (pack, name, stack, effective, boxes, written) => {
    const code = codeIn(pack, name);
    const { schedules } = packs.byId(pack);
    expect(stackParts(code, schedules).map(({ component, rate }) => `${component.levy} ${rate}`)).toEqual(
      stack,
    );
    expect(effectiveWords(code, schedules)).toBe(effective);
    expect(new Set(boxesOf(code, "sale").split(" "))).toEqual(new Set(boxes.split(" ")));
    expect(writtenCode(code)).toBe(written);
  });

  // Australia's wine equalisation tax of 29 % with GST of 10 % on top adds 41.9 % to a price: 1.29 × 1.10.
  test("tax on tax adds more than the sum of its rates", () => {
    const wine = packs.byId("au").codes.find((code) => inOtherOrder(code) !== undefined);
    expect(wine && effectiveWords(wine, packs.byId("au").schedules)).toBe("41.9 %");
  });

  test("every shipped code has a stack, and boxes only on the sides it is for", () => {
    for (const pack of SHIPPED)
      for (const code of pack.codes) {
        const parts = stackParts(code, pack.schedules);
        // What is outside every tax, and on no return, has none.
        const least = code.treatment === "out-of-scope" ? 0 : 1;
        expect(parts.length, `${pack.id} ${code.code}`).toBeGreaterThanOrEqual(least);
        for (const { rate, width } of parts) {
          expect(rate, `${pack.id} ${code.code}`).not.toMatch(/undefined|NaN|\?/);
          expect(width).toBeGreaterThanOrEqual(0);
        }
        const other = { sale: "purchase", purchase: "sale", both: undefined }[code.direction];
        if (other === "sale" || other === "purchase") expect(boxesOf(code, other)).toBe("");
        expect(boxesOf(code, "sale")).not.toContain("{");
      }
  });

  test("a family is written by its first and last member, and shows its slabs", () => {
    const families = SHIPPED.flatMap((pack) => pack.codes.filter(({ family }) => family !== undefined));
    expect(families.length).toBeGreaterThan(0);
    for (const family of families) {
      expect(writtenCode(family)).toMatch(/^\S+ … \S+$/);
      expect(effectiveWords(family, {})).toBe("by place");
    }
  });
});

describe("a code on the bench", () => {
  test("£100 of standard rate, in and without tax, and back as a credit", () => {
    const setup = clientOf(packs.byId("gb"));
    const figures = (trial: Partial<Trial>, mode: "exclusive" | "inclusive") => {
      const effect = tryCode(codeIn("gb", "S20"), { ...TRIAL, ...trial }, mode, setup);
      if (effect instanceof FiscalError) throw effect;
      const { net, tax, gross } = effect.priced;
      return [net, tax, gross, effect.facts.reduce((sum, fact) => sum + fact.net, 0)];
    };
    expect(figures({}, "exclusive")).toEqual([10000, 2000, 12000, 10000]);
    expect(figures({}, "inclusive")).toEqual([8333, 1667, 10000, 8333]);
    expect(figures({ credit: true }, "exclusive")).toEqual([10000, 2000, 12000, -10000]);
  });

  test("every shipped code, each side, both modes: figures that add up, or a sentence that says what is missing", () => {
    let worked = 0;
    for (const pack of SHIPPED) {
      const setup = clientOf(pack);
      for (const code of pack.codes.flatMap(expandCode))
        for (const side of code.direction === "both" ? (["sale", "purchase"] as const) : [code.direction])
          for (const mode of ["exclusive", "inclusive"] as const) {
            const inputs = Object.fromEntries((code.inputs ?? []).map((name) => [name, "10"]));
            const date = code.to !== null && code.to < TRIAL.date ? code.to : TRIAL.date;
            const effect = tryCode(code, { ...TRIAL, side, date, inputs, quantity: "2" }, mode, setup);
            const name = `${pack.id} ${code.code} ${side} ${mode}`;
            if (effect instanceof FiscalError) {
              expect(effect.message, name).toMatch(/^[A-Z"].{15,}[.?]$/s);
              continue;
            }
            worked += 1;
            const { net, tax, gross, lines } = effect.priced;
            expect(net + tax, name).toBe(gross);
            expect(
              lines.reduce((sum, line) => sum + line.net, 0),
              name,
            ).toBe(net);
            const sum = effect.postings.reduce((total, { amount }) => total + amount, 0);
            expect(sum, name).toBe(0);
          }
    }
    expect(worked).toBeGreaterThan(500);
  });

  test("turned round, the stack gives another tax, and turned twice the lawful one", () => {
    const pack = packs.byId("au");
    const setup = clientOf(pack);
    const wine = pack.codes.flatMap(expandCode).find((code) => inOtherOrder(code) !== undefined);
    if (!wine) throw new Error("Australia ships no stacked code");
    const tax = (code: TaxCode) => {
      const effect = tryCode(code, TRIAL, "exclusive", setup);
      if (effect instanceof FiscalError) throw effect;
      return effect.priced.lines.flatMap(({ taxes }) =>
        taxes.map(({ component, tax: amount }) => `${component.levy} ${amount}`),
      );
    };
    const turned = inOtherOrder(wine) ?? wine;
    // 29 % of 100.00 and 10 % of 129.00; the other way 10 % of 100.00 and 29 % of 110.00.
    expect(tax(wine)).toEqual(["WET 2900", "GST 1290"]);
    expect(tax(turned)).toEqual(["GST 1000", "WET 3190"]);
    expect(tax(inOtherOrder(turned) ?? turned)).toEqual(tax(wine));
  });

  test("the bench registers for what the code bears, whatever the client is registered for", () => {
    for (const pack of SHIPPED) {
      const code = at(pack.codes, 0);
      const { registrations, sealed } = benchSetup(code, clientOf(pack));
      const levies = new Set(registrations.flatMap((registration) => registration.levies));
      for (const { levy } of code.components) expect(levies, `${pack.id} ${code.code}`).toContain(levy);
      expect([registrations.length, sealed.size]).toEqual([1, 0]);
    }
  });

  test("what is typed wrong is told, not thrown", () => {
    const answer = tryCode(
      codeIn("gb", "S20"),
      { ...TRIAL, amount: "a lot" },
      "exclusive",
      clientOf(packs.byId("gb")),
    );
    expect(answer).toBeInstanceOf(FiscalError);
    expect((answer as FiscalError).field).toBe("lines[0].amount");
  });
});

describe("places of rules in words", () => {
  test.each([
    ["any", "anywhere"],
    ["home", "at home"],
    ["union", "another EU member"],
    ["abroad", "abroad"],
    ["outside-union", "outside the EU"],
    ["GB", "United Kingdom"],
    ["CA-ON", "Ontario"],
    ["IN-29", "Karnataka"],
    ["CA-XX", "CA-XX"],
    ["AQ", "AQ"],
  ])("%s is %s", (place, words) => expect(placeWords(packs, place)).toBe(words));

  test("the choices of a client are its countries and their regions, each once, each in words", () => {
    const choices = placeChoices(packs, ["CA", "CA", "GB"]);
    expect(new Set(choices.map(({ value }) => value)).size).toBe(choices.length);
    expect(choices.filter(({ value }) => value.startsWith("CA-")).length).toBe(
      packs.ofCountry("CA")?.regions?.length,
    );
    for (const { name } of choices) expect(name).not.toMatch(/^[A-Z]{2}(-|$)/);
  });

  test("every place a shipped rule names has words", () => {
    for (const pack of SHIPPED)
      for (const { from, to } of pack.rules)
        for (const place of [from, to])
          if (place !== "abroad") expect(placeWords(packs, place), place).not.toBe(place);
  });
});
