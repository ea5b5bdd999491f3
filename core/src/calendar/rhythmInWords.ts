import type { CalendarDate } from "./date.ts";
import { MONTHS } from "./months.ts";
import { MONTHS_OF } from "./filingPeriods.ts";
import type { Frequency } from "./filingPeriods.ts";

/**
 * A filing rhythm as people say it: "Quarterly to March, June, September, December".
 * @param anchor the end of any one of its periods
 */
export function rhythmInWords(frequency: Frequency, anchor: CalendarDate): string {
  const step = MONTHS_OF[frequency];
  const name = frequency.charAt(0).toUpperCase() + frequency.slice(1);
  if (step === 1) return name;
  const first = (Number(anchor.slice(5, 7)) - 1) % step;
  const ends = Array.from({ length: 12 / step }, (_, index) => MONTHS[first + index * step]);
  return `${name} to ${ends.join(", ")}`;
}
