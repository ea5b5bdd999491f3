import { at } from "@fiscalon/core/at";
import { FiscalError } from "@fiscalon/core/errors";
import { documentEffect } from "@fiscalon/core/facts/documentEffect";
import type { DocumentEffect, EffectSetup } from "@fiscalon/core/facts/effect";
import type { PlainSetup } from "@fiscalon/core/facts/plainSetup";
import { usualKind } from "@fiscalon/core/model/documentKinds";
import type { Packs } from "@fiscalon/core/model/packs";
import type { PriceMode } from "@fiscalon/core/model/document";
import { codesByName } from "@fiscalon/core/tax/expandCode";
import type { TaxCode } from "@fiscalon/core/model/taxCode";

/** What the bench tries a code on. */
export interface Trial {
  amount: string;
  quantity: string;
  date: string;
  side: "sale" | "purchase";
  credit: boolean;
  place: number | null;
  country: string;
  region: string;
  party: string;
  inputs: Record<string, string>;
}

/** Makes the trial document of a code, as if a registration for all its levies had always been in force. */
export function tryCode(
  code: TaxCode,
  trial: Trial,
  mode: PriceMode,
  setup: { plain: PlainSetup; effect: EffectSetup },
): DocumentEffect | FiscalError {
  const site = setup.plain.places.find((place) => place.id === trial.place) ?? setup.plain.places[0];
  const home = site?.country ?? countryOf(code, setup.effect.packs);
  const kind = usualKind(trial.side, trial.credit);
  const attributes = Object.fromEntries(Object.entries(trial.inputs).filter(([, value]) => value !== ""));
  try {
    return documentEffect(
      {
        kind,
        date: trial.date,
        prices: mode,
        site: { country: home, region: site?.region ?? null },
        party: {
          country: trial.country || home,
          region: trial.region || null,
          registered: trial.party === "registered",
          taxNumber: null,
          standing: { "*": trial.party },
        },
        lines: [
          {
            amount: trial.amount,
            code: code.code,
            text: "trial",
            ...(trial.quantity === "" ? {} : { quantity: trial.quantity }),
            attributes,
          },
        ],
      },
      benchSetup(code, setup),
    );
  } catch (error) {
    if (error instanceof FiscalError) return error;
    throw error;
  }
}

function countryOf(code: TaxCode, packs: Packs): string {
  return code.pack === undefined ? "" : packs.byId(code.pack).country;
}

/** The client's set-up with the code on trial in it, and a registration for everything it bears. */
export function benchSetup(
  code: TaxCode,
  { plain, effect }: { plain: PlainSetup; effect: EffectSetup },
): EffectSetup {
  const levies = [...new Set(code.components.map(({ levy }) => levy))];
  const kept = plain.registrations.find((r) => levies.some((levy) => r.levies.includes(levy)));
  const [first = at(effect.packs.all, 0).id] = [code.pack, kept?.pack, plain.registrations[0]?.pack].filter(
    (id) => id !== undefined,
  );
  const pack = effect.packs.byId(first);
  const rhythm = at(pack.rhythms, 0);
  const registration = {
    id: kept?.id ?? 0,
    pack: pack.id,
    levies: [...new Set([...pack.levies.map(({ levy }) => levy), ...levies])],
    basis: "accrual" as const,
    rounding: kept?.rounding ?? at(pack.roundings, 0).rounding,
    options: kept?.options ?? {},
    frequency: kept?.frequency ?? rhythm.frequency,
    anchor: kept?.anchor ?? rhythm.anchor,
    from: "0001-01-01",
    to: null,
  };
  return {
    ...effect,
    codes: new Map(effect.codes).set(code.code, code),
    schedules: { ...pack.schedules, ...effect.schedules },
    registrations: [registration],
    sealed: new Map(),
  };
}

/** The same code with its components in the opposite order: what a wrong order would give. */
export function inOtherOrder(code: TaxCode): TaxCode | undefined {
  const stacked = code.components.some((one) => one.partOfLaterBases);
  if (!stacked || code.components.length < 2) return undefined;
  const turned = [...code.components].reverse();
  return {
    ...code,
    components: turned.map((one, index) => ({ ...one, partOfLaterBases: index < turned.length - 1 })),
  };
}

/** Whether the levies of a code stand in the order its jurisdiction has them in. */
export function isLawfulOrder(code: TaxCode, packs: Packs): boolean {
  if (code.pack === undefined) return false;
  const lawful = codesByName(packs.byId(code.pack).codes).get(code.code);
  const levies = ({ components }: TaxCode) => components.map(({ levy }) => levy).join();
  return lawful !== undefined && lawful.order !== undefined && levies(lawful) === levies(code);
}
