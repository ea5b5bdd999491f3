import { displayDate } from "@fiscalon/core/calendar/displayDate";
import type { PeriodRule } from "@fiscalon/core/calendar/filingPeriods";
import { FiscalError, withinField } from "@fiscalon/core/errors";
import { basesFor, rhythmsFor } from "@fiscalon/core/model/registration";
import type { RegistrationChange } from "@fiscalon/core/model/registration";
import type { JurisdictionPack } from "@fiscalon/core/model/pack";
import { waysOfLeaving } from "@fiscalon/core/model/basis";
import type { Basis } from "@fiscalon/core/model/basis";
import { ROUND_EACH_LINE } from "@fiscalon/core/model/rounding";
import type { RegistrationBody } from "@fiscalon/contract/setup";
import type { Writing } from "../base/work.ts";
import { addPackData, addRegionAccounts } from "./addPackData.ts";
import { checkedSchemes } from "./checkedSchemes.ts";
import { checkedOpening } from "./returns/openingFigures.ts";
import { regionKept } from "./requireRegion.ts";

/** Adds a registration. The number is checked; two registrations of one levy must not overlap. */
export async function addRegistration(
  work: Writing,
  clientId: number,
  ref: string,
  body: RegistrationBody,
): Promise<number> {
  const pack = work.packs.byId(body.pack);
  const levies = completed(pack, body.levies ?? pack.defaultLevies ?? pack.levies.map((one) => one.levy));
  const unknown = levies.find((levy) => !pack.levies.some((known) => known.levy === levy));
  if (unknown) {
    throw new FiscalError("registration/unknown-levy", `${unknown} is no levy of ${pack.name}.`, "levies");
  }
  refuseBackwards(body);
  const region = await regionFor(work, clientId, pack, body);
  await refuseOverlap(work, clientId, levies, { ...body, region });
  await addPackData(work, clientId, pack, levies);
  if (pack.regionOfNumber && region !== null) await addRegionAccounts(work, clientId, pack, region);
  const row = await work.models.registrations.create(
    {
      clientId,
      ref,
      pack: pack.id,
      levies,
      region,
      number: checkedNumber(pack, body.number),
      validFrom: body.from,
      validTo: body.to,
      frequency: body.frequency,
      anchor: anchorOf(pack, levies, body),
      changes: checkedChanges(pack, levies, body),
      basis: offeredBasis(pack, levies, body.basis),
      rounding: body.rounding ?? pack.roundings[0]?.rounding ?? ROUND_EACH_LINE,
      options: checkedOptions(pack, body.options ?? {}),
      opening: checkedOpening(pack, body.opening ?? {}),
      schemes: checkedSchemes(pack, levies, ruleOf(pack, levies, body), body.schemes ?? []),
      ...work.made,
    },
    work.options,
  );
  await work.record({
    action: "create",
    entity: "registration",
    id: row.id,
    after: body,
  });
  return row.id;
}

function ruleOf(pack: JurisdictionPack, levies: readonly string[], body: RegistrationBody): PeriodRule {
  const { frequency, from, to } = body;
  return {
    frequency,
    anchor: anchorOf(pack, levies, body),
    from,
    to,
    changes: checkedChanges(pack, levies, body),
  };
}

/**
 * The region a registration is for, where numbers are given out region by region: the one its number names, the one
 * that is said, or that of the client's first place there.
 */
async function regionFor(
  work: Writing,
  clientId: number,
  pack: JurisdictionPack,
  { region, number }: Pick<RegistrationBody, "region" | "number">,
): Promise<string | null> {
  const said = regionKept(work, pack.country, region ?? null);
  if (!pack.regionOfNumber) return said;
  const checked = checkedNumber(pack, number);
  const named = checked === null ? undefined : pack.regionOfNumber(checked);
  if (named !== undefined && said !== null && named !== said) {
    throw new FiscalError(
      "registration/other-region",
      `${checked} is a number of ${named}, and the registration is to be for ${said}. Correct one of the two.`,
      "region",
    );
  }
  if (named !== undefined || said !== null) return named ?? said;
  const place = await work.models.places.findOne({
    where: { clientId, country: pack.country },
    order: ["id"],
    ...work.options,
  });
  return place?.region ?? null;
}

/** Levies that come together in one registration are completed: GST brings HST. In the order of the pack. */
function completed(pack: JurisdictionPack, levies: readonly string[]): string[] {
  const all = new Set(
    levies.flatMap((one) => [one, ...(pack.levies.find(({ levy }) => levy === one)?.with ?? [])]),
  );
  const known = pack.levies.map(({ levy }) => levy).filter((levy) => all.has(levy));
  return [...known, ...levies.filter((levy) => !known.includes(levy))];
}

