import fc from "fast-check";
import { at } from "@fiscalon/core/at";
import { describe, expect, test } from "vitest";
import { FiscalError } from "@fiscalon/core/errors";
import { boxTags } from "@fiscalon/core/model/boxTags";
import { boxMovements } from "@fiscalon/core/facts/boxMovements";
import { documentEffect } from "@fiscalon/core/facts/documentEffect";
import type { DocumentEffect, EffectSetup } from "@fiscalon/core/facts/effect";
import { PACKS } from "./support/packs.ts";
import { formOn } from "@fiscalon/core/returns/formOn";
import type { JurisdictionPack } from "@fiscalon/core/model/pack";
import { formatAmount } from "@fiscalon/core/money/amount";
import { evaluateReturn } from "@fiscalon/core/returns/evaluateReturn";
import { boxDefinition, findBox } from "@fiscalon/core/returns/findBox";
import { figuresOfReturn } from "@fiscalon/core/returns/returnFigures";
import { roundingAllowed } from "@fiscalon/core/returns/roundingAllowed";
import { differenceOf } from "@fiscalon/core/returns/settlementPostings";
import { expandCode } from "@fiscalon/core/tax/expandCode";
import type { DocumentInput } from "@fiscalon/core/model/document";
import type { DocumentKind } from "@fiscalon/core/model/documentKinds";
import type { TaxCode } from "@fiscalon/core/model/taxCode";
import { groupsOf, setupOf } from "./support/books.ts";

const KINDS = {
  sale: ["sales-invoice", "sales-credit-note"],
  purchase: ["purchase-bill", "purchase-credit-note"],
} as const satisfies Record<string, readonly [DocumentKind, DocumentKind]>;

/** A day on which the code is in use and its rates are known: today's, or the last day of an old one. */
function dayOf(code: TaxCode): string {
  return code.to !== null && code.to < "2026-05-11" ? code.to : "2026-05-11";
}

function documentOf(
  code: TaxCode,
  side: "sale" | "purchase",
  amount: number,
  digits: number,
  more: { credit: boolean; prices: "exclusive" | "inclusive"; pack: JurisdictionPack; region: string },
): DocumentInput {
  const on = dayOf(code);
  const place = { country: more.pack.country, region: more.region === "" ? null : more.region };
  const attributes = Object.fromEntries((code.inputs ?? []).map((name) => [name, "7.50"]));
  return {
    kind: KINDS[side][more.credit ? 1 : 0],
    date: on,
    prices: more.prices,
    site: place,
    party: { ...place, registered: true, taxNumber: null, standing: {} },
    lines: [
      {
        amount: formatAmount(amount, digits),
        quantity: "3",
        code: code.code,
        account: side === "sale" ? "4000" : "6200",
        attributes,
      },
    ],
  };
}

/** The effect, or undefined where the code refuses such a line with a reason (a tax that must be typed, no rate yet). */
function effectOf(document: DocumentInput, setup: EffectSetup): DocumentEffect | undefined {
  try {
    return documentEffect(document, setup);
  } catch (error) {
    if (!(error instanceof FiscalError)) throw error;
    expect(error.message.length).toBeGreaterThan(15);
    return undefined;
  }
}

const sum = (amounts: readonly number[]) => amounts.reduce((total, amount) => total + amount, 0);

/**
 * Invariants of engine and packs together (architecture, rules that hold everywhere): any code of any pack, any amount,
 * either mode, invoice or credit note, in any region.
 */
