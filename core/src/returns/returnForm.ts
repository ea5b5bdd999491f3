import type { CalendarDate } from "../calendar/date.ts";
import type { RoundingMode } from "../money/roundExact.ts";

interface BoxBase {
  /** The form's own number or letter. */
  id: string;
  /** The official title, and a shorter one for narrow places. */
  title: string;
  short: string;
  holds: "tax" | "value";
  /** `step` in minor units: 100 for whole units of a two-digit currency. */
  rounding: { mode: RoundingMode; step: number };
  /** What the box holds, in a sentence for the trail. */
  words: string;
}

/** A box that sums the facts tagged with its id, or one worked out from other boxes. */
export type BoxDefinition =
  | (BoxBase & { kind: "sum" })
  | (BoxBase & {
      kind: "formula";
      terms: readonly { box: string; sign: 1 | -1 }[];
      /** The sign is dropped (a box that must not be negative and says the direction by words). */
      absolute?: boolean;
      formula: string;
    });

/**
 * A return form as data, valid for periods that end between `from` and `to`. `net` names the boxes whose
 * difference is owed (positive) or refunded (negative), and the box that shows it.
 */
export interface ReturnForm {
  id: string;
  name: string;
  from: CalendarDate;
  to: CalendarDate | null;
  boxes: readonly BoxDefinition[];
  net: { payable: string; reclaimed: string; shown: string };
  source: string;
}