/** Changes of rhythm in order of time, none before the registration starts. */
export function checkedChanges(
  pack: JurisdictionPack,
  levies: readonly string[],
  { from, basis, changes = [] }: Pick<RegistrationBody, "from" | "basis" | "changes">,
): RegistrationChange[] {
  const sorted = [...changes].sort((a, b) => (a.from < b.from ? -1 : 1));
  sorted.forEach((change, index) => {
    const { basis: next } = change;
    if (next) withinField(`changes[${index}]`, () => offeredBasis(pack, levies, next));
    withinField(`changes[${index}]`, () => checkedOptions(pack, change.options ?? {}));
    withinField(`changes[${index}]`, () => checkLeaving(pack, { basis, changes: sorted }, change));
    if (change.from > from && change.from !== sorted[index - 1]?.from) return;
    throw new FiscalError(
      "registration/rhythm-change",
      `A change of rhythm on ${displayDate(change.from)} does not fit: it must come after ${displayDate(from)}, one a day.`,
      "changes",
    );
  });
  return sorted;
}

export function offeredBasis(pack: JurisdictionPack, levies: readonly string[], basis: Basis): Basis {
  const offered = basesFor(pack, levies);
  if (offered.some((one) => one.basis === basis)) return basis;
  throw new FiscalError(
    "registration/basis",
    `${pack.name} knows no ${basis} basis for this registration. Choose ${offered.map((one) => one.basis).join(" or ")}.`,
    "basis",
  );
}

/** The way of leaving a basis is one the law knows for the basis before the change. */
function checkLeaving(
  pack: JurisdictionPack,
  registration: Pick<RegistrationBody, "basis" | "changes">,
  change: RegistrationChange,
): void {
  if (change.leaving === undefined) return;
  const ways = waysOfLeaving(pack.bases, registration, change).map(({ id }) => id);
  if (ways.includes(change.leaving)) return;
  throw new FiscalError(
    "registration/leaving",
    `Nothing is left by "${change.leaving}" on ${displayDate(change.from)}. ${ways.length === 0 ? "Leave it out." : `Choose ${ways.join(" or ")}.`}`,
    "leaving",
  );
}

export function checkedOptions(
  pack: JurisdictionPack,
  options: Readonly<Record<string, string>>,
): Record<string, string> {
  for (const [id, value] of Object.entries(options)) {
    const option = pack.options?.find((one) => one.id === id);
    if (option?.values.some((one) => one.value === value)) continue;
    throw new FiscalError(
      "registration/option",
      option
        ? `${option.name} is one of ${option.values.map((one) => one.value).join(", ")}, not "${value}".`
        : `${pack.name} offers no option "${id}".`,
      `options.${id}`,
    );
  }
  return { ...options };
}

export function checkedNumber(pack: JurisdictionPack, number: string | null | undefined): string | null {
  if (!number) return null;
  const check = pack.checkNumber(number);
  if (check.ok) return check.number;
  throw new FiscalError("registration/bad-number", check.message, "number");
}

function anchorOf(pack: JurisdictionPack, levies: readonly string[], body: RegistrationBody): string {
  if (body.anchor) return body.anchor;
  const rhythm = rhythmsFor(pack, levies).find((r) => r.frequency === body.frequency);
  if (rhythm) return rhythm.anchor;
  throw new FiscalError(
    "registration/no-anchor",
    `Say on which month end a ${body.frequency} period ends.`,
    "anchor",
  );
}

/** @throws FiscalError `registration/dates` where it would end before it starts */
export function refuseBackwards({ from, to }: { from: string; to: string | null }): void {
  if (to === null || to >= from) return;
  throw new FiscalError("registration/dates", "The registration would end before it starts.", "to");
}

/**
 * Refuses two registrations of one levy in one jurisdiction on the same day, but for those of different regions where
 * numbers are given out region by region.
 */
export async function refuseOverlap(
  work: Writing,
  clientId: number,
  levies: readonly string[],
  body: Pick<RegistrationBody, "pack" | "from" | "to" | "region">,
  except?: number,
): Promise<void> {
  const pack = work.packs.byId(body.pack);
  const apart = (region: string | null): boolean =>
    pack.regionOfNumber !== undefined && Boolean(body.region) && region !== null && region !== body.region;
  const others = await work.models.registrations.findAll({ where: { clientId }, ...work.options });
  const clash = others.find(
    (other) =>
      other.id !== except &&
      other.pack === pack.id &&
      !apart(other.region) &&
      other.levies.some((levy) => levies.includes(levy)) &&
      (other.validTo === null || body.from <= other.validTo) &&
      (body.to === null || other.validFrom <= body.to),
  );
  if (!clash) return;
  throw new FiscalError(
    "registration/overlap",
    `There is already a registration for ${work.packs.levyNames(clash.levies)} from ${displayDate(clash.validFrom)}${clash.validTo ? ` to ${displayDate(clash.validTo)}` : ""}. End that one first.`,
    "from",
  );
}
