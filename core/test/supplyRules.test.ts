import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { at } from "@fiscalon/core/at";
import type { Circumstances } from "@fiscalon/core/model/circumstances";
import type { JurisdictionPack } from "@fiscalon/core/model/pack";
import type { SupplyRule } from "@fiscalon/core/model/supplyRule";
import { circumstancesOf } from "@fiscalon/core/supply/circumstances";
import { answerOfRules, codesWithinReach, specificity, tryRules } from "@fiscalon/core/supply/tryRules";
import type { SupplyQuestion } from "@fiscalon/core/supply/tryRules";
import { PACKS } from "./support/packs.ts";
import { ruleOf } from "./support/rules.ts";

const RULE = ruleOf("r", { code: "X", words: "because" });

const AT_HOME: Circumstances = {
  home: "GB",
  country: "GB",
  place: "",
  there: "",
  abroad: "no",
  union: "no",
  party: "registered",
  unknown: "",
};

const asked = (part: Partial<SupplyQuestion> = {}, circumstances: Circumstances = {}): SupplyQuestion => ({
  direction: "sale",
  taxClass: "standard",
  supply: "goods",
  on: "2026-05-11",
  ...part,
  circumstances: { ...AT_HOME, ...circumstances },
});

describe("one rule asked", () => {
  const why = (rule: Partial<SupplyRule>, question: SupplyQuestion) => {
    const [trial] = tryRules([{ ...RULE, ...rule }], question);
    return trial === undefined ? "not asked" : trial.applies ? "applies" : trial.why;
  };

  test.each<[string, Partial<SupplyRule>, SupplyQuestion, string]>([
    ["the other side of the books", { direction: "purchase" }, asked(), "not asked"],
    ["another class", { taxClass: "zero" }, asked(), "is for tax class zero"],
    ["no class said", {}, asked({ taxClass: "" }), "depends on the tax class"],
    ["another kind", { supply: "services" }, asked(), "is for services"],
    ["no kind said", { supply: "services" }, asked({ supply: "" }), "depends on goods or services"],
    ["no kind said where none matters", {}, asked({ supply: "" }), "applies"],
    ["the day before", { validFrom: "2026-05-12" }, asked(), "applies from 12 May 2026"],
    ["the first day", { validFrom: "2026-05-11" }, asked(), "applies"],
    ["the last day", { validTo: "2026-05-11" }, asked(), "applies"],
    ["the day after", { validTo: "2026-05-10" }, asked(), "applied until 10 May 2026"],
    ["to home", { to: "home" }, asked(), "applies"],
    [
      "to home, from abroad",
      { to: "home" },
      asked({}, { country: "NO", abroad: "yes" }),
      "is for supplies to home",
    ],
    ["abroad", { to: "abroad" }, asked({}, { country: "NO", abroad: "yes" }), "applies"],
    ["abroad, at home", { to: "abroad" }, asked(), "is for supplies to abroad"],
    ["to the union", { to: "union" }, asked({}, { country: "FR", abroad: "yes", union: "yes" }), "applies"],
    [
      "outside the union, inside",
      { to: "outside-union" },
      asked({}, { country: "FR", abroad: "yes", union: "yes" }),
      "is for supplies to outside-union",
    ],
    ["outside the union", { to: "outside-union" }, asked({}, { country: "NO", abroad: "yes" }), "applies"],
    ["outside the union, at home", { to: "outside-union" }, asked(), "is for supplies to outside-union"],
    ["to a country", { to: "NO" }, asked({}, { country: "NO", abroad: "yes" }), "applies"],
    ["to another country", { to: "NO" }, asked(), "is for supplies to NO"],
    ["to a region", { to: "GB-NI" }, asked({}, { there: "NI" }), "applies"],
    ["to another region", { to: "GB-NI" }, asked({}, { there: "SCT" }), "is for supplies to GB-NI"],
    [
      "to a region nobody told",
      { to: "GB-NI" },
      asked({}, { there: "", unknown: "region" }),
      "depends on the region of the other side",
    ],
    ["from our region", { from: "GB-NI" }, asked({}, { place: "NI" }), "applies"],
    [
      "from another of our regions",
      { from: "GB-NI" },
      asked({}, { place: "SCT" }),
      "is for supplies from GB-NI",
    ],
    ["another party", { party: "resale" }, asked(), "is for a party that is resale"],
    [
      "a party nobody asked",
      { party: "registered" },
      asked({}, { party: "unregistered", unknown: "standing" }),
      "depends on whether the other side is registered",
    ],
    [
      "a special standing is never supposed",
      { party: "resale" },
      asked({}, { party: "unregistered", unknown: "standing" }),
      "is for a party that is resale",
    ],
    [
      "without the registration",
      { needs: "PST" },
      asked({ registeredFor: () => false }),
      "needs a registration for PST",
    ],
    [
      "with the registration",
      { needs: "PST" },
      asked({ registeredFor: (levy) => levy === "PST" }),
      "applies",
    ],
    [
      "two things that are missing",
      { supply: "goods", party: "registered" },
      asked({ supply: "" }, { party: "unregistered", unknown: "standing" }),
      "depends on goods or services and whether the other side is registered",
    ],
  ])("%s", (_what, rule, question, expected) => expect(why(rule, question)).toBe(expected));

  test("the closer one answers, and the wider one says that it came too late", () => {
    const wide = { ...RULE, id: "wide", code: "W" };
    const close = { ...RULE, id: "close", code: "C", to: "GB", party: "registered" };
    expect(specificity(close)).toBeGreaterThan(specificity(wide));
    expect(tryRules([wide, close], asked()).map(({ rule, why: words }) => [rule.id, words])).toEqual([
      ["close", "because"],
      ["wide", "a more specific rule answered before it"],
    ]);
  });

  test("an unknown thing is asked for only where it makes a difference", () => {
    const goods = { ...RULE, id: "g", supply: "goods" as const, code: "G" };
    const services = { ...RULE, id: "s", supply: "services" as const, code: "S" };
    expect(answerOfRules([goods, services], asked({ supply: "" })).missing).toBe("supply");
    const same = answerOfRules(
      [goods, { ...services, code: "G" }, { ...RULE, code: "G" }],
      asked({ supply: "" }),
    );
    expect([same.missing, same.rule?.code]).toEqual([undefined, "G"]);
  });
});

