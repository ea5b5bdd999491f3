import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { periodTiles } from "./periods.ts";

/** A period that is not settled yet, as the practice shows it beside those of other clients. */
export interface UnsettledPeriod {
  registration: number;
  from: string;
  to: string;
  due: string;
  state: string;
  /** Minor units of the books. */
  net: number;
}

/** Every period of a client that has begun and is not settled. */
export async function unsettledPeriods(work: Work, clientId: number): Promise<UnsettledPeriod[]> {
  const registrations = await work.models.registrations.findAll({ where: { clientId }, ...work.options });
  const periods: UnsettledPeriod[] = [];
  for (const row of registrations) {
    const r = row.get({ plain: true }) as RegistrationRecord;
    for (const { from, to, due, state, net } of await periodTiles(work, r))
      if (state !== "ahead" && state !== "settled")
        periods.push({ registration: r.id, from, to, due, state, net });
  }
  return periods;
}
