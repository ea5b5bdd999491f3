import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { addDays, addMonths } from "@fiscalon/core/calendar/date";
import { filingPeriodOn, filingPeriods } from "@fiscalon/core/calendar/filingPeriods";
import type { FilingPeriod } from "@fiscalon/core/calendar/filingPeriods";
import { FiscalError } from "@fiscalon/core/errors";
import type { PeriodTile } from "@fiscalon/contract/returns";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { groupBy } from "@fiscalon/core/groupBy";
import { dueDates } from "./dueDates.ts";
import { digitsOf, evaluated, figuresOf, formOf } from "./evaluation.ts";
import { schedulesOf } from "./schedules.ts";
import { contentOfPeriod } from "./schemes.ts";
import { openingBoxes } from "./openingFigures.ts";
import { periodRule } from "./periodRule.ts";
import { adjustmentsOf, factGroups } from "./queries.ts";
import { isOpen, returnRecord } from "./records.ts";

/** The period of a registration that ends on a day, refused when none does. */
export function periodEnding(r: RegistrationRecord, end: string): FilingPeriod {
  const period = filingPeriodOn(periodRule(r), end);
  if (period?.to === end) return period;
  throw new FiscalError(
    "returns/no-period",
    `No filing period of this registration ends on ${displayDate(end)}.`,
    "period",
  );
}

/** The tiles of the period ribbon: every period from registration to one ahead of today, with its net amount. */
export function periodTiles(work: Work, r: RegistrationRecord): Promise<readonly PeriodTile[]> {
  return work.remembered("periods", r, (work) => tilesOf(work, r));
}

async function tilesOf(work: Work, r: RegistrationRecord): Promise<PeriodTile[]> {
  const now = work.today;
  const rule = periodRule(r);
  const lastDay = await work.row<{ day: string | null }>(
    "SELECT max(period_end) AS day FROM facts WHERE registration_id = $1 AND live = 1",
    [r.id],
  );
  const ahead = filingPeriodOn(rule, now < r.validFrom ? r.validFrom : now)?.to ?? now;
  const horizon = [addDays(ahead, 1), lastDay?.day ?? "", now].sort().at(-1) ?? now;
  const periods = filingPeriods(rule, earliest(work, r, now), horizon);
  const records = await work.models.returns.findAll({ where: { registrationId: r.id }, ...work.options });
  // What is sealed is read from what was sealed.
  const sealed = new Set(records.flatMap(({ boxes, periodEnd }) => (boxes ? [periodEnd] : [])));
  const open = periods.flatMap(({ to }) => (sealed.has(to) ? [] : [to]));
  const groups = groupBy(await factGroups(work, r.id, open), (group) => group.periodEnd);
  const adjustments = groupBy(await adjustmentsOf(work, r.id, null), (one) => one.periodEnd);
  const schedules = await schedulesOf(work, r);
  const brought = (end: string) => openingBoxes(formOf(work, r, end), r.opening, digitsOf(work, r));
  let previous: ReadonlyMap<string, number> | undefined;
  const tiles: PeriodTile[] = [];
  for (const period of periods) {
    const record = records.find((one) => one.periodEnd === period.to);
    const boxes =
      record?.boxes ??
      evaluated(work, schedules, r, period.to, {
        ...(await contentOfPeriod(work, r, period.to, groups.get(period.to) ?? [])),
        adjustments: adjustments.get(period.to) ?? [],
        previous: previous ?? brought(period.to),
      });
    // Until there is something in the books, what the registration brought in stays as it is.
    if (previous !== undefined || record?.boxes || groups.has(period.to))
      previous = new Map(boxes.map((box) => [box.box, box.amount]));
    const { net, output, input } = figuresOf(work, r, period.to, boxes);
    tiles.push({
      ...period,
      ...dueDates(work, r, period.to),
      state: record?.state ?? (period.from > now ? "ahead" : "open"),
      net,
      output,
      input,
    });
  }
  return tiles;
}

/** Forms start with a version; nothing before it can be shown, and ten years are enough for a strip. */
function earliest({ packs }: Work, r: RegistrationRecord, now: string): string {
  const forms = packs
    .byId(r.pack)
    .forms.filter((form) => form.levies.every((levy) => r.levies.includes(levy)));
  const first = forms.map((form) => form.from).sort()[0] ?? r.validFrom;
  const back = addMonths(now, -120);
  return [r.validFrom, first, back].sort().at(-1) ?? r.validFrom;
}

/** The period before, or undefined for the first. */
export function periodBefore(r: RegistrationRecord, period: FilingPeriod): FilingPeriod | undefined {
  return filingPeriodOn(periodRule(r), addDays(period.from, -1));
}

/** Refuses to change a period that is already sealed. */
export async function requireOpen(work: Work, registrationId: number, periodEnd: string): Promise<void> {
  const record = await returnRecord(work, registrationId, periodEnd);
  if (!record || isOpen(record)) return;
  throw new FiscalError(
    "returns/sealed",
    `The period to ${displayDate(periodEnd)} is ${record.state}; nothing in it can change.`,
  );
}