/** A question of one of the shipped packs, with some of what is known of it taken away. */
const questions = fc.constantFrom(...PACKS.all).chain((pack) =>
  fc.record({
    pack: fc.constant(pack),
    direction: fc.constantFrom("sale" as const, "purchase" as const),
    taxClass: fc.constantFrom(...new Set(pack.rules.map((rule) => rule.taxClass))),
    supply: fc.constantFrom("goods" as const, "services" as const),
    ours: regionIn(pack),
    theirs: fc.constantFrom(pack.country, "NO", "FR", "US").chain((country) =>
      fc.record({
        country: fc.constant(country),
        region: country === pack.country ? regionIn(pack) : fc.constant(null),
      }),
    ),
    registered: fc.boolean(),
    forgotten: fc.subarray(["supply", "standing", "region", "taxClass"] as const),
  }),
);

function regionIn(pack: JurisdictionPack): fc.Arbitrary<string | null> {
  const codes = (pack.regions ?? []).map(({ code }) => code);
  return codes.length === 0 ? fc.constant(null) : fc.constantFrom(...codes);
}

type Asked = typeof questions extends fc.Arbitrary<infer Q> ? Q : never;

/** What is asked when some of it is not said. */
function questionOf(
  { pack, direction, taxClass, supply, ours, theirs, registered }: Asked,
  forgotten: readonly Asked["forgotten"][number][],
): SupplyQuestion {
  const lost = new Set(forgotten);
  const said = lost.has("supply") ? undefined : supply;
  const circumstances = circumstancesOf(
    {
      site: { country: pack.country, region: ours },
      party: {
        country: theirs.country,
        region: lost.has("region") ? null : theirs.region,
        registered: lost.has("standing") ? null : registered,
        taxNumber: null,
        standing: {},
      },
    },
    said === undefined ? {} : { supply: said },
    direction,
    false,
    PACKS,
  );
  return {
    direction,
    taxClass: lost.has("taxClass") ? "" : taxClass,
    supply: said ?? "",
    on: "2026-05-11",
    circumstances,
  };
}

