import { FiscalError } from "@fiscalon/core/errors";
import { minorDigits } from "@fiscalon/core/money/currency";
import type { JurisdictionPack } from "@fiscalon/core/model/pack";
import type { Account } from "@fiscalon/core/model/account";
import type { RhythmChange } from "@fiscalon/core/calendar/filingPeriods";
import type { Basis } from "@fiscalon/core/model/registration";
import { regionOf } from "@fiscalon/core/supply/regions";
import type { SupplyRule } from "@fiscalon/core/model/supplyRule";
import { checkSchedules } from "@fiscalon/core/tax/checkSchedules";
import type { Direction, RateSchedules, TaxCode } from "@fiscalon/core/model/taxCode";
import { ROUND_EACH_LINE } from "@fiscalon/core/model/rounding";
import type { ClientBody, PlaceBody, RegistrationBody } from "@fiscalon/contract/setup";
import type { Writing } from "../base/work.ts";
import { requireRegion } from "./requireRegion.ts";
import { addPackData } from "./addPackData.ts";

/** What a client starts with when the book says nothing else: codes and accounts of the pack of its country. */
export interface ClientStart {
  codes?: readonly TaxCode[];
  accounts?: readonly Account[];
  saleCode?: string | null;
  purchaseCode?: string | null;
  archived?: readonly string[];
  rules?: readonly SupplyRule[];
  schedules?: RateSchedules;
}

/** Creates a client with the chart and the codes of its country, its place and its registration. */
export async function createClient(
  work: Writing,
  body: ClientBody,
  start: ClientStart = {},
): Promise<number> {
  const pack = work.packs.ofCountry(body.country);
  const currency = body.currency ?? pack?.currency;
  if (!currency) {
    throw new FiscalError(
      "client/no-currency",
      `No pack ships for ${body.country}. Say the currency.`,
      "currency",
    );
  }
  minorDigits(currency);
  const codes = start.codes ?? pack?.codes ?? [];
  const client = await work.models.clients.create(
    {
      name: body.name,
      country: body.country,
      currency,
      saleCode: start.saleCode === undefined ? usualCode(pack, codes, "sale") : start.saleCode,
      purchaseCode:
        start.purchaseCode === undefined ? usualCode(pack, codes, "purchase") : start.purchaseCode,
      ...work.made,
    },
    work.options,
  );
  const owned = { clientId: client.id, ...work.made };
  await work.models.accounts.bulkCreate(
    (start.accounts ?? pack?.accounts ?? []).map((account) => ({ ...owned, ...account })),
    work.options,
  );
  await work.models.codes.bulkCreate(
    codes.map((definition, position) => ({
      ...owned,
      code: definition.code,
      definition,
      active: !start.archived?.includes(definition.code),
      position,
    })),
    work.options,
  );
  await addRules(work, client.id, start.rules ?? pack?.rules ?? []);
  await addSchedules(work, client.id, start.schedules ?? {});
  await work.record({
    client: client.id,
    action: "create",
    entity: "client",
    id: client.id,
    after: body,
  });
  if (body.place) await addPlace(work, client.id, "p1", body.place);
  const registrations = [
    ...(body.registration ? [[body.registration, "registration"] as const] : []),
    ...(body.registrations ?? []).map((one, index) => [one, `registrations[${index}]`] as const),
  ];
  for (const [index, [registration, path]] of registrations.entries()) {
    await addRegistration(work, client.id, `r${index + 1}`, registration, path);
  }
  return client.id;
}

/** What most lines bear: the code of a supply at home to anyone, or the first standard code of the side. */
function usualCode(
  pack: JurisdictionPack | undefined,
  codes: readonly TaxCode[],
  direction: Direction,
): string | null {
  const rule = pack?.rules.find(
    (one) =>
      one.direction === direction &&
      one.taxClass === "standard" &&
      one.to === "home" &&
      one.party !== "unregistered",
  );
  if (rule && codes.some((code) => code.code === rule.code)) return rule.code;
  const standard = codes.find(
    (code) => code.treatment === "standard" && (code.direction === "both" || code.direction === direction),
  );
  return standard?.code ?? null;
}

async function addRules(work: Writing, clientId: number, rules: readonly SupplyRule[]): Promise<void> {
  await work.models.rules.bulkCreate(
    rules.map((definition, position) => ({
      clientId,
      ref: definition.id,
      position,
      definition,
      ...work.made,
    })),
    work.options,
  );
}

async function addSchedules(work: Writing, clientId: number, schedules: RateSchedules): Promise<void> {
  checkSchedules(schedules);
  await work.models.schedules.bulkCreate(
    Object.entries(schedules).map(([ref, rows]) => ({ clientId, ref, rows: [...rows], ...work.made })),
    work.options,
  );
}

export async function addPlace(
  work: Writing,
  clientId: number,
  ref: string,
  place: PlaceBody,
): Promise<number> {
  const { name, country } = place;
  requireRegion(work, country, place.region ?? null);
  const row = await work.models.places.create(
    {
      clientId,
      ref,
      name,
      country,
      region: regionOf(work.packs.ofCountry(country), place.region ?? null, null) || null,
      closedOn: place.closedOn ?? null,
      saleCode: place.saleCode || null,
      purchaseCode: place.purchaseCode || null,
      ...work.made,
    },
    work.options,
  );
  await work.record({
    client: clientId,
    action: "create",
    entity: "place",
    id: row.id,
    after: place,
  });
  return row.id;
}

