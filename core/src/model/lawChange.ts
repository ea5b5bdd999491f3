import type { CalendarDate } from "../calendar/date.ts";
import type { Frequency } from "../calendar/filingPeriods.ts";
import type { DueRule } from "../calendar/dueDate.ts";

/** A doubtful figure of a jurisdiction was looked up: `subject` is its key, `value` the figure that was found right. */
interface Confirmation {
  kind: "confirm";
  subject: string;
  value: string;
}

/** A row of a schedule, in the place of what stood there on these days. `rate` as in RateRow. */
interface RateCorrection {
  kind: "rate";
  schedule: string;
  from: CalendarDate;
  to: CalendarDate | null;
  rate: string;
}

/** The day by which returns of periods that end between `ends.from` and `ends.to` are due, and the money with them. */
interface DueCorrection extends Pick<DueRule, "months" | "day" | "shift" | "pay"> {
  kind: "due";
  frequency: Frequency | null;
  levy: string | null;
  ends: { from: CalendarDate; to: CalendarDate | null };
}

/** What a box is called. */
interface TitleCorrection {
  kind: "title";
  form: string;
  box: string;
  title: string;
}

/** What a practice says of the law of a jurisdiction that ships or is its own; `source` is where it found it. */
export type LawChange = { pack: string; source: string } & (
  Confirmation | RateCorrection | DueCorrection | TitleCorrection
);

export type LawChangeKind = LawChange["kind"];
