import { FiscalError } from "@fiscalon/core/errors";
import { minorDigits } from "@fiscalon/core/money/currency";
import { packById, packOfCountry } from "@fiscalon/core/jurisdictions/packs";
import type { JurisdictionPack } from "@fiscalon/core/jurisdictions/pack";
import type { Account } from "@fiscalon/core/ledger/account";
import type { TaxCode } from "@fiscalon/core/tax/taxCode";
import { ROUND_EACH_LINE } from "@fiscalon/core/tax/rounding";
import type { ClientBody, PlaceBody, RegistrationBody } from "@fiscalon/contract/setup";
import { made, recordChange } from "../../actor.ts";
import type { Actor } from "../../actor.ts";
import type { Database, Tx } from "../../db/database.ts";

/** What a client starts with when the book says nothing else: codes and accounts of the pack of its country. */
export interface ClientStart {
  codes?: readonly TaxCode[];
  accounts?: readonly Account[];
  saleCode?: string | null;
  purchaseCode?: string | null;
}

/** Creates a client with the chart and the codes of its country, its place and its registration. */
export async function createClient(
  db: Database,
  tx: Tx,
  actor: Actor,
  body: ClientBody,
  start: ClientStart = {},
): Promise<number> {
  const pack = packOfCountry(body.country);
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
  const client = await db.models.clients.create(
    {
      name: body.name,
      country: body.country,
      currency,
      saleCode: start.saleCode === undefined ? firstStandard(codes) : start.saleCode,
      purchaseCode: start.purchaseCode === undefined ? firstStandard(codes) : start.purchaseCode,
      ...made(actor),
    },
    { transaction: tx },
  );
  const owned = { clientId: client.id, ...made(actor) };
  await db.models.accounts.bulkCreate(
    (start.accounts ?? pack?.accounts ?? []).map((account) => ({ ...owned, ...account })),
    { transaction: tx },
  );
  await db.models.codes.bulkCreate(
    codes.map((definition, position) => ({
      ...owned,
      code: definition.code,
      definition,
      active: true,
      position,
    })),
    { transaction: tx },
  );
  await recordChange(db, tx, actor, {
    client: client.id,
    action: "create",
    entity: "client",
    id: client.id,
    after: body,
  });
  if (body.place) await addPlace(db, tx, actor, client.id, "p1", body.place);
  if (body.registration) {
    await addRegistration(db, tx, actor, client.id, "r1", body.registration, "registration");
  }
  return client.id;
}

function firstStandard(codes: readonly TaxCode[]): string | null {
  return codes.find((code) => code.treatment === "standard")?.code ?? null;
}

export async function addPlace(
  db: Database,
  tx: Tx,
  actor: Actor,
  clientId: number,
  ref: string,
  place: PlaceBody,
): Promise<number> {
  const { name, country } = place;
  const row = await db.models.places.create(
    { clientId, ref, name, country, region: place.region || null, ...made(actor) },
    { transaction: tx },
  );
  await recordChange(db, tx, actor, {
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
  db: Database,
  tx: Tx,
  actor: Actor,
  clientId: number,
  ref: string,
  body: RegistrationBody,
  path: string,
): Promise<number> {
  const pack = packById(body.pack);
  const levies = body.levies ?? pack.levies.map((levy) => levy.levy);
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
  await refuseOverlap(db, tx, clientId, levies, body, path);
  const row = await db.models.registrations.create(
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
      basis: body.basis,
      rounding: body.rounding ?? pack.roundings[0]?.rounding ?? ROUND_EACH_LINE,
      ...made(actor),
    },
    { transaction: tx },
  );
  await recordChange(db, tx, actor, {
    client: clientId,
    action: "create",
    entity: "registration",
    id: row.id,
    after: body,
  });
  return row.id;
}

function checkedNumber(
  pack: JurisdictionPack,
  number: string | null | undefined,
  field: string,
): string | null {
  if (!number) return null;
  const check = pack.checkNumber(number);
  if (check.ok) return check.number;
  throw new FiscalError("registration/bad-number", check.message, field);
}

function anchorOf(pack: JurisdictionPack, body: RegistrationBody, path: string): string {
  if (body.anchor) return body.anchor;
  const rhythm = pack.rhythms.find((r) => r.frequency === body.frequency);
  if (rhythm) return rhythm.anchor;
  throw new FiscalError(
    "registration/no-anchor",
    `Say on which month end a ${body.frequency} period ends.`,
    `${path}.anchor`,
  );
}

async function refuseOverlap(
  db: Database,
  tx: Tx,
  clientId: number,
  levies: readonly string[],
  body: RegistrationBody,
  path: string,
): Promise<void> {
  const others = await db.models.registrations.findAll({ where: { clientId }, transaction: tx });
  const clash = others.find(
    (other) =>
      other.levies.some((levy) => levies.includes(levy)) &&
      (other.validTo === null || body.from <= other.validTo) &&
      (body.to === null || other.validFrom <= body.to),
  );
  if (!clash) return;
  throw new FiscalError(
    "registration/overlap",
    `There is already a registration for ${clash.levies.join(", ")} from ${clash.validFrom}${clash.validTo ? ` to ${clash.validTo}` : ""}. End that one first.`,
    `${path}.from`,
  );
}
