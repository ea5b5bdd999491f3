import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { rhythmOn } from "@fiscalon/core/calendar/filingPeriods";
import { instalmentRuleOf } from "@fiscalon/core/model/instalments";
import { optionsOn } from "@fiscalon/core/model/registration";
import type { SchemeStep } from "@fiscalon/core/model/scheme";
import { formOfRegistration } from "@fiscalon/core/returns/formOn";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { periodRule } from "./periodRule.ts";

/** What was paid during a period, where a box of its return holds it. */
export async function instalmentSteps(work: Work, r: RegistrationRecord, end: string): Promise<SchemeStep[]> {
  const pack = work.packs.byId(r.pack);
  if (!pack.instalments?.some(({ paidIn }) => paidIn !== undefined)) return [];
  const { paidIn: box } =
    instalmentRuleOf(pack.instalments, {
      frequency: rhythmOn(periodRule(r), end).frequency,
      levies: r.levies,
      options: optionsOn(pack, r, end),
    }) ?? {};
  const { levies, options, changes } = r;
  const form = formOfRegistration(pack, { ...periodRule(r), levies, options, changes }, end);
  if (box === undefined || !form.boxes.some(({ id }) => id === box)) return [];
  const paid = await work.rows<{ entry: number; date: string; amount: number; reference: string }>(
    `SELECT entry_id AS entry, date, amount, reference FROM tax_payments
     WHERE registration_id = $1 AND period_end = $2 AND kind = 'instalment' ORDER BY date, id`,
    [r.id, end],
  );
  return paid.map(({ entry, date, amount, reference }) => ({
    id: `instalment-${entry}`,
    words: `Instalment paid on ${displayDate(date)}`,
    arithmetic: reference,
    amount,
    box,
    ref: `entry/${entry}`,
  }));
}
