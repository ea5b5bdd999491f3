import { found } from "@fiscalon/core/at";
import { minorDigits } from "@fiscalon/core/money/currency";
import type { EffectSetup } from "@fiscalon/core/facts/effect";
import { setupFromPlain } from "@fiscalon/core/facts/plainSetup";
import type { PlainSetup } from "@fiscalon/core/facts/plainSetup";
import { engagedIn } from "@fiscalon/core/supply/engagedIn";
import type { RegistrationSetup } from "@fiscalon/core/model/registration";
import type { Account } from "@fiscalon/core/model/account";
import type { RateSchedules } from "@fiscalon/core/model/taxCode";
import type { Work } from "../base/work.ts";
import type {
  AccountRecord,
  ClientRecord,
  PlaceRecord,
  RegistrationRecord,
  RuleRecord,
  ScheduleRecord,
} from "../db/models.ts";
import { notFound } from "../base/errors.ts";

/** A client's set-up with what the server needs beside it: the ids of accounts. */
export interface ClientSetup {
  client: ClientRecord;
  registrations: RegistrationRecord[];
  plain: PlainSetup;
  effect: EffectSetup;
  accountIds: ReadonlyMap<string, number>;
}

export async function loadClient(work: Work, clientId: number): Promise<ClientRecord> {
  const client = await work.models.clients.findByPk(clientId, work.options);
  if (!client) throw notFound("This client");
  return client.get({ plain: true }) as ClientRecord;
}

/** Everything the computation depends on, as of now. */
export async function loadSetup(work: Work, clientId: number): Promise<ClientSetup> {
  const options = { where: { clientId }, ...work.options };
  const client = await loadClient(work, clientId);
  const accounts = (await work.models.accounts.findAll({ ...options, order: ["code"] })).map(
    (a) => a.get({ plain: true }) as AccountRecord,
  );
  const codes = await work.models.codes.findAll({ ...options, order: ["position"] });
  const registrations = (
    await work.models.registrations.findAll({ ...options, order: ["validFrom", "id"] })
  ).map((r) => r.get({ plain: true }) as RegistrationRecord);
  const rowsOf = async <T>(table: "rules" | "schedules" | "places"): Promise<T[]> => {
    const rows = await (work.models[table] as typeof work.models.rules).findAll({
      ...options,
      order: ["id"],
    });
    return rows.map((row) => row.get({ plain: true }) as unknown as T);
  };
  const rules = (await rowsOf<RuleRecord>("rules")).sort((a, b) => a.position - b.position);
  const schedules = await rowsOf<ScheduleRecord>("schedules");
  const places = await rowsOf<PlaceRecord>("places");
  const sealed = await work.rows<{ registration: number; periodEnd: string }>(
    `SELECT registration_id AS registration, period_end AS periodEnd FROM returns
     WHERE client_id = $1 AND state IN ('sealed', 'filed', 'settled')`,
    [clientId],
  );
  const plainRegistrations = registrations.map(registrationSetup);
  const engaged = engagedIn(places, plainRegistrations, work.today, work.packs);
  const plain: PlainSetup = {
    digits: minorDigits(client.currency),
    currency: client.currency,
    today: work.today,
    codes: codes.map((c) => c.definition),
    archived: codes.filter((c) => !c.active).map((c) => c.code),
    rules: rules.map((rule) => rule.definition),
    places: places.map(({ id, name, country, region, closedOn, saleCode, purchaseCode }) => ({
      id,
      name,
      country,
      region,
      closedOn,
      saleCode,
      purchaseCode,
      ...withEngaged(engaged.get(country)),
    })),
    schedules: {
      ...packSchedules(work, client, registrations),
      ...Object.fromEntries(schedules.map(({ ref, rows }) => [ref, rows])),
    },
    accounts: accounts.map(accountOf),
    registrations: plainRegistrations,
    sealed: registrations.map((r) => ({
      registration: r.id,
      periodEnds: sealed.filter((s) => s.registration === r.id).map((s) => s.periodEnd),
    })),
    saleCode: client.saleCode,
    purchaseCode: client.purchaseCode,
  };
  return {
    client,
    registrations,
    plain,
    effect: setupFromPlain(plain, work.packs),
    accountIds: new Map(accounts.map((account) => [account.code, account.id])),
  };
}

function withEngaged(engaged: readonly string[] | undefined) {
  return engaged === undefined ? {} : { engaged };
}

function accountOf({ code, name, type, role, levy, region, topic, usualCode }: AccountRecord): Account {
  return { code, name, type, role, levy, ...(region === null ? {} : { region }), topic, usualCode };
}

function registrationSetup(r: RegistrationRecord): RegistrationSetup {
  return {
    id: r.id,
    pack: r.pack,
    levies: r.levies,
    region: r.region,
    basis: r.basis,
    rounding: r.rounding,
    options: r.options,
    ...(r.schemes.length === 0 ? {} : { schemes: r.schemes }),
    frequency: r.frequency,
    anchor: r.anchor,
    changes: r.changes,
    from: r.validFrom,
    to: r.validTo,
  };
}

function packSchedules(
  { packs: known }: Work,
  client: ClientRecord,
  registrations: readonly RegistrationRecord[],
): RateSchedules {
  const packs = new Set(registrations.map((r) => r.pack));
  const home = known.ofCountry(client.country);
  if (home) packs.add(home.id);
  return Object.assign({}, ...[...packs].map((pack) => known.byId(pack).schedules)) as RateSchedules;
}

/** A registration of the client by its number in the database or its id in the book file. */
export function registrationIn(setup: ClientSetup, idOrRef: string): RegistrationRecord {
  const registration = setup.registrations.find((r) => String(r.id) === idOrRef || r.ref === idOrRef);
  if (!registration) throw notFound("This registration");
  return registration;
}

/** The registration a row of ours belongs to. */
export function registrationWithId(
  registrations: readonly RegistrationRecord[],
  id: number,
): RegistrationRecord {
  return found(registrations, (r) => r.id === id, `registration ${id}`);
}
