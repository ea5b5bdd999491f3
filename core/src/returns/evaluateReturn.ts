import type { CalendarDate } from "../calendar/date.ts";
import { evaluateFormula } from "../formula/evaluateFormula.ts";
import { parseFormula } from "../formula/parseFormula.ts";
import { exactFromDecimal, exactFromInteger, exactToText } from "../money/exact.ts";
import type { Exact } from "../money/exact.ts";
import { roundExact } from "../money/roundExact.ts";
import { boxTags, landed } from "../model/boxTags.ts";
import type { Measure, Measures } from "../model/boxTags.ts";
import { rowInForce } from "../tax/rateInForce.ts";
import type { Direction, RateSchedules } from "../model/taxCode.ts";
import { boxesInOrder } from "./boxesInOrder.ts";
import { boxesWithMembers, idsOfFamily, isFamily } from "./boxFamily.ts";
import { linearTerms } from "./linearTerms.ts";
import type { BoxDefinition, FormulaBox, ReturnForm, TaxedBox } from "../model/returnForm.ts";
import type { SchemeStep } from "../model/scheme.ts";

/** Facts of one period summed by everything that decides where they land. Amounts in minor units. */
export interface FactGroup extends Measures {
  code: string;
  direction: Direction;
  rate: string | null;
  tags: string;
  /** Credit notes are kept apart, so that the trail can name them. */
  credit: boolean;
  late: boolean;
  count: number;
}

/** An adjustment entered by hand: `amount` in minor units is added to the box. */
export interface Adjustment {
  id: number;
  box: string;
  amount: number;
  reason: string;
  /** Percent, where the amount is a base that came in at a rate of its own. */
  rate?: string | null;
}

/** A part of a box, with the sign it has in the box. */
export type ContributionIn<Amount> =
  | {
      kind: "facts";
      code: string;
      direction: Direction;
      rate: string | null;
      measure: Measure;
      credit: boolean;
      late: boolean;
      amount: Amount;
      count: number;
    }
  | {
      /** Another box: a term of a sum, or (`read`) a figure the formula works with. */
      kind: "box";
      box: string;
      amount: Amount;
      read?: boolean;
    }
  | { kind: "moved"; box: string; amount: Amount }
  | { kind: "carried"; box: string; amount: Amount }
  /** A step of a special scheme: what it is, and how it is worked out. */
  | { kind: "scheme"; step: string; words: string; arithmetic: string; amount: Amount; ref?: string }
  | {
      /** Tax on what another box holds at one rate: `base` times `rate`. */
      kind: "taxed";
      box: string;
      rate: string;
      base: Amount;
      amount: Amount;
    }
  | { kind: "adjustment"; adjustment: number; reason: string; amount: Amount; rate?: string | null };

/** A part of a box in minor units. */
export type Contribution = ContributionIn<number>;

export interface BoxResult {
  box: string;
  /** What goes on the form: minor units after the box's rounding. */
  amount: number;
  /** Before the box's rounding, to the minor unit; the sum of the contributions, except where a formula reads them. */
  exact: number;
  /** The exact amount in major units, at most six decimals. */
  exactText: string;
  contributions: Contribution[];
}

/** What evaluating depends on beside the facts. */
export interface EvaluationContext {
  /** Decimals of the currency. */
  digits?: number;
  /** Last day of the period: decides the rates in formulas. */
  on?: CalendarDate;
  schedules?: RateSchedules;
  /** The boxes of the period before, in minor units, for boxes that are carried. */
  previous?: ReadonlyMap<string, number>;
  /** What the special scheme of the period puts on the return. */
  steps?: readonly SchemeStep[];
}

/**
 * Evaluates a form: every box with its amount, the exact amount before rounding, and what it is made of.
 * @param groups the period's facts, summed; whole minor units
 * @returns boxes in the order of the form, families of boxes by their members
 * @throws FiscalError `returns/circular-boxes`, and what formulas throw
 */
export function evaluateReturn(
  form: ReturnForm,
  groups: readonly FactGroup[],
  adjustments: readonly Adjustment[] = [],
  context: EvaluationContext = {},
): BoxResult[] {
  const facts = contributionsByBox(groups);
  for (const { id, box, words, arithmetic, amount, ref } of context.steps ?? []) {
    if (box === undefined) continue;
    const opens = ref === undefined ? {} : { ref };
    const part: Contribution = { kind: "scheme", step: id, words, arithmetic, amount, ...opens };
    facts.set(box, [...(facts.get(box) ?? []), part]);
  }
  const moved = new Set([...facts.keys(), ...adjustments.map(({ box }) => box)]);
  const boxes = boxesWithMembers(form.boxes, moved);
  moveNegatives(boxes, facts, adjustments);
  const results = new Map<string, BoxResult>();
  for (const box of boxesInOrder(boxes)) {
    results.set(box.id, evaluated(box, facts, adjustments, results, context));
  }
  return boxes.map((box) => results.get(box.id)).filter((result) => result !== undefined);
}

function evaluated(
  box: BoxDefinition,
  facts: ReadonlyMap<string, Contribution[]>,
  adjustments: readonly Adjustment[],
  results: ReadonlyMap<string, BoxResult>,
  context: EvaluationContext,
): BoxResult {
  const digits = context.digits ?? 2;
  const adjusted = adjustments
    .filter((adjustment) => adjustment.box === box.id)
    .map(({ id, reason, amount, rate }): Contribution => {
      return { kind: "adjustment", adjustment: id, reason, amount, ...(rate === undefined ? {} : { rate }) };
    });
  const parts = partsOf(box, facts, results, context);
  const contributions = [...parts, ...adjusted];
  const minor =
    box.kind === "formula"
      ? formulaAmount(box, results, context, digits)
      : exactFromInteger(contributions.reduce((total, part) => total + part.amount, 0));
  return {
    box: box.id,
    amount: roundExact(minor, box.rounding.mode, box.rounding.step),
    exact: roundExact(minor),
    exactText: exactToText({ n: minor.n, d: minor.d * 10n ** BigInt(digits) }, 6),
    contributions,
  };
}

