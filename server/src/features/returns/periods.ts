import { addDays, addMonths } from "@fiscalon/core/calendar/date";
import { filingPeriodOn, filingPeriods } from "@fiscalon/core/calendar/filingPeriods";
import type { FilingPeriod } from "@fiscalon/core/calendar/filingPeriods";
import { FiscalError } from "@fiscalon/core/errors";
import { packById } from "@fiscalon/core/jurisdictions/packs";
import type { PeriodTile } from "@fiscalon/contract/returns";
import type { Database, Tx } from "../../db/database.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { groupBy } from "../../groupBy.ts";
import { today } from "../clients/loadSetup.ts";
import { dueDates } from "./dueDates.ts";
import { evaluated, figuresOf } from "./evaluation.ts";
import { periodRule } from "./periodRule.ts";
import { adjustmentsOf, factGroups } from "./queries.ts";
import { returnRecord } from "./records.ts";

/** The period of a registration that ends on a day, refused when none does. */
export function periodEnding(r: RegistrationRecord, end: string): FilingPeriod {
  const period = filingPeriodOn(periodRule(r), end);
  if (period?.to === end) return period;
  throw new FiscalError(
    "returns/no-period",
    `No filing period of this registration ends on ${end}.`,
    "period",
  );
}

/** The tiles of the period ribbon: every period from registration to one ahead of today, with its net amount. */
export async function periodTiles(db: Database, r: RegistrationRecord): Promise<PeriodTile[]> {
  const now = today();
  const rule = periodRule(r);
  const lastDay = await db.row<{ day: string | null }>(
    "SELECT max(period_end) AS day FROM facts WHERE registration_id = $1 AND live = 1",
    [r.id],
  );
  const ahead = filingPeriodOn(rule, now < r.validFrom ? r.validFrom : now)?.to ?? now;
  const horizon = [addDays(ahead, 1), lastDay?.day ?? "", now].sort().at(-1) ?? now;
  const periods = filingPeriods(rule, earliest(r, now), horizon);
  const groups = groupBy(await factGroups(db, r.id, null), (group) => group.periodEnd);
  const adjustments = groupBy(await adjustmentsOf(db, r.id, null), (one) => one.periodEnd);
  const records = await db.models.returns.findAll({ where: { registrationId: r.id } });
  let previous = new Map<string, number>();
  return periods.map((period) => {
    const record = records.find((one) => one.periodEnd === period.to);
    const boxes =
      record?.boxes ??
      evaluated(r, period.to, groups.get(period.to) ?? [], adjustments.get(period.to) ?? [], previous);
    previous = new Map(boxes.map((box) => [box.box, box.amount]));
    const { net, output, input } = figuresOf(r, period.to, boxes);
    return {
      ...period,
      ...dueDates(r, period.to),
      state: record?.state ?? (period.from > now ? "ahead" : "open"),
      net,
      output,
      input,
    };
  });
}

/** Forms start with a version; nothing before it can be shown, and ten years are enough for a strip. */
function earliest(r: RegistrationRecord, now: string): string {
  const own = packById(r.pack).forms.filter((form) => form.levies.every((levy) => r.levies.includes(levy)));
  const first = own.map((form) => form.from).sort()[0] ?? r.validFrom;
  const back = addMonths(now, -120);
  return [r.validFrom, first, back].sort().at(-1) ?? r.validFrom;
}

/** The period before, or undefined for the first. */
export function periodBefore(r: RegistrationRecord, period: FilingPeriod): FilingPeriod | undefined {
  return filingPeriodOn(periodRule(r), addDays(period.from, -1));
}

/** Refuses to change a period that is already sealed. */
export async function requireOpen(
  db: Database,
  registrationId: number,
  periodEnd: string,
  tx: Tx,
): Promise<void> {
  const record = await returnRecord(db, registrationId, periodEnd, tx);
  if (!record || record.state === "open" || record.state === "in-review") return;
  throw new FiscalError(
    "returns/sealed",
    `The period to ${periodEnd} is ${record.state}; nothing in it can change.`,
  );
}
