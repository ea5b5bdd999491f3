import { describe, expect, test } from "vitest";
import { FiscalError } from "@fiscalon/core/errors";
import { documentEffect } from "@fiscalon/core/facts/documentEffect";
import type { TaxFact } from "@fiscalon/core/facts/taxFact";
import type { CheckedLine } from "@fiscalon/core/findings/checkedLine";
import { lineFindings } from "@fiscalon/core/findings/lineChecks";
import type { DocumentInput, LineInput } from "@fiscalon/core/model/document";
import type { JurisdictionPack } from "@fiscalon/core/model/pack";
import { expandCode } from "@fiscalon/core/tax/expandCode";
import { setupOf } from "./support/books.ts";
import { PACKS } from "./support/packs.ts";

function checkedLine(fact: TaxFact, typed: boolean): CheckedLine {
  return {
    ...fact,
    document: 1,
    number: "A1",
    party: "Reed",
    partyCountry: null,
    partyNumber: null,
    partyRegistered: true,
    accountName: null,
    accountType: null,
    topic: null,
    typed,
    attributes: {},
    documentGross: 0,
  };
}

/** Whether no form of the pack has a place for a fact. */
function lost(fact: TaxFact, pack: JurisdictionPack, typed: boolean): boolean {
  return pack.forms.every((form) =>
    lineFindings([checkedLine(fact, typed)], {
      pack,
      form,
      digits: 2,
      numberAbove: 1_000_000,
    }).some(({ check }) => check === "no-box"),
  );
}

function factsWith(pack: JurisdictionPack, side: "sale" | "purchase", line: LineInput): TaxFact[] {
  const region = pack.regions?.[0]?.code ?? null;
  const place = { country: pack.country, region };
  const document: DocumentInput = {
    kind: side === "sale" ? "sales-invoice" : "purchase-bill",
    date: "2026-05-11",
    prices: "exclusive",
    site: place,
    party: { ...place, registered: true, taxNumber: null, standing: {} },
    lines: [line],
  };
  try {
    return documentEffect(document, setupOf(pack.id, { levies: pack.levies.map(({ levy }) => levy) })).facts;
  } catch (error) {
    if (error instanceof FiscalError) return [];
    throw error;
  }
}

describe.each(PACKS.all.map((pack) => [pack.id, pack] as const))("tax on no return, %s", (_id, pack) => {
  const codes = pack.codes.flatMap(expandCode).filter(({ to }) => to === null || to > "2026-05-11");

  test("is never said of tax that a code of the pack works out", () => {
    const astray = codes.flatMap((code) =>
      (["sale", "purchase"] as const)
        .filter((side) => code.direction === "both" || code.direction === side)
        .flatMap((side) =>
          factsWith(pack, side, {
            amount: "100.00",
            quantity: "3",
            code: code.code,
            account: side === "sale" ? "4000" : "6200",
            attributes: Object.fromEntries((code.inputs ?? []).map((name) => [name, "7.50"])),
          })
            .filter((fact) => lost(fact, pack, false))
            .map((fact) => `${side} ${code.code} ${fact.levy}: ${fact.tags}`),
        ),
    );
    expect(astray).toEqual([]);
  });
});

test("tax typed on an exempt sale is on the ledger and on no return", () => {
  const gb = PACKS.byId("gb");
  const [fact] = factsWith(gb, "sale", {
    amount: "100.00",
    code: "EX",
    account: "4000",
    typedTax: { VAT: "20.00" },
    typedReason: "on the paper",
  });
  expect(fact && lost({ ...fact, tax: 2000 }, gb, true)).toBe(true);
});
