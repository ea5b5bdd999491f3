import type { RateSchedules } from "@fiscalon/core/model/taxCode";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";

/** The rates and limits a registration's form is worked out with: those of its law, where the client has no own. */
export async function schedulesOf(
  work: Work,
  { pack, clientId }: RegistrationRecord,
): Promise<RateSchedules> {
  const own = await work.models.schedules.findAll({ where: { clientId }, ...work.options });
  return {
    ...work.packs.byId(pack).schedules,
    ...Object.fromEntries(own.map(({ ref, rows }) => [ref, rows])),
  };
}
