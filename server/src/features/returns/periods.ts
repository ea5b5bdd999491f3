import Holidays from "date-holidays";
import { addDays, addMonths, partsOf } from "@fiscalon/core/calendar/date";
import { dueDate, workingDayOnOrBefore } from "@fiscalon/core/calendar/dueDate";
import { filingPeriodOn, filingPeriods } from "@fiscalon/core/calendar/filingPeriods";
import type { FilingPeriod } from "@fiscalon/core/calendar/filingPeriods";
import { FiscalError } from "@fiscalon/core/errors";
import { formOn, packById } from "@fiscalon/core/jurisdictions/packs";
import { evaluateReturn, netOfReturn } from "@fiscalon/core/returns/evaluateReturn";
import type { PeriodTile } from "@fiscalon/contract/returns";
import type { Database, Tx } from "../../db/database.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { groupBy } from "../../groupBy.ts";
import { today } from "../clients/loadSetup.ts";
import { adjustmentsOf, factGroups } from "./queries.ts";
import { returnRecord } from "./records.ts";

export function periodRule(r: RegistrationRecord) {
  return { frequency: r.frequency, anchor: r.anchor, from: r.validFrom, to: r.validTo };
}

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

/** When the return is due, and by when the money must be there (the last working day on or before). */
export function dueDates(r: RegistrationRecord, periodEnd: string): { due: string; payBy: string } {
  const pack = packById(r.pack);
  const due = dueDate(pack.due, periodEnd);
  return { due, payBy: workingDayOnOrBefore(due, bankHolidays(pack.country, partsOf(due).year)) };
}

const calendars = new Map<string, ReadonlySet<string>>();

function bankHolidays(country: string, year: number): ReadonlySet<string> {
  const key = `${country} ${year}`;
  const known = calendars.get(key);
  if (known) return known;
  const region = country === "GB" ? "ENG" : undefined;
  const calendar = region === undefined ? new Holidays(country) : new Holidays(country, region);
  const days = new Set(
    calendar
      .getHolidays(year)
      .filter((day) => day.type === "public" || day.type === "bank")
      .map((day) => day.date.slice(0, 10)),
  );
  calendars.set(key, days);
  return days;
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
  return periods.map((period) => {
    const record = records.find((one) => one.periodEnd === period.to);
    const form = formOn(packById(r.pack), period.to);
    const boxes =
      record?.boxes ?? evaluateReturn(form, groups.get(period.to) ?? [], adjustments.get(period.to) ?? []);
    const amountOf = (id: string) => boxes.find((box) => box.box === id)?.amount ?? 0;
    return {
      ...period,
      ...dueDates(r, period.to),
      state: record?.state ?? (period.from > now ? "ahead" : "open"),
      net: netOfReturn(
        form,
        boxes.map((box) => ({ ...box, contributions: [] })),
      ),
      output: amountOf(form.net.payable),
      input: amountOf(form.net.reclaimed),
    };
  });
}

/** Forms start with a version; nothing before it can be shown, and ten years are enough for a strip. */
function earliest(r: RegistrationRecord, now: string): string {
  const first = packById(r.pack).forms[0]?.from ?? r.validFrom;
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
