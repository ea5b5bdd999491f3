import { FiscalError } from "@fiscalon/core/errors";
import { documentEffect } from "@fiscalon/core/facts/documentEffect";
import type { DocumentEffect, EffectSetup } from "@fiscalon/core/facts/documentEffect";
import type { PlainSetup } from "@fiscalon/core/facts/plainSetup";
import { packById } from "@fiscalon/core/jurisdictions/packs";
import { ROUND_EACH_LINE } from "@fiscalon/core/tax/rounding";
import type { DocumentKind, PriceMode } from "@fiscalon/core/tax/documentInput";
import type { TaxCode } from "@fiscalon/core/tax/taxCode";

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
  const home = site?.country ?? countryOf(code);
  const kind = kindOf(trial);
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

function kindOf({ side, credit }: Trial): DocumentKind {
  if (side === "sale") return credit ? "sales-credit-note" : "sales-invoice";
  return credit ? "purchase-credit-note" : "purchase-bill";
}

function countryOf(code: TaxCode): string {
  return code.pack === undefined ? "" : packById(code.pack).country;
}

/** The client's set-up with the code on trial in it, and a registration for everything it bears. */
export function benchSetup(
  code: TaxCode,
  { plain, effect }: { plain: PlainSetup; effect: EffectSetup },
): EffectSetup {
  const levies = [...new Set(code.components.map(({ levy }) => levy))];
  const own = plain.registrations.find((r) => levies.some((levy) => r.levies.includes(levy)));
  const pack = code.pack ?? own?.pack ?? plain.registrations[0]?.pack ?? "gb";
  const shipped = packById(pack);
  const registration = {
    id: own?.id ?? 0,
    pack: shipped.id,
    levies: [...new Set([...shipped.levies.map(({ levy }) => levy), ...levies])],
    basis: "accrual" as const,
    rounding: own?.rounding ?? shipped.roundings[0]?.rounding ?? ROUND_EACH_LINE,
    options: own?.options ?? {},
    frequency: own?.frequency ?? ("quarterly" as const),
    anchor: own?.anchor ?? "2026-03-31",
    from: "0001-01-01",
    to: null,
  };
  return {
    ...effect,
    codes: new Map(effect.codes).set(code.code, code),
    schedules: { ...shipped.schedules, ...effect.schedules },
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
