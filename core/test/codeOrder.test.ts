import fc from "fast-check";
import { describe, expect, test } from "vitest";
import type { EffectSetup } from "@fiscalon/core/facts/effect";
import type { DocumentInput, LineInput } from "@fiscalon/core/model/document";
import type { Party } from "@fiscalon/core/model/party";
import { chooseCodes } from "@fiscalon/core/supply/chooseCode";
import { circumstancesOf } from "@fiscalon/core/supply/circumstances";
import { inOrderOfAsking } from "@fiscalon/core/supply/tryRules";
import { expandCode } from "@fiscalon/core/tax/expandCode";
import { setupOf } from "./support/books.ts";
import { PACKS } from "./support/packs.ts";
import { ruleOf } from "./support/rules.ts";

const reed: Party = {
  name: "Reed & Co",
  country: "GB",
  region: null,
  registered: true,
  taxNumber: "980780684",
  standing: {},
};
const document = (line: Partial<LineInput>, more: Partial<DocumentInput> = {}): DocumentInput => ({
  kind: "sales-invoice",
  date: "2026-05-11",
  prices: "exclusive",
  site: { country: "GB", region: null },
  party: reed,
  lines: [{ amount: "100.00", ...line }],
  ...more,
});
const GB = setupOf("gb");
const choice = (
  line: Partial<LineInput>,
  more: Partial<DocumentInput> = {},
  setup: Partial<EffectSetup> = {},
) => {
  const [one] = chooseCodes(document(line, more), { ...GB, ...setup });
  return {
    code: one?.code?.code ?? null,
    source: one?.source ?? null,
    asks: one?.asks?.about ?? null,
    why: one?.reason,
  };
};

/** The order is the product's own: typed, supply rule, contact, item, account, place, business. */
describe("of the candidates for a code the first that answers is taken", () => {
  const account = GB.accounts.find(({ type }) => type === "income")?.code ?? "";
  const withAccount = GB.accounts.map((one) => (one.code === account ? { ...one, usualCode: "OS" } : one));
  const items = {
    bowl: { name: "Bowl", supply: "goods", taxClass: null, saleCode: "EX", purchaseCode: null },
  } as unknown as NonNullable<DocumentInput["items"]>;
  const everything = {
    items,
    party: { ...reed, saleCode: "Z", purchaseCode: null },
    site: { country: "GB", region: null, name: "Falmouth", saleCode: "H", purchaseCode: null },
  };
  const usual = { accounts: withAccount, saleCode: "S20" };

  test.each([
    [{ code: "R5", taxClass: "zero", item: "bowl", account }, everything, "R5", "typed"],
    [{ taxClass: "zero", item: "bowl", account }, everything, "Z", "rule"],
    [{ item: "bowl", account }, everything, "Z", "contact"],
    [{ item: "bowl", account }, { ...everything, party: reed }, "EX", "item"],
    [{ account }, { ...everything, party: reed }, "OS", "account"],
    [{}, { ...everything, party: reed }, "H", "place"],
    [{}, { party: reed }, "S20", "business"],
  ])("%#", (line, more, code, source) =>
    expect(choice(line, more as Partial<DocumentInput>, usual)).toMatchObject({ code, source }),
  );

  test("each says why in a sentence of its own, and the sentence kept with a typed code stays", () => {
    expect(choice({}, everything as Partial<DocumentInput>, usual).why).toBe("usual code of Reed & Co");
    expect(choice({}, { party: reed }, usual).why).toBe("the business's usual sale code");
    expect(choice({ code: "S20", codeReason: "the business's usual sale code" }).why).toBe(
      "the business's usual sale code",
    );
  });

  test("none on purpose is none; what is archived, of the other side, or not in use on the day is passed over", () => {
    expect(choice({ code: null }, {}, usual)).toMatchObject({ code: null, source: null, asks: null });
    expect(choice({}, {}, { ...usual, archived: new Set(["S20"]) }).code).not.toBe("S20");
    expect(choice({}, {}, { saleCode: "PVA20" }).code).not.toBe("PVA20");
    const old = new Map(
      [...GB.codes].map(([name, code]) => [name, name === "S20" ? { ...code, to: "2020-01-01" } : code]),
    );
    expect(choice({}, {}, { ...usual, codes: old }).code).not.toBe("S20");
  });

  test.each([
    ["tax/unknown-code", "lines[0].code", { code: "S99" }],
    ["tax/code-wrong-side", "lines[0].code", { code: "PVA20" }],
  ])("a typed code that cannot be is refused: %s", (code, field, line) =>
    expect(() => choice(line)).toThrow(expect.objectContaining({ code, field })),
  );
});

describe("a guess is never quiet: across a border what decides is asked for", () => {
  const norway: Party = { ...reed, name: "Fjordglass", country: "NO", taxNumber: null, registered: null };
  const usual = { saleCode: "S20", purchaseCode: "S20" };
  test("a customer abroad does not get the code of home because nobody said goods or services", () => {
    expect(choice({}, { party: norway }, usual)).toEqual({
      code: null,
      source: null,
      asks: "supply",
      why: undefined,
    });
    expect(choice({ supply: "goods" }, { party: norway }, usual).code).toBe("XG");
    expect(choice({ supply: "services" }, { party: { ...norway, registered: true } }, usual).code).toBe(
      "OSR",
    );
  });
  test("a supplier abroad: services are self-assessed, never deducted as at home", () =>
    expect(
      choice({ supply: "services" }, { kind: "purchase-bill", party: { ...norway, registered: true } }, usual)
        .code,
    ).toBe("RCS"));
});

