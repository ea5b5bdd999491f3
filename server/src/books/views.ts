import { rhythmsFor } from "@fiscalon/core/model/registration";
import { rhythmInWords } from "@fiscalon/core/calendar/rhythmInWords";
import { partsOf } from "@fiscalon/core/calendar/date";
import { MONTHS_OF } from "@fiscalon/core/calendar/filingPeriods";
import type { Frequency } from "@fiscalon/core/calendar/filingPeriods";
import { minorDigits } from "@fiscalon/core/money/currency";
import { formOn } from "@fiscalon/core/returns/formOn";
import { groupBy } from "@fiscalon/core/groupBy";
import type { ClientRow, ClientView, NextReturn, RegistrationView } from "@fiscalon/contract/views";
import type { Work, Writing } from "../base/work.ts";
import type { PlaceRecord, RegistrationRecord } from "../db/models.ts";
import { loadClient } from "./loadSetup.ts";

/** Every client of the practice, by name, from its summaries; one whose books nobody can read has its name only. */
export async function clientRows(work: Work): Promise<ClientRow[]> {
  const rows = await work.rows<Omit<ClientRow, "next">>(
    `SELECT c.id, c.name, coalesce(s.country, '') AS country, coalesce(s.currency, '') AS currency,
       coalesce(s.documents, 0) AS documents,
       coalesce((SELECT group_concat(p.value ->> 'name', ', ') FROM json_each(s.places) p), '') AS places
     FROM clients c LEFT JOIN client_summaries s ON s.client_id = c.id WHERE c.state = 'ready'
     ORDER BY c.name COLLATE NOCASE`,
  );
  const next = await work.rows<
    Omit<NextReturn, "levies" | "findings" | "counting"> & {
      client: number;
      levies: string;
      findings: string | null;
      counting: number;
    }
  >(
    `SELECT n.*, CASE WHEN f.open IS NOT NULL THEN json_object('open', f.open, 'stops', f.stops) END AS findings,
       f.client_id IS NULL AS counting
     FROM (SELECT p.client_id AS client, p.registration_id AS registration, r.definition ->> '$.levies' AS levies,
         p.period_from AS "from", min(p.period_end) AS "to", p.due, p.state, p.net
       FROM period_summaries p JOIN registration_summaries r
         ON r.client_id = p.client_id AND r.registration_id = p.registration_id
       WHERE p.state NOT IN ('filed', 'settled') GROUP BY p.client_id, p.registration_id) n
     JOIN client_summaries s ON s.client_id = n.client
     LEFT JOIN finding_counts f ON f.client_id = n.client AND f.registration_id = n.registration
       AND f.period_end = n."to" AND f.stamp = s.stamp
     ORDER BY n.due, n.registration`,
  );
  const byClient = groupBy(next, ({ client }) => client);
  return rows.map((row) => ({
    ...row,
    next: (byClient.get(row.id) ?? []).map(({ client: _client, levies, findings, counting, ...one }) => ({
      ...one,
      counting: counting === 1,
      levies: JSON.parse(levies) as string[],
      findings: findings === null ? null : (JSON.parse(findings) as NonNullable<NextReturn["findings"]>),
    })),
  }));
}

/** Changes a client, and gives it as it is then; all in one transaction. */
export function changedClient(
  work: Work,
  clientId: number,
  change: (work: Writing) => Promise<void>,
): Promise<ClientView> {
  return work.write(async (work) => {
    await change(work);
    return clientView(work, clientId);
  });
}

export async function clientView(work: Work, clientId: number): Promise<ClientView> {
  const client = await loadClient(work, clientId);
  const places = await work.models.places.findAll({ where: { clientId }, order: ["id"], ...work.options });
  const registrations = await work.models.registrations.findAll({
    where: { clientId },
    order: ["validFrom"],
    ...work.options,
  });
  const pack = work.packs.ofCountry(client.country);
  return {
    id: client.id,
    name: client.name,
    country: client.country,
    currency: client.currency,
    digits: minorDigits(client.currency),
    zone: work.zone,
    saleCode: client.saleCode,
    purchaseCode: client.purchaseCode,
    places: places.map((p) => placeView(p.get({ plain: true }) as PlaceRecord)),
    registrations: registrations.map((r) =>
      registrationView(work, r.get({ plain: true }) as RegistrationRecord),
    ),
    pack: pack
      ? {
          id: pack.id,
          name: pack.name,
          authority: pack.authority,
          numberName: pack.numberName,
          rhythms: rhythmsFor(pack, pack.defaultLevies ?? []).map((rhythm) => ({ ...rhythm })),
          roundings: pack.roundings.map(({ id, name, source }) => ({ id, name, source })),
          form: formView(formOn(pack, work.today)),
        }
      : null,
  };
}

function formView({ id, name, boxes }: ReturnType<typeof formOn>) {
  return { id, name, boxes: boxes.map((box) => ({ id: box.id, short: box.short })) };
}

function placeView(place: PlaceRecord): ClientView["places"][number] {
  const { id, ref, name, country, region, closedOn, saleCode, purchaseCode } = place;
  return { id, ref, name, country, region, closedOn, saleCode, purchaseCode };
}

export function registrationView({ packs }: Work, r: RegistrationRecord): RegistrationView {
  const pack = packs.byId(r.pack);
  const rhythm = rhythmsFor(pack, r.levies).find(
    (one) => one.frequency === r.frequency && sameRhythm(one, r),
  );
  return {
    id: r.id,
    ref: r.ref,
    pack: r.pack,
    packName: pack.name,
    authority: pack.authority,
    numberName: pack.numberName,
    levies: r.levies,
    region: r.region,
    number: r.number,
    from: r.validFrom,
    to: r.validTo,
    frequency: r.frequency,
    rhythm: rhythm?.name ?? rhythmInWords(r.frequency, r.anchor),
    anchor: r.anchor,
    basis: r.basis,
    changes: r.changes,
    options: r.options,
    opening: r.opening,
    schemes: r.schemes,
    rounding: r.rounding,
  };
}

/** Whether two month ends are whole periods apart. */
function sameRhythm(a: { frequency: Frequency; anchor: string }, b: { anchor: string }): boolean {
  const [one, other] = [partsOf(a.anchor), partsOf(b.anchor)];
  return (one.year * 12 + one.month - other.year * 12 - other.month) % MONTHS_OF[a.frequency] === 0;
}
