import type { SchemeDefinition, SchemeInForce } from "@fiscalon/core/model/scheme";
import type { SchemeFact } from "@fiscalon/core/schemes/turnoverRate";
import { expandCode } from "@fiscalon/core/tax/expandCode";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { dayGroups, isInSpan, lateDayGroups } from "./dayGroups.ts";
import type { DayGroup } from "./dayGroups.ts";
import { levySpans, scopeOfPeriod } from "./queries.ts";
import type { ReturnScope } from "./queries.ts";

/**
 * What a scheme is worked out from: what it holds of a return, and what else was in the own periods of that.
 * @param days everything on the return
 */
export async function schemeFacts(
  work: Work,
  r: RegistrationRecord,
  scope: ReturnScope,
  { levies }: SchemeDefinition,
  spans: readonly SchemeInForce[],
  days: readonly DayGroup[],
): Promise<SchemeFact[]> {
  const times = levySpans(levies, spans);
  const ends = new Set(days.map(({ ownEnd }) => ownEnd));
  const all: DayGroup[] = [];
  for (const end of ends) {
    const isWhole = scope.by === "period_end" && scope.from <= end && end <= scope.to;
    all.push(
      ...(isWhole
        ? days.filter(({ periodEnd }) => periodEnd === end)
        : await dayGroups(work, r.id, scopeOfPeriod(end))),
    );
  }
  all.push(...(await lateDayGroups(work, r.id, [...ends])));
  const held = all.filter((day) => ends.has(day.ownEnd) && times.some((span) => isInSpan(day, span)));
  const facts = await told(work, r, held);
  return facts
    .map(({ day, ...use }): SchemeFact => {
      const { code, treatment, direction, charged, rate, net, tax, recoverable, taxPoint, ownEnd } = day;
      const on = scope.by === "period_end" ? day.periodEnd : taxPoint;
      const reported = scope.from <= on && on <= scope.to;
      return {
        code,
        treatment,
        direction,
        charged,
        rate,
        net,
        tax,
        recoverable,
        taxPoint,
        ownEnd,
        reported,
        ...use,
      };
    })
    .sort((one, two) => rank(one) - rank(two) || (one.taxPoint < two.taxPoint ? -1 : 1));
}

/** Sales before purchases. */
function rank({ direction }: SchemeFact): number {
  return direction === "sale" ? 0 : 1;
}

/** With what purchases are for, in place of how facts write it; what a line leaves to its code, the code says. */
async function told(
  work: Work,
  r: Pick<RegistrationRecord, "pack" | "clientId">,
  days: readonly DayGroup[],
): Promise<({ day: DayGroup } & Pick<SchemeFact, "supply" | "topic">)[]> {
  const supplies = new Map(
    work.packs
      .byId(r.pack)
      .codes.flatMap(expandCode)
      .map(({ code, supply }) => [code, supply]),
  );
  const accounts = await work.rows<{ code: string; topic: string | null }>(
    "SELECT code, topic FROM accounts WHERE client_id = $1",
    [r.clientId],
  );
  const topics = new Map(accounts.map(({ code, topic }) => [code, topic]));
  return days.map((day) => {
    const [supply, account] = day.use.split(" ") as [SchemeFact["supply"], string | undefined];
    const ofCode = supplies.get(day.code);
    const says = supply === "" && ofCode !== undefined && ofCode !== "both" ? ofCode : supply;
    return { day, supply: says, topic: topics.get(account ?? "") ?? null };
  });
}