describe("the rules of every pack", () => {
  test("who knows more never gets another code than the one that was given without it", () => {
    fc.assert(
      fc.property(questions, (known) => {
        const less = answerOfRules(known.pack.rules, questionOf(known, known.forgotten));
        if (less.rule === undefined) return;
        const all = answerOfRules(known.pack.rules, questionOf(known, []));
        expect(all.rule?.code).toBe(less.rule.code);
      }),
      { numRuns: 4000 },
    );
  });

  test("where all is known, nothing is asked; what is asked for was not known", () => {
    fc.assert(
      fc.property(questions, (known) => {
        expect(answerOfRules(known.pack.rules, questionOf(known, [])).missing).toBeUndefined();
        const { missing } = answerOfRules(known.pack.rules, questionOf(known, known.forgotten));
        if (missing !== undefined) expect(known.forgotten).toContain(missing);
      }),
      { numRuns: 2000 },
    );
  });

  test("the code that is found is within reach, with more unknown more is in reach, and one rule at most applies", () => {
    fc.assert(
      fc.property(questions, (known) => {
        const [less, all] = [questionOf(known, known.forgotten), questionOf(known, [])];
        const { rule } = answerOfRules(known.pack.rules, all);
        const near = codesWithinReach(known.pack.rules, all);
        const far = codesWithinReach(known.pack.rules, less);
        if (rule && rule.code !== "") expect(near).toContain(rule.code);
        if (!known.forgotten.includes("region")) for (const code of near) expect(far).toContain(code);
        const applying = tryRules(known.pack.rules, all).filter(({ applies }) => applies);
        expect(applying.map(({ rule: { code } }) => code)).toEqual(rule ? [rule.code] : []);
      }),
      { numRuns: 2000 },
    );
  });

  test("every rule that refuses or waits says why in words, and the one that answers says its own", () => {
    fc.assert(
      fc.property(questions, (known) => {
        for (const { rule, applies, why } of tryRules(known.pack.rules, questionOf(known, known.forgotten)))
          expect(
            applies ? why === rule.words : /^(is for|applie|needs|depends on|a more)/.test(why),
            why,
          ).toBe(true);
      }),
      { numRuns: 200 },
    );
  });

  test("no rule stands in the shadow of one that asks the same", () => {
    for (const pack of PACKS.all) {
      const seen = new Map<string, SupplyRule[]>();
      for (const rule of pack.rules) {
        const { direction, taxClass, supply, from, to, party, needs } = rule;
        const key = [direction, taxClass, supply, from, to, party, needs ?? ""].join(" ");
        for (const other of seen.get(key) ?? []) {
          const apart =
            (other.validTo !== null && rule.validFrom !== null && other.validTo < rule.validFrom) ||
            (rule.validTo !== null && other.validFrom !== null && rule.validTo < other.validFrom);
          expect(apart, `${pack.id}: ${rule.id} and ${other.id} ask the same`).toBe(true);
        }
        seen.set(key, [...(seen.get(key) ?? []), rule]);
      }
    }
  });
});

describe("a standard sale at home, and the same sale abroad", () => {
  test.each(PACKS.all.map((pack) => [pack.id, pack] as const))(
    "%s: two codes, both with an answer",
    (_id, pack) => {
      const region = at([...(pack.regions ?? []).map(({ code }) => code), null], 0);
      const code = (country: string) =>
        answerOfRules(
          pack.rules,
          questionOf(
            {
              pack,
              direction: "sale",
              taxClass: "standard",
              supply: "goods",
              ours: region,
              theirs: { country, region: country === pack.country ? region : null },
              registered: false,
              forgotten: [],
            },
            [],
          ),
        ).rule?.code;
      expect(code("NO")).toBeDefined();
      expect(code(pack.country)).toBeDefined();
      expect(code("NO")).not.toBe(code(pack.country));
    },
  );
});

/** Places we sell from and buy at that the rules of a country tell apart; elsewhere no region does. */
const OURS: Readonly<Record<string, readonly string[]>> = {
  gb: ["", "NIR"],
  ca: ["ON", "NB", "NS", "QC", "BC", "SK", "MB", "AB"],
  in: ["29", "07", "04"],
  us: ["TX", "NY"],
  ae: ["DU", "AZ"],
};

describe("every place, party, class and kind has a code, or a sentence why not", () => {
  test.each(PACKS.all.map((pack) => [pack.id, pack] as const))("%s", (id, pack) => {
    const regions = OURS[id] ?? [""];
    const member = [...(pack.union?.members.keys() ?? [])].find((one) => one !== pack.country);
    const parties = ["registered", "unregistered", ...(pack.standings ?? []).map((one) => one.id)];
    const unanswered: string[] = [];
    let refusals = 0;
    for (const place of regions) {
      const places = [
        ...regions.map((there) => [pack.country, there]),
        ...(member === undefined ? [] : [[member, ""]]),
        ...(pack.union ? [["GB", "NIR"]] : []),
        ["NO", ""],
      ];
      for (const direction of ["sale", "purchase"] as const)
        for (const { id: taxClass } of pack.classes)
          for (const supply of ["goods", "services"] as const)
            for (const party of parties)
              for (const [country = "", there = ""] of places) {
                const abroad = country !== pack.country;
                const { rule } = answerOfRules(pack.rules, {
                  direction,
                  taxClass,
                  supply,
                  on: "2026-05-11",
                  registeredFor: () => true,
                  circumstances: {
                    home: pack.country,
                    country,
                    place,
                    there,
                    abroad: abroad ? "yes" : "no",
                    union: abroad && (pack.union?.members.has(country) ?? false) ? "yes" : "no",
                    party,
                    unknown: "",
                  },
                });
                if (!rule) unanswered.push([place, direction, taxClass, supply, party, country].join(" "));
                if (rule?.code === "") refusals += 1;
              }
    }
    expect(unanswered).toEqual([]);
    // India alone: the transport of goods is never goods itself.
    expect(refusals > 0).toBe(id === "in");
  });
});