/** Adds a registration. The number is checked; two registrations of one levy must not overlap. */
export async function addRegistration(
  work: Writing,
  clientId: number,
  ref: string,
  body: RegistrationBody,
  path: string,
): Promise<number> {
  const pack = work.packs.byId(body.pack);
  const levies = completed(pack, body.levies ?? pack.defaultLevies ?? pack.levies.map((one) => one.levy));
  const unknown = levies.find((levy) => !pack.levies.some((known) => known.levy === levy));
  if (unknown) {
    throw new FiscalError(
      "registration/unknown-levy",
      `${unknown} is no levy of ${pack.name}.`,
      `${path}.levies`,
    );
  }
  if (body.to !== null && body.to < body.from) {
    throw new FiscalError("registration/dates", "The registration would end before it starts.", `${path}.to`);
  }
  await refuseOverlap(work, clientId, levies, body, path);
  await addPackData(work, clientId, pack);
  const row = await work.models.registrations.create(
    {
      clientId,
      ref,
      pack: pack.id,
      levies,
      number: checkedNumber(pack, body.number, `${path}.number`),
      validFrom: body.from,
      validTo: body.to,
      frequency: body.frequency,
      anchor: anchorOf(pack, body, path),
      changes: checkedChanges(pack, body, path),
      basis: offeredBasis(pack, body.basis, path),
      rounding: body.rounding ?? pack.roundings[0]?.rounding ?? ROUND_EACH_LINE,
      options: checkedOptions(pack, body.options ?? {}, path),
      ...work.made,
    },
    work.options,
  );
  await work.record({
    client: clientId,
    action: "create",
    entity: "registration",
    id: row.id,
    after: body,
  });
  return row.id;
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
  { from, changes = [] }: Pick<RegistrationBody, "from" | "changes">,
  path: string,
): RhythmChange[] {
  const sorted = [...changes].sort((a, b) => (a.from < b.from ? -1 : 1));
  sorted.forEach((change, index) => {
    if (change.basis) offeredBasis(pack, change.basis, `${path}.changes[${index}]`);
    if (change.from > from && change.from !== sorted[index - 1]?.from) return;
    throw new FiscalError(
      "registration/rhythm-change",
      `A change of rhythm on ${change.from} does not fit: it must come after ${from}, one a day.`,
      `${path}.changes`,
    );
  });
  return sorted;
}

export function offeredBasis(pack: JurisdictionPack, basis: Basis, path: string): Basis {
  if (pack.bases.includes(basis)) return basis;
  throw new FiscalError(
    "registration/basis",
    `${pack.name} knows no ${basis} basis. Choose ${pack.bases.join(" or ")}.`,
    `${path}.basis`,
  );
}

export function checkedOptions(
  pack: JurisdictionPack,
  options: Readonly<Record<string, string>>,
  path: string,
): Record<string, string> {
  for (const [id, value] of Object.entries(options)) {
    const option = pack.options?.find((one) => one.id === id);
    if (option?.values.some((one) => one.value === value)) continue;
    throw new FiscalError(
      "registration/option",
      option
        ? `${option.name} is one of ${option.values.map((one) => one.value).join(", ")}, not "${value}".`
        : `${pack.name} offers no option "${id}".`,
      `${path}.options.${id}`,
    );
  }
  return { ...options };
}

export function checkedNumber(
  pack: JurisdictionPack,
  number: string | null | undefined,
  field: string,
): string | null {
  if (!number) return null;
  const check = pack.checkNumber(number);
  if (check.ok) return check.number;
  throw new FiscalError("registration/bad-number", check.message, field);
}

export function anchorOf(pack: JurisdictionPack, body: RegistrationBody, path: string): string {
  if (body.anchor) return body.anchor;
  const rhythm = pack.rhythms.find((r) => r.frequency === body.frequency);
  if (rhythm) return rhythm.anchor;
  throw new FiscalError(
    "registration/no-anchor",
    `Say on which month end a ${body.frequency} period ends.`,
    `${path}.anchor`,
  );
}

/** Refuses two registrations of one levy in one jurisdiction on the same day. */
export async function refuseOverlap(
  work: Writing,
  clientId: number,
  levies: readonly string[],
  body: Pick<RegistrationBody, "pack" | "from" | "to">,
  path: string,
  except?: number,
): Promise<void> {
  const others = await work.models.registrations.findAll({ where: { clientId }, ...work.options });
  const clash = others.find(
    (other) =>
      other.id !== except &&
      other.pack === work.packs.byId(body.pack).id &&
      other.levies.some((levy) => levies.includes(levy)) &&
      (other.validTo === null || body.from <= other.validTo) &&
      (body.to === null || other.validFrom <= body.to),
  );
  if (!clash) return;
  throw new FiscalError(
    "registration/overlap",
    `There is already a registration for ${work.packs.levyNames(clash.levies)} from ${clash.validFrom}${clash.validTo ? ` to ${clash.validTo}` : ""}. End that one first.`,
    `${path}.from`,
  );
}
