import { exactFromInteger } from "../money/exact.ts";
import { roundExact } from "../money/roundExact.ts";
import { measured } from "../facts/boxMovements.ts";
import { boxTags } from "../tax/boxTags.ts";
import type { Measure } from "../tax/boxTags.ts";
import type { Direction } from "../tax/taxCode.ts";
import type { BoxDefinition, ReturnForm } from "./returnForm.ts";

/** Facts of one period summed by everything that decides where they land. Amounts in minor units. */
export interface FactGroup {
  code: string;
  direction: Direction;
  rate: string | null;
  tags: string;
  /** Credit notes are kept apart, so that the trail can name them. */
  credit: boolean;
  late: boolean;
  net: number;
  tax: number;
  recoverable: number;
  count: number;
}

/** An adjustment entered by hand: `amount` in minor units is added to the box. */
export interface Adjustment {
  id: number;
  box: string;
  amount: number;
  reason: string;
}

/** A part of a box. Amounts in minor units, with the sign they have in the box. */
export type Contribution =
  | {
      kind: "facts";
      code: string;
      direction: Direction;
      rate: string | null;
      measure: Measure;
      credit: boolean;
      late: boolean;
      amount: number;
      count: number;
    }
  | { kind: "box"; box: string; amount: number }
  | { kind: "adjustment"; adjustment: number; reason: string; amount: number };

export interface BoxResult {
  box: string;
  /** What goes on the form: minor units after the box's rounding. */
  amount: number;
  /** Before the box's rounding; the sum of the contributions (its absolute value for an absolute box). */
  exact: number;
  contributions: Contribution[];
}

/**
 * Evaluates a form: every box with its amount, the exact amount before rounding, and what it is made of.
 * @param groups the period's facts, summed; whole minor units
 * @returns boxes in the order of the form
 */
export function evaluateReturn(
  form: ReturnForm,
  groups: readonly FactGroup[],
  adjustments: readonly Adjustment[] = [],
): BoxResult[] {
  const results = new Map<string, BoxResult>();
  const facts = contributionsByBox(groups);
  for (const box of form.boxes) {
    const own = box.kind === "sum" ? (facts.get(box.id) ?? []) : fromBoxes(box, results);
    const adjusted = adjustments
      .filter((adjustment) => adjustment.box === box.id)
      .map(({ id, reason, amount }): Contribution => ({
        kind: "adjustment",
        adjustment: id,
        reason,
        amount,
      }));
    const contributions = [...own, ...adjusted];
    const sum = contributions.reduce((total, part) => total + part.amount, 0);
    const exact = box.kind === "formula" && box.absolute ? Math.abs(sum) : sum;
    const amount = roundExact(exactFromInteger(exact), box.rounding.mode, box.rounding.step);
    results.set(box.id, { box: box.id, amount, exact, contributions });
  }
  return [...results.values()];
}

function fromBoxes(
  box: Extract<BoxDefinition, { kind: "formula" }>,
  results: ReadonlyMap<string, BoxResult>,
): Contribution[] {
  return box.terms.map((term) => ({
    kind: "box",
    box: term.box,
    amount: term.sign * (results.get(term.box)?.amount ?? 0) || 0,
  }));
}

function contributionsByBox(groups: readonly FactGroup[]): Map<string, Contribution[]> {
  const boxes = new Map<string, Contribution[]>();
  for (const group of groups) {
    for (const tag of boxTags(group.tags)) {
      const { code, direction, rate, credit, late, count } = group;
      const amount = tag.sign * measured(group, tag.measure) || 0;
      const part: Contribution = {
        kind: "facts",
        code,
        direction,
        rate,
        measure: tag.measure,
        credit,
        late,
        amount,
        count,
      };
      boxes.set(tag.box, [...(boxes.get(tag.box) ?? []), part]);
    }
  }
  return boxes;
}

/** What is owed to the authority (positive) or by it (negative) for the period, minor units. */
export function netOfReturn(form: ReturnForm, boxes: readonly BoxResult[]): number {
  const amountOf = (id: string) => boxes.find((box) => box.box === id)?.amount ?? 0;
  return amountOf(form.net.payable) - amountOf(form.net.reclaimed);
}