describe("circumstances", () => {
  const of = (
    site: DocumentInput["site"],
    party: Partial<Party> | null,
    direction: "sale" | "purchase" = "sale",
  ) =>
    circumstancesOf(
      { ...(site ? { site } : {}), ...(party ? { party: { ...reed, ...party } } : {}) },
      {},
      direction,
      false,
      PACKS,
    );
  test.each([
    [
      "home",
      { country: "GB", region: null },
      { country: "GB" },
      { abroad: "no", union: "no", scope: "local" },
    ],
    [
      "abroad",
      { country: "GB", region: null },
      { country: "NO" },
      { abroad: "yes", scope: "inter", there: "" },
    ],
    [
      "another member of the Union",
      { country: "IE", region: null },
      { country: "DE" },
      { abroad: "yes", union: "yes" },
    ],
    [
      "another Indian state",
      { country: "IN", region: "29" },
      { country: "IN", region: "27" },
      { scope: "inter", there: "27" },
    ],
    [
      "the same Indian state",
      { country: "IN", region: "29" },
      { country: "IN", region: "29" },
      { scope: "local", there: "29" },
    ],
    [
      "an Indian number tells the state",
      { country: "IN", region: "29" },
      { country: "IN", taxNumber: "27AAPFU0939F1ZV" },
      { there: "27", scope: "inter" },
    ],
    [
      "another province",
      { country: "CA", region: "BC" },
      { country: "CA", region: "ON" },
      { there: "ON", stack: "ON" },
    ],
  ])("%s", (_, site, party, expected) => expect(of(site, party)).toMatchObject(expected));

  test("who says nothing is a consumer at our counter, a seller without a name is not known", () => {
    expect(of({ country: "GB", region: null }, null)).toMatchObject({ party: "unregistered", unknown: "" });
    expect(of({ country: "GB", region: null }, null, "purchase")["unknown"]).toBe("standing");
    const said = of(
      { country: "GB", region: null },
      { standing: { VAT: "not-registered" }, registered: null, taxNumber: null },
    );
    expect(said["party"]).toBe("unregistered");
    expect(said["unknown"]).not.toContain("standing");
  });
  test("what is bought is used at our place, wherever the vendor sits", () =>
    expect(
      of({ country: "US", region: "TX" }, { country: "US", region: "CA" }, "purchase")["stack"],
    ).toContain("TX"));
});

test("rules are asked from the most specific to the least, and keep their order among equals", () => {
  const rules = [
    ruleOf("any", {}),
    ruleOf("any too", {}),
    ruleOf("abroad", { to: "abroad" }),
    ruleOf("outside the Union", { to: "outside-union" }),
    ruleOf("Norway", { to: "NO" }),
    ruleOf("a registered Norwegian", { to: "NO", party: "registered" }),
    ruleOf("a province", { to: "CA-ON" }),
    ruleOf("goods", { supply: "goods" }),
  ];
  expect(inOrderOfAsking(rules).map(({ id }) => id)).toEqual([
    "a province",
    "a registered Norwegian",
    "Norway",
    "outside the Union",
    "abroad",
    "goods",
    "any",
    "any too",
  ]);
});

describe.each(PACKS.all.map((pack) => [pack.id, pack] as const))("any line in %s", (id, pack) => {
  const setup = setupOf(id, { levies: pack.levies.map(({ levy }) => levy) });
  const regions = [null, ...(pack.regions ?? []).map(({ code }) => code)];
  const standings = ["", ...(pack.standings ?? []).map((one) => one.id)];
  const codes = new Set(pack.codes.flatMap(expandCode).map(({ code }) => code));
  const cases = fc.record({
    kind: fc.constantFrom("sales-invoice" as const, "purchase-bill" as const),
    taxClass: fc.constantFrom("", ...(pack.classes ?? []).map((one) => one.id)),
    supply: fc.constantFrom(undefined, "goods" as const, "services" as const),
    here: fc.constantFrom(...regions),
    there: fc.constantFrom(...regions),
    country: fc.constantFrom(pack.country, pack.country, "NO", "DE", "US", "IN"),
    registered: fc.constantFrom(true, false, null),
    standing: fc.constantFrom(...standings),
  });

  test("has a code that is in use on its side, or asks for one thing; asked the same again it says the same", () => {
    fc.assert(
      fc.property(cases, ({ kind, taxClass, supply, here, there, country, registered, standing }) => {
        const levy = pack.levies[0]?.levy ?? "";
        const input: DocumentInput = {
          kind,
          date: "2026-05-11",
          prices: "exclusive",
          site: { country: pack.country, region: here },
          party: {
            name: "Somebody",
            country,
            region: country === pack.country ? there : null,
            registered,
            taxNumber: null,
            standing: standing === "" ? {} : { [levy]: standing },
          },
          lines: [
            { amount: "1.00", ...(taxClass === "" ? {} : { taxClass }), ...(supply ? { supply } : {}) },
          ],
        };
        const [one] = chooseCodes(input, setup);
        expect(chooseCodes(input, setup)).toEqual([one]);
        if (one?.asks) {
          expect(one.code).toBeUndefined();
          expect(one.asks.text).toMatch(/[.?]$/);
        }
        if (one?.code) {
          expect(codes.has(one.code.code)).toBe(true);
          const side = kind === "sales-invoice" ? "sale" : "purchase";
          expect(["both", side]).toContain(one.code.direction);
          expect((one.reason ?? "").length).toBeGreaterThan(3);
        }
        if (one?.asks?.about === "supply") expect(supply).toBeUndefined();
      }),
      { numRuns: 150 },
    );
  });
});