function partsOf(
  box: BoxDefinition,
  facts: ReadonlyMap<string, Contribution[]>,
  results: ReadonlyMap<string, BoxResult>,
  context: EvaluationContext,
): Contribution[] {
  if (box.kind === "formula") return readBoxes(box, results);
  if (box.kind === "taxed") return taxByRate(box, results, context);
  if (box.kind === "sum" || box.kind === "typed") return facts.get(box.id) ?? [];
  if (box.kind !== "carried") return [];
  const amount = context.previous?.get(box.of) ?? 0;
  return amount === 0 ? [] : [{ kind: "carried", box: box.of, amount }];
}

/** The tax on another box, a part for each rate at which something came in; each is rounded to the minor unit. */
function taxByRate(
  { of, schedule }: TaxedBox,
  results: ReadonlyMap<string, BoxResult>,
  context: EvaluationContext,
): Contribution[] {
  const inForce = () => rowInForce(context.schedules?.[schedule], context.on ?? "")?.rate ?? "0";
  const bases = new Map<string, number>();
  for (const part of results.get(of)?.contributions ?? []) {
    const own = "rate" in part ? part.rate : undefined;
    const rate = own ?? inForce();
    bases.set(rate, (bases.get(rate) ?? 0) + part.amount);
  }
  return [...bases]
    .filter(([, base]) => base !== 0)
    .map(([rate, base]): Contribution => {
      const percent = exactFromDecimal(rate);
      const amount = roundExact({ n: percent.n * BigInt(base), d: percent.d * 100n });
      return { kind: "taxed", box: of, rate, base, amount };
    });
}

function readBoxes(box: FormulaBox, results: ReadonlyMap<string, BoxResult>): Contribution[] {
  const formula = parseFormula(box.formula);
  const terms = linearTerms(formula);
  const each = (id: string) => (isFamily(id) ? idsOfFamily(id, results.keys()) : [id]);
  const part = (id: string, sign: 1 | -1, read: boolean): Contribution => ({
    kind: "box",
    box: id,
    amount: sign * amountIn(results, id) || 0,
    ...(read ? { read } : {}),
  });
  if (terms) return terms.flatMap(({ box: id, sign }) => each(id).map((one) => part(one, sign, false)));
  return formula.boxes.flatMap((id) => each(id).map((one) => part(one, 1, true)));
}

/**
 * What a box holds; of a family the sum of its members. Members that nothing moved are not there, and hold nothing.
 */
function amountIn(results: ReadonlyMap<string, BoxResult>, id: string): number {
  if (isFamily(id))
    return idsOfFamily(id, results.keys()).reduce((sum, one) => sum + amountIn(results, one), 0);
  const result = results.get(id);
  return result === undefined ? 0 : result.amount;
}

/** Whether somebody typed something in a box, nil too. */
function isTyped(results: ReadonlyMap<string, BoxResult>, id: string): boolean {
  return results.get(id)?.contributions.some(({ kind }) => kind === "adjustment") ?? false;
}

function formulaAmount(
  box: FormulaBox,
  results: ReadonlyMap<string, BoxResult>,
  context: EvaluationContext,
  digits: number,
): Exact {
  const scale = 10n ** BigInt(digits);
  const value = evaluateFormula(parseFormula(box.formula), {
    box: (id) =>
      id.endsWith("?")
        ? exactFromInteger(isTyped(results, id.slice(0, -1)) ? 1 : 0)
        : { n: BigInt(amountIn(results, id)), d: scale },
    rate: (schedule) => {
      const row = rowInForce(context.schedules?.[schedule], context.on ?? "");
      return row ? exactFromDecimal(row.rate) : undefined;
    },
  });
  return { n: value.n * scale, d: value.d };
}

/** Boxes that must not be negative give their amount, with the other sign, to the box that stands against them. */
function moveNegatives(
  boxes: readonly BoxDefinition[],
  facts: Map<string, Contribution[]>,
  adjustments: readonly Adjustment[],
): void {
  for (const box of boxes) {
    if (box.kind !== "sum" || box.negativeTo === undefined) continue;
    const parts = facts.get(box.id) ?? [];
    const adjusted = adjustments.filter((one) => one.box === box.id);
    const sum = [...parts, ...adjusted].reduce((total, part) => total + part.amount, 0);
    if (sum >= 0) continue;
    const against = facts.get(box.negativeTo) ?? [];
    facts.set(box.id, [...parts, { kind: "moved", box: box.negativeTo, amount: -sum }]);
    facts.set(box.negativeTo, [...against, { kind: "moved", box: box.id, amount: -sum }]);
  }
}

function contributionsByBox(groups: readonly FactGroup[]): Map<string, Contribution[]> {
  const boxes = new Map<string, Contribution[]>();
  for (const group of groups) {
    for (const tag of boxTags(group.tags)) {
      const { code, direction, rate, credit, late, count } = group;
      const part: Contribution = {
        kind: "facts",
        code,
        direction,
        rate,
        measure: tag.measure,
        credit,
        late,
        amount: landed(group, tag),
        count,
      };
      const list = boxes.get(tag.box);
      if (list) list.push(part);
      else boxes.set(tag.box, [part]);
    }
  }
  return boxes;
}
