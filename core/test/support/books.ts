import { minorDigits } from "@fiscalon/core/money/currency";
import { documentEffect } from "@fiscalon/core/facts/documentEffect";
import type { DocumentEffect, EffectSetup } from "@fiscalon/core/facts/effect";
import type { RegistrationSetup } from "@fiscalon/core/model/registration";
import { formOn } from "@fiscalon/core/returns/formOn";
import { PACKS } from "./packs.ts";
import { formatAmount, parseAmount } from "@fiscalon/core/money/amount";
import { evaluateReturn } from "@fiscalon/core/returns/evaluateReturn";
import type { FactGroup } from "@fiscalon/core/returns/evaluateReturn";
import type { DocumentInput, LineInput } from "@fiscalon/core/model/document";
import type { DocumentKind } from "@fiscalon/core/model/documentKinds";
import { codesByName } from "@fiscalon/core/tax/expandCode";

export interface BookOptions {
  registration?: Partial<RegistrationSetup>;
  site?: DocumentInput["site"];
  /** Last day of the period. */
  end: string;
}

/** A registered client of a pack without any books. */
export function setupOf(packId: string, registration: Partial<RegistrationSetup> = {}): EffectSetup {
  const pack = PACKS.byId(packId);
  const rhythm = pack.rhythms[0];
  return {
    packs: PACKS,
    archived: new Set(),
    saleCode: null,
    purchaseCode: null,
    digits: minorDigits(pack.currency),
    currency: pack.currency,
    today: "2026-11-01",
    codes: codesByName(pack.codes),
    rules: pack.rules,
    schedules: pack.schedules,
    accounts: pack.accounts,
    registrations: [
      {
        id: 1,
        pack: pack.id,
        levies: pack.defaultLevies ?? pack.levies.map(({ levy }) => levy),
        basis: "accrual",
        rounding: pack.roundings[0]?.rounding ?? { level: "line", mode: "half-up" },
        frequency: rhythm?.frequency ?? "quarterly",
        anchor: rhythm?.anchor ?? "2026-03-31",
        from: "2005-01-01",
        to: null,
        ...registration,
      },
    ],
    sealed: new Map(),
  };
}

type Short = [code: string, amount: string, attributes?: Record<string, string>];

/** A document with one line a code and amount. */
export function doc(
  kind: DocumentKind,
  lines: Short | Short[],
  more: Partial<DocumentInput> & { line?: Partial<LineInput> } = {},
): DocumentInput {
  const rows = (Array.isArray(lines[0]) ? lines : [lines]) as Short[];
  const { line, ...rest } = more;
  return {
    kind,
    date: "2026-05-11",
    prices: "exclusive",
    ...rest,
    lines: rows.map(([code, amount, attributes]) => ({
      code,
      amount,
      ...(attributes ? { attributes } : {}),
      ...line,
    })),
  };
}

export const sale = (lines: Short | Short[], more = {}) => doc("sales-invoice", lines, more);
export const credit = (lines: Short | Short[], more = {}) => doc("sales-credit-note", lines, more);
export const bill = (lines: Short | Short[], more = {}) => doc("purchase-bill", lines, more);
/** Paid at once. */
export const expense = (lines: Short | Short[], more = {}) => doc("expense", lines, more);
export const billCredit = (lines: Short | Short[], more = {}) => doc("purchase-credit-note", lines, more);

export function groupsOf(effect: DocumentEffect): FactGroup[] {
  return effect.facts
    .filter((fact) => fact.registration !== null)
    .map((fact) => ({ ...fact, late: false, count: 1 }));
}

/**
 * The boxes of a period that are not zero, as text in major units: whole units where the form has them.
 * @param typed boxes typed in
 */
export function boxesOf(
  packId: string,
  documents: readonly DocumentInput[],
  { registration = {}, site, end }: BookOptions,
  typed: Readonly<Record<string, string>> = {},
): Record<string, string> {
  const setup = setupOf(packId, registration);
  const pack = PACKS.byId(packId);
  const own = setup.registrations[0];
  const groups = documents.flatMap((one) => groupsOf(documentEffect(site ? { site, ...one } : one, setup)));
  const form = formOn(pack, end, own);
  const adjustments = Object.entries(typed).map(([box, amount], id) => ({
    id,
    box,
    amount: parseAmount(amount, setup.digits),
    reason: "typed in",
  }));
  const context = { digits: setup.digits, on: end, schedules: setup.schedules };
  const results = evaluateReturn(form, groups, adjustments, context);
  return Object.fromEntries(
    results
      .filter(({ amount }) => amount !== 0)
      .map(({ box, amount }) => [box, formatAmount(amount, setup.digits).replace(/\.00$/, "")]),
  );
}

/** Net, tax by levy and gross of a priced document, as text. */
export function priced(
  packId: string,
  document: DocumentInput,
  registration: Partial<RegistrationSetup> = {},
): Record<string, string> {
  const setup = setupOf(packId, registration);
  const { priced: result } = documentEffect(document, setup);
  const money = (amount: number) => formatAmount(amount, setup.digits);
  const levies: Record<string, number> = {};
  for (const row of result.levies) levies[row.levy] = (levies[row.levy] ?? 0) + row.tax;
  return {
    net: money(result.net),
    ...Object.fromEntries(Object.entries(levies).map(([levy, tax]) => [levy, money(tax)])),
    gross: money(result.gross),
  };
}
