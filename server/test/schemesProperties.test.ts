import fc from "fast-check";
import { afterAll, beforeAll, expect, test } from "vitest";
import { at, valueAt } from "@fiscalon/core/at";
import type { JurisdictionPack } from "@fiscalon/core/model/pack";
import type { SchemeDefinition } from "@fiscalon/core/model/scheme";
import { schemesOf } from "@fiscalon/core/model/scheme";
import { SHIPPED } from "@fiscalon/core/packs/shipped";
import { expandCode } from "@fiscalon/core/tax/expandCode";
import type { MethodComparison } from "@fiscalon/contract/compareMethods";
import type { ReturnView } from "@fiscalon/contract/returns";
import type { SchemeView } from "@fiscalon/contract/schemeView";
import { periodBooks } from "./support/periods.ts";
import type { Country, Row } from "./support/periods.ts";
import { nextVatNumber, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const SCHEMES = SHIPPED.flatMap((pack) =>
  schemesOf(pack).map((scheme): [JurisdictionPack, SchemeDefinition] => [pack, scheme]),
);
/** Invented numbers with the check digits of the country, where a business there is, and the first period of 2026. */
const WHERE: Readonly<
  Record<string, Pick<Country, "number" | "region" | "frequency" | "anchor" | "levies">>
> = {
  au: { number: "51824753556", frequency: "quarterly", anchor: "2026-03-31", levies: ["GST", "WET"] },
  gb: { number: "", frequency: "quarterly", anchor: "2026-03-31" },
  nz: { number: "49091850", frequency: "two-monthly", anchor: "2026-03-31" },
  ie: { number: "6388047V", frequency: "two-monthly", anchor: "2026-02-28" },
  ca: { number: "843162074RT0001", region: "AB", frequency: "quarterly", anchor: "2026-03-31" },
  sg: { number: "201500004E", frequency: "quarterly", anchor: "2026-03-31" },
  in: { number: "29AAPFM4417K1ZR", region: "KA", frequency: "monthly", anchor: "2026-01-31" },
  ae: { number: "100294771500003", region: "DU", frequency: "quarterly", anchor: "2026-03-31" },
  za: { number: "4440000000", frequency: "two-monthly", anchor: "2026-02-28" },
  "eu-de": { number: "DE271828000", frequency: "quarterly", anchor: "2026-03-31" },
};

/** Codes whose facts the scheme takes, and some it leaves, by side. */
function codesOf(
  { codes, schemes = [] }: JurisdictionPack,
  { rule }: SchemeDefinition,
): Record<"sale" | "purchase", string[]> {
  if (rule.kind === "margin-pool") return { sale: [...rule.sales], purchase: [...rule.purchases] };
  const elsewhere = new Set(
    schemesOf({ schemes }).flatMap((other) => (other.rule === rule ? [] : onlyUnder(other))),
  );
  // Only what needs nothing but an amount, at a rate of today, wherever the customer is.
  const plain = codes
    .flatMap(expandCode)
    .filter(
      ({ code, inputs = [], amountIs = "price", to = null, noneApplies }) =>
        !elsewhere.has(code) &&
        inputs.length === 0 &&
        amountIs === "price" &&
        to === null &&
        noneApplies === undefined,
    );
  const of = (side: "sale" | "purchase", treatments: readonly string[]) =>
    plain
      .filter(
        ({ direction, treatment }) => [side, "both"].includes(direction) && treatments.includes(treatment),
      )
      .map(({ code }) => code)
      .slice(0, 3);
  if (rule.kind === "attribution")
    return {
      sale: [...of("sale", ["standard"]), ...of("sale", ["exempt"]).slice(0, 1)],
      purchase: [
        ...of("purchase", ["standard"]).slice(0, 1),
        ...rule.residual.slice(0, 2),
        ...rule.exempt.slice(0, 1),
      ],
    };
  if (rule.kind === "yearly-rebate")
    return { sale: rule.codes.slice(0, 2), purchase: of("purchase", ["standard"]) };
  if (rule.kind === "yearly-add-back")
    return { sale: of("sale", ["standard"]), purchase: rule.codes.slice(0, 2) };
  if (rule.kind === "resale-credit")
    return { sale: [...rule.sales, ...rule.lots.sold], purchase: [...rule.lots.bought] };
  if (rule.kind === "percentage-split")
    return { sale: [...rule.sales.codes], purchase: [...rule.stock.codes] };
  if (rule.kind === "retail-takings")
    return {
      sale: [rule.takings, ...rule.rates.map(({ takings }) => takings)],
      purchase: rule.rates.map(({ goods }) => at(goods, 0)),
    };
  if (rule.kind === "ratio-credit")
    return { sale: of("sale", ["standard", "zero"]), purchase: of("purchase", [...rule.takes, "exempt"]) };
  return {
    sale: [
      ...of("sale", rule.takes),
      ...rule.outside.slice(0, 1).filter((code) => of("sale", ["standard"]).includes(code)),
    ],
    purchase: [...of("purchase", ["standard"]), ...(rule.capital?.codes ?? []).slice(0, 1)],
  };
}

/** Codes that have no meaning without their scheme. */
function onlyUnder({ rule }: SchemeDefinition): readonly string[] {
  if (rule.kind === "yearly-add-back") return rule.codes;
  if (rule.kind === "percentage-split") return [...rule.sales.codes, ...rule.stock.codes];
  return rule.kind === "resale-credit" ? [...rule.sales, ...rule.lots.bought, ...rule.lots.sold] : [];
}

/** A share for codes whose lines tell theirs. */
function privately({ codes }: JurisdictionPack, code: string): Record<string, unknown> {
  const known = codes.find((one) => one.code === code);
  return known?.inputs?.includes("privateShare") ? { attributes: { privateShare: "25" } } : {};
}

/**
 * For each scheme of each country: the order of documents changes nothing; sealing, opening and sealing again gives the
 * same; the ledger agrees and what is left to rounding is half a unit a box at most; the book file is the same book; and the
 * comparison of a method in force is its return.
 */
test.each(SCHEMES.map(([pack, scheme]) => [scheme.id, pack, scheme] as const))(
  "whatever the order, sealed once or twice, compared or filed: %s",
  async (_id, pack, scheme) => {
    const codes = codesOf(pack, scheme);
    const amount = fc.integer({ min: 100, max: 900_00 }).map((minor) => (minor / 100).toFixed(2));
    const document = fc
      .constantFrom<"sale" | "purchase">("sale", "purchase")
      .chain((side) =>
        fc.tuple(
          fc.constant(side === "sale" ? "sales-invoice" : "purchase-bill"),
          fc.constantFrom(...codes[side]),
          amount,
          fc.constantFrom("04", "11", "27"),
        ),
      );
    const [rows = []] = fc.sample(fc.array(document, { minLength: 12, maxLength: 12 }), {
      numRuns: 1,
      seed: 20_261_129,
    });
    const where = valueAt(new Map(Object.entries(WHERE)), pack.id);
    const END = where.anchor;
    const live = async (order: typeof rows) => {
      const books = await periodBooks(server, {
        pack: pack.id,
        country: pack.country,
        ...where,
        // The simulator of its authority keeps what was sent under a number.
        ...(pack.id === "gb" ? { number: nextVatNumber() } : {}),
        ...(pack.id === "ca" ? { levies: [...scheme.levies] } : {}),
      });
      const settings = Object.fromEntries(
        scheme.settings.map(({ id, values }) => [id, values[0]?.value ?? ""]),
      );
      const joined = await books.change({
        schemes: [{ scheme: scheme.id, from: "2026-01-01", to: null, settings }],
      });
      expect([joined.status, joined.body]).toEqual([200, expect.anything()]);
      for (const [kind, code, price, day] of order)
        await books.post([kind, code, price, privately(pack, code)] as Row, `${END.slice(0, 7)}-${day}`);
      return books;
    };
    const [one, other] = [await live(rows), await live([...rows].reverse())];
    const boxes = await one.boxes(END);
    expect(await other.boxes(END)).toEqual(boxes);
    expect(Object.keys(boxes).length).toBeGreaterThan(0);
    const papers = () => server.ok<SchemeView[]>("GET", `${one.registration}/returns/${END}/schemes`);
    const worked = (await papers()).map(({ steps, gain }) => [
      steps.map(({ amount: sum, box }) => [box, sum]),
      gain,
    ]);
    const { findings } = await server.ok<ReturnView>("GET", `${one.registration}/returns/${END}`);
    expect(findings.map(({ check }) => check)).not.toContain("more-than-rounding");
    if (scheme.rule.kind === "turnover-rate" && !scheme.byStatus) {
      const { methods, periods } = await server.ok<MethodComparison>("POST", `${one.registration}/methods`, {
        answers: {},
      });
      const index = periods.findIndex(({ to }) => to === END);
      const method = methods.find(({ id }) => id === scheme.id);
      const { net } = await server.ok<ReturnView>("GET", `${one.registration}/returns/${END}`);
      expect(at(method?.output ?? [], index) - at(method?.input ?? [], index)).toBe(net);
    }
    await one.seal(END);
    await server.ok("POST", `${one.registration}/returns/${END}/reopen`, { reason: "once more" });
    expect(await one.boxes(END)).toEqual(boxes);
    await one.seal(END);
    expect(await one.boxes(END)).toEqual(boxes);
    expect(
      (await papers()).map(({ steps, gain }) => [steps.map(({ amount: sum, box }) => [box, sum]), gain]),
    ).toEqual(worked);
    await one.settle(END);
    expect(await one.left(END)).toBe(0);
    await one.expectSameAfterBookFile();
  },
);
