import { codesByName } from "@fiscalon/core/tax/expandCode";
import { FiscalError } from "@fiscalon/core/errors";
import { minorDigits } from "@fiscalon/core/money/currency";
import type { JurisdictionPack } from "@fiscalon/core/model/pack";
import type { Account } from "@fiscalon/core/model/account";
import type { SupplyRule } from "@fiscalon/core/model/supplyRule";
import { checkSchedules } from "@fiscalon/core/tax/checkSchedules";
import type { Direction, RateSchedules, TaxCode } from "@fiscalon/core/model/taxCode";
import type { ClientBody, PlaceBody } from "@fiscalon/contract/setup";
import type { Writing } from "../base/work.ts";
import { inField } from "../base/errors.ts";
import { addRegistration } from "./addRegistration.ts";
import { regionKept } from "./requireRegion.ts";

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

/** Fills the books of a new client with the chart and the codes of its country, its place and its registration. */
export async function createClient(
  work: Writing,
  clientId: number,
  body: ClientBody,
  start: ClientStart = {},
): Promise<void> {
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
  await work.models.clients.create(
    {
      id: clientId,
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
  const owned = { clientId, ...work.made };
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
  await addRules(work, clientId, start.rules ?? pack?.rules ?? []);
  await addSchedules(work, clientId, start.schedules ?? {});
  await work.record({
    action: "create",
    entity: "client",
    id: clientId,
    after: body,
  });
  const { place } = body;
  if (place) await inField("place", () => addPlace(work, clientId, "p1", place));
  const registrations = [
    ...(body.registration ? [[body.registration, "registration"] as const] : []),
    ...(body.registrations ?? []).map((one, index) => [one, `registrations[${index}]`] as const),
  ];
  for (const [index, [registration, path]] of registrations.entries()) {
    await inField(path, () => addRegistration(work, clientId, `r${index + 1}`, registration));
  }
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
  const named = codesByName(codes);
  if (rule && named.has(rule.code)) return rule.code;
  const standard = [...named.values()].find(
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
  const row = await work.models.places.create(
    {
      clientId,
      ref,
      name,
      country,
      region: regionKept(work, country, place.region ?? null),
      closedOn: place.closedOn ?? null,
      saleCode: place.saleCode || null,
      purchaseCode: place.purchaseCode || null,
      ...work.made,
    },
    work.options,
  );
  await work.record({
    action: "create",
    entity: "place",
    id: row.id,
    after: place,
  });
  return row.id;
}