describe.each(PACKS.all.map((pack) => [pack.id, pack] as const))("every code of %s", (_id, pack) => {
  const codes = pack.codes.flatMap(expandCode);
  const regions = ["", ...(pack.regions ?? []).map(({ code }) => code)];
  const setup = setupOf(pack.id, { levies: pack.levies.map(({ levy }) => levy) });
  const cases = fc.record({
    code: fc.constantFrom(...codes),
    region: fc.constantFrom(...regions),
    amount: fc.integer({ min: 1, max: 5_000_000 }),
    purchase: fc.boolean(),
    prices: fc.constantFrom("exclusive" as const, "inclusive" as const),
  });
  const sideOf = (code: TaxCode, purchase: boolean) =>
    code.direction === "both" ? (purchase ? "purchase" : "sale") : code.direction;

  test("adds up, balances, lands in boxes the form has, and is undone by its credit note", () => {
    let worked = 0;
    fc.assert(
      fc.property(cases, ({ code, region, amount, purchase, prices }) => {
        const side = sideOf(code, purchase);
        const of = (credit: boolean) =>
          effectOf(documentOf(code, side, amount, setup.digits, { credit, prices, pack, region }), setup);
        const invoice = of(false);
        if (!invoice) return;
        worked += 1;
        const { net, gross, lines } = invoice.priced;
        const charged = lines.flatMap(({ taxes }) =>
          taxes.filter(({ component }) => component.charged === "charged").map(({ tax }) => tax),
        );
        expect(net + sum(charged)).toBe(gross);
        expect(sum(invoice.postings.map((posting) => posting.amount))).toBe(0);
        const landed = boxMovements(invoice.facts).map(({ box }) => box);
        const told = landed.filter((box) => !box.includes("?"));
        if (told.length < landed.length) {
          expect(region, `${code.code} lands in ${landed.join()}`).toBe("");
          expect(invoice.warnings.map((warning) => warning.code)).toContain("document/no-region");
        }
        for (const box of told) {
          const holds = pack.forms.some((form) => {
            try {
              return boxDefinition(form, box).id !== "";
            } catch {
              return false;
            }
          });
          expect(holds, `${code.code} lands in ${box}`).toBe(true);
        }
        const credit = of(true);
        if (!credit) return;
        expect([credit.priced.net, credit.priced.gross].map(Math.abs)).toEqual([net, gross].map(Math.abs));
        const both = new Map<string, number>();
        for (const posting of [...invoice.postings, ...credit.postings]) {
          both.set(posting.account, (both.get(posting.account) ?? 0) + posting.amount);
        }
        expect([...both.values()].filter((left) => left !== 0)).toEqual([]);
      }),
      { numRuns: 300 },
    );
    expect(worked).toBeGreaterThan(100);
  });

  test("is on the return with the tax that is on the ledger, but for what the boxes round", () => {
    // One state's in America; elsewhere what a registration usually has.
    const first = at(at(pack.forms, 0).levies, 0);
    const levies = pack.levies.map(({ levy }) => levy).filter((levy) => levy.startsWith(first));
    const own = setupOf(pack.id, pack.defaultLevies ? {} : { levies });
    const [registration] = own.registrations;
    if (!registration) throw new RangeError("no registration");
    const form = formOn(pack, "2026-06-30", registration);
    const context = { digits: own.digits, on: "2026-06-30", schedules: own.schedules };
    let worked = 0;
    for (const code of codes.filter(({ to }) => to === null))
      for (const region of [regions[1] ?? "", ...regions.slice(2, 6)])
        for (const credit of [false, true]) {
          const side = sideOf(code, true);
          const more = { credit, prices: "exclusive" as const, pack, region };
          const effect = effectOf(documentOf(code, side, 1234_56, own.digits, more), own);
          const facts = effect?.facts.filter((fact) => fact.registration !== null) ?? [];
          if (!effect || facts.length === 0) continue;
          const onForm = ({ tags }: { tags: string }) =>
            tags === "" || boxTags(tags).some(({ box }) => findBox(form, box) !== undefined);
          if (!facts.every(onForm)) continue;
          worked += 1;
          const results = evaluateReturn(form, groupsOf(effect), [], context);
          const figures = { ...figuresOfReturn(form, results, own.digits), adjustments: 0 };
          const output = facts.filter(
            (fact) => fact.direction === "sale" || fact.charged === "self-assessed",
          );
          const totals = {
            levy: pack.id,
            output: sum(output.map(({ tax }) => tax)),
            input: sum(facts.map(({ recoverable }) => recoverable)),
          };
          const apart = Math.abs(differenceOf([totals], figures));
          const most = roundingAllowed(form, facts.length, registration.rounding);
          expect(apart, `${code.code} ${region} ${credit ? "credit" : ""}`).toBeLessThanOrEqual(most);
        }
    expect(worked).toBeGreaterThan(10);
  });

  test("gives the same net from its gross as from its net, to a minor unit a levy", () => {
    fc.assert(
      fc.property(cases, ({ code, region, amount, purchase }) => {
        if ((code.amountIs ?? "price") !== "price") return;
        const side = sideOf(code, purchase);
        const at = (price: number, prices: "exclusive" | "inclusive") =>
          effectOf(
            documentOf(code, side, price, setup.digits, { credit: false, prices, pack, region }),
            setup,
          );
        const up = at(amount, "exclusive");
        if (!up || up.priced.gross <= 0) return;
        const down = at(up.priced.gross, "inclusive");
        if (!down) return;
        const levies = up.priced.lines[0]?.taxes.length ?? 0;
        expect(Math.abs(down.priced.net - amount)).toBeLessThanOrEqual(levies);
        expect(down.priced.gross).toBe(up.priced.gross);
      }),
      { numRuns: 300 },
    );
  });
});

test("every pack has a form for each of its levies, today or in the past", () => {
  for (const pack of PACKS.all) {
    for (const { levy } of pack.levies) {
      const known = pack.forms.filter((form) => form.levies.includes(levy));
      const shared = formOn(pack, "2026-06-30").levies;
      expect(known.length > 0 || shared.length > 0, `${pack.id} ${levy}`).toBe(true);
    }
  }
});
