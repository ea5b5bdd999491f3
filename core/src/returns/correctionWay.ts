import { displayAmount } from "../money/amount.ts";
import { exactFromDecimal } from "../money/exact.ts";
import { amountOfBox } from "./amountOfBox.ts";
import type { CorrectionRule } from "../model/pack.ts";

/** Whether errors of earlier periods may go on this return, or must be disclosed separately. */
export interface CorrectionWay {
  way: "on-return" | "disclose";
  reason: string;
}

/** What the box of the rule that tells the turnover holds, minor units; nothing where the law asks for none. */
export function turnoverOf(
  boxes: readonly { box: string; amount: number }[],
  { turnoverBox }: CorrectionRule,
): number {
  return turnoverBox === null ? 0 : amountOfBox(boxes, turnoverBox);
}

/**
 * Applies the authority's limit to the net error found in a period.
 * @param netError what was under-declared minus what was over-declared, minor units; the sign does not matter
 * @param turnover the turnover box of the return of the period of discovery, minor units
 * @source VAT Notice 700/45: up to £10,000, or up to 1 % of box 6 and £50,000
 */
export function correctionWay(
  netError: number,
  turnover: number,
  rule: CorrectionRule,
  digits: number,
): CorrectionWay {
  const error = Math.abs(netError);
  const shown = displayAmount(error, digits);
  if (rule.amount === null) return { way: "on-return", reason: "the law sets no limit" };
  if (error <= rule.amount) {
    return { way: "on-return", reason: `${shown} is within ${displayAmount(rule.amount, digits)}` };
  }
  if (rule.share === null) {
    return {
      way: "disclose",
      reason:
        rule.amount === 0
          ? "the return of the period itself is amended"
          : `${shown} is above ${displayAmount(rule.amount, digits)}`,
    };
  }
  const ceiling = rule.ceiling ?? Number.POSITIVE_INFINITY;
  const upTo = rule.ceiling === null ? "" : ` up to ${displayAmount(rule.ceiling, digits)}`;
  const share = exactFromDecimal(rule.share);
  const withinShare = BigInt(error) * share.d * 100n <= BigInt(Math.abs(turnover)) * share.n;
  if (withinShare && error <= ceiling) {
    const and = rule.ceiling === null ? "" : ` and ${displayAmount(rule.ceiling, digits)}`;
    return {
      way: "on-return",
      reason: `${shown} is within ${rule.share} % of box ${rule.turnoverBox}${and}`,
    };
  }
  return {
    way: "disclose",
    reason: `${shown} is above ${displayAmount(rule.amount, digits)} and not within ${rule.share} % of box ${rule.turnoverBox}${upTo}`,
  };
}
