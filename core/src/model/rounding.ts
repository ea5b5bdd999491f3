import type { RoundingMode } from "../money/roundExact.ts";

/**
 * How a registration rounds tax. `line`: each line's tax is rounded. `document`: the exact taxes of one levy and
 * rate are summed, rounded once, and spread back over the lines. `step`: whole minor units to round to.
 * `lineStep`: with level `document`, each line is first rounded half up to this fraction of a minor unit
 * ("0.1": a tenth of a penny, as VAT Notice 700 section 17.5.1 allows).
 * `combined`: with level `line`, the levies of a line are rounded together: their sum once, each cut to whole
 * steps, what is missing to the largest remainders.
 */
export interface Rounding {
  level: "line" | "document";
  mode: RoundingMode;
  step?: number;
  lineStep?: string;
  combined?: boolean;
}

export const ROUND_EACH_LINE: Rounding = { level: "line", mode: "half-up" };
