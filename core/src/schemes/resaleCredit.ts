import type { CalendarDate } from "../calendar/date.ts";
import type { FilingPeriod } from "../calendar/filingPeriods.ts";
import { textAt } from "../at.ts";
import type { ResaleCredit } from "../model/resaleCredit.ts";
import type { SchemeInForce, SchemeResult, SchemeStep } from "../model/scheme.ts";
import { displayAmount, parseAmount } from "../money/amount.ts";
import { roundExact } from "../money/roundExact.ts";

/** A sale of a piece: what it cost, and the tax on its sale; minor units, negative on a credit note. */
export interface ResoldPiece {
  document: number;
  line: number;
  number: string;
  cost: number;
  tax: number;
}

/** A period with its pieces sold, what lots cost, and the tax on parts of lots; minor units. */
export interface ResalePeriod extends FilingPeriod {
  pieces: readonly ResoldPiece[];
  bought: number;
  sold: number;
}

export interface ResaleAround {
  /** Every filing period since the scheme began, in order of time. */
  periods: readonly ResalePeriod[];
  scheme: SchemeInForce;
  digits: number;
}

/**
 * The credit of each piece that was sold, and the tax on parts of lots that the pool of their purchases takes. Both make
 * less owed.
 * @param ends last days of the periods that are on the return
 * @source GSTA Div 66; the pool by Subdiv 66-B
 */
export function resaleCredit(
  rule: ResaleCredit,
  { periods, scheme, digits }: ResaleAround,
  ends: ReadonlySet<CalendarDate>,
): SchemeResult {
  const show = (amount: number) => displayAmount(amount, digits);
  const { of, parts } = rule.part;
  const inside = (price: number) => roundExact({ n: BigInt(price) * BigInt(of), d: BigInt(parts) });
  const typed = textAt(scheme.settings, rule.setting);
  const steps: SchemeStep[] = [];
  let pool = typed === "" ? 0 : parseAmount(typed, digits);
  let owed = 0;
  for (const { to, pieces, bought, sold } of periods) {
    const before = pool;
    const filled = before + inside(bought);
    const kept = Math.max(Math.min(filled, sold), Math.min(sold, 0));
    pool = filled - kept;
    if (!ends.has(to)) continue;
    for (const { document, line, number, cost, tax } of pieces) {
      if (Math.abs(cost) <= rule.upTo) continue;
      const [whole, most] = [Math.abs(inside(cost)), Math.abs(tax)];
      const credit = Math.sign(tax) * Math.min(whole, most) || 0;
      steps.push({
        id: `resold-${document}-${line}`,
        words: `Credit on ${number}, line ${line}: a piece bought second-hand, sold.`,
        arithmetic: `the lesser of ${show(Math.abs(cost))} × ${of}/${parts} = ${show(whole)} and ${show(most)} on the sale`,
        amount: credit,
        box: rule.boxes.credit,
      });
      owed -= credit;
    }
    if (bought !== 0)
      steps.push({
        id: `lots-${to}`,
        words: `Lots bought to be sold in parts, of which ${of}/${parts} goes to the pool.`,
        arithmetic: `${show(before)} + ${show(bought)} × ${of}/${parts} = ${show(filled)}`,
        amount: bought,
      });
    if (kept === 0) continue;
    steps.push({
      id: `kept-${to}`,
      words: `${rule.levy} on parts of lots that the pool takes; ${show(pool)} stays in it.`,
      arithmetic: `the lesser of ${show(sold)} and ${show(filled)} in the pool`,
      amount: -kept,
      box: rule.boxes.kept,
    });
    owed -= kept;
  }
  return { steps, owed };
}
