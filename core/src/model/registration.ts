import type { CalendarDate } from "../calendar/date.ts";
import type { PeriodRule, RhythmChange } from "../calendar/filingPeriods.ts";
import type { Basis, BasisChange, BasisOffer } from "./basis.ts";
import type { CorrectionRule } from "./correction.ts";
import type { FilingRhythm, JurisdictionPack, PackOption } from "./pack.ts";
import type { SchemeInForce } from "./scheme.ts";
import type { Rounding } from "./rounding.ts";

/** Choices among the options of a pack, by option. */
export type Options = Readonly<Record<string, string>>;

/** What a registration changes from a day on: its rhythm, and its basis and choices where these are said. */
export type RegistrationChange = RhythmChange & BasisChange & { options?: Options };

/** What the computation needs to know of a registration. */
export interface RegistrationSetup extends PeriodRule {
  id: number;
  pack: string;
  levies: readonly string[];
  /** The region it is for, where a levy is registered region by region. */
  region?: string | null;
  basis: Basis;
  changes?: readonly RegistrationChange[];
  rounding: Rounding;
  /** What the registration chose of the options its pack offers, by option. */
  options?: Options;
  /** The special schemes it is on, by date. */
  schemes?: readonly SchemeInForce[];
}

/** What a registration has chosen on a day: the last change of each option, what it began with, or the usual choice. */
export function optionsOn(
  { options: offered = [] }: Pick<JurisdictionPack, "options">,
  { options = {}, changes = [] }: Pick<RegistrationSetup, "options" | "changes">,
  on: CalendarDate,
): Options {
  const usual = offered.map(({ id, values }) => [id, values[0]?.value ?? ""]);
  const changed = changes.filter(({ from }) => from <= on).map((change) => change.options ?? {});
  return Object.assign(Object.fromEntries(usual) as Record<string, string>, options, ...changed) as Options;
}

/** The day itself, or the nearest one on which a registration is in force. */
export function inForceOn({ from, to }: Pick<PeriodRule, "from" | "to">, on: CalendarDate): CalendarDate {
  if (on < from) return from;
  return to !== null && to < on ? to : on;
}

/**
 * The registration for a levy in force on a day, or undefined. Two countries may call their levies alike: `pack` is
 * the one the code comes from, where it comes from one. A business that is or was registered in several regions has for
 * a supply from `region` the registration of that region, or one that is for no region, and never another's.
 */
export function registrationFor<T extends RegistrationSetup>(
  registrations: readonly T[],
  levy: string,
  on: CalendarDate,
  pack?: string,
  region?: string,
): T | undefined {
  const isMeant = (r: T) => r.levies.includes(levy) && (pack === undefined || r.pack === pack);
  const isInForce = (r: T) => isMeant(r) && r.from <= on && (r.to === null || on <= r.to);
  const first = registrations.find(isInForce);
  if (!first || isFor(first, region)) return first;
  const regions = new Set(registrations.filter(isMeant).flatMap((r) => r.region ?? []));
  return regions.size < 2 ? first : registrations.find((r) => isInForce(r) && isFor(r, region));
}

/** Whether a registration is for a region: for that one, or for no single one. */
function isFor({ region: own }: Pick<RegistrationSetup, "region">, region: string | undefined): boolean {
  return own === undefined || own === null || own === region;
}

/** How errors of earlier periods are put right by a registration for these levies. */
export function correctionOf(
  { levies: known, correction }: Pick<JurisdictionPack, "levies" | "correction">,
  levies: readonly string[],
): CorrectionRule {
  return known.find((one) => levies.includes(one.levy))?.correction ?? correction;
}

/** What is for one of these levies alone, or else what is for no levy in particular. */
function forLevies<One extends { levies?: readonly string[] }>(
  all: readonly One[],
  levies: readonly string[],
): readonly One[] {
  const own = all.filter((one) => one.levies?.some((levy) => levies.includes(levy)));
  return own.length > 0 ? own : all.filter((one) => one.levies === undefined);
}

/** The rhythms a registration for these levies can file in. */
export function rhythmsFor(
  { rhythms }: Pick<JurisdictionPack, "rhythms">,
  levies: readonly string[],
): readonly FilingRhythm[] {
  return forLevies(rhythms, levies);
}

/** The bases a registration for these levies can report on. */
export function basesFor(
  { bases }: Pick<JurisdictionPack, "bases">,
  levies: readonly string[],
): readonly BasisOffer[] {
  return forLevies(bases, levies);
}

/** The choices that matter to a registration for these levies. */
export function optionsFor(
  { options = [] }: Pick<JurisdictionPack, "options">,
  levies: readonly string[],
): readonly PackOption[] {
  return options.filter((option) => option.levies?.some((levy) => levies.includes(levy)) ?? true);
}
