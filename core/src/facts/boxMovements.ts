import type { CalendarDate } from "../calendar/date.ts";
import { boxTags, landed } from "../model/boxTags.ts";
import type { AssignedFact } from "./effect.ts";

/** What a document adds to a box of a registration's period, in minor units before the box's own rounding. */
export interface BoxMovement {
  registration: number;
  periodEnd: CalendarDate;
  box: string;
  amount: number;
  /** The same by the rate (percent) each part came in at; boxes that are the tax on others need it. */
  parts: readonly { rate: string | null; amount: number }[];
}

/** The boxes a set of facts moves, one row a registration, period and box, in order of appearance. */
export function boxMovements(facts: readonly AssignedFact[]): BoxMovement[] {
  const rows = new Map<string, BoxMovement>();
  for (const fact of facts) {
    if (fact.registration === null || fact.period === null) continue;
    for (const tag of boxTags(fact.tags)) {
      const key = `${fact.registration} ${fact.period.reported.to} ${tag.box}`;
      const row = rows.get(key) ?? {
        registration: fact.registration,
        periodEnd: fact.period.reported.to,
        box: tag.box,
        amount: 0,
        parts: [],
      };
      const amount = landed(fact, tag);
      rows.set(key, {
        ...row,
        amount: row.amount + amount,
        parts: [...row.parts, { rate: fact.rate, amount }],
      });
    }
  }
  return [...rows.values()];
}
