import { textAt } from "@fiscalon/core/at";
import { addDays, addMonths, endOfYear } from "@fiscalon/core/calendar/date";
import type { CollectionRule } from "@fiscalon/core/model/collection";
import type { RateSchedules } from "@fiscalon/core/model/taxCode";
import { optionsOn } from "@fiscalon/core/model/registration";
import { notFound } from "../../base/errors.ts";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import type { ClientSetup } from "../loadSetup.ts";
import { schedulesOf } from "../returns/schedules.ts";

/** How a client collects tax from customers: the rule, its rates, and the way of it on each day. */
export interface Collecting {
  rule: CollectionRule;
  schedules: RateSchedules;
  registration: RegistrationRecord;
  /** `no`, `receipt` or `invoice`. */
  wayOn: (day: string) => string;
}

/** What a client collects, where the law of one of its registrations has such a tax. */
export async function collecting(work: Work, { registrations }: ClientSetup): Promise<Collecting> {
  const own = registrations.filter((r) => work.packs.byId(r.pack).collection !== undefined);
  const [registration] = own;
  const rule = registration && work.packs.byId(registration.pack).collection;
  if (!registration || !rule) throw notFound("A tax that is collected from customers");
  return {
    rule,
    schedules: await schedulesOf(work, registration),
    registration,
    wayOn: (day) => {
      // A tax of its own, so that it may be older than the registration it is chosen at.
      const ways = own.map((r) => textAt(optionsOn(work.packs.byId(r.pack), r, day), rule.option));
      return ways.find((way) => way !== "" && way !== "no") ?? "no";
    },
  };
}

/** The fiscal year a day lies in. */
export function yearOf({ yearEnds }: CollectionRule, day: string): { from: string; to: string } {
  const to = endOfYear(yearEnds, day);
  return { from: addMonths(addDays(to, 1), -12), to };
}
