import { valueAt } from "../at.ts";
import { evaluateFormula } from "../formula/evaluateFormula.ts";
import { parseFormula } from "../formula/parseFormula.ts";
import type { ReturnForm } from "../model/returnForm.ts";
import { roundExact } from "../money/roundExact.ts";
import type { BoxResult } from "./evaluateReturn.ts";

/** What a return comes to, in minor units. `net` is owed to the authority (positive) or by it (negative). */
export interface ReturnFigures {
  output: number;
  input: number;
  net: number;
  allowance: number;
  carried: number;
  scheme: number;
}

/** The totals of a return by the formulas of its form. */
export function figuresOfReturn(
  form: ReturnForm,
  boxes: readonly Pick<BoxResult, "box" | "amount">[],
  digits = 2,
): ReturnFigures {
  const figure = (formula: string | undefined) =>
    formula === undefined ? 0 : figureOfBoxes(formula, boxes, digits);
  const { output, input, due, allowance, carried, scheme } = form.net;
  return {
    output: figure(output),
    input: figure(input),
    net: figure(due),
    allowance: figure(allowance),
    carried: figure(carried),
    scheme: figure(scheme),
  };
}

/** What a formula over boxes comes to, minor units. */
export function figureOfBoxes(
  formula: string,
  boxes: readonly Pick<BoxResult, "box" | "amount">[],
  digits = 2,
): number {
  const amounts = new Map(boxes.map((box) => [box.box, box.amount]));
  const scale = 10n ** BigInt(digits);
  const value = evaluateFormula(parseFormula(formula), {
    box: (id) => ({ n: BigInt(valueAt(amounts, id)), d: scale }),
  });
  return roundExact({ n: value.n * scale, d: value.d });
}

/** What the authority's rules say to these boxes: the sentence of each rule that does not hold. */
export function brokenRules(
  form: ReturnForm,
  boxes: readonly Pick<BoxResult, "box" | "amount">[],
  digits = 2,
): string[] {
  const amounts = new Map(boxes.map((box) => [box.box, box.amount]));
  const scale = 10n ** BigInt(digits);
  return (form.rules ?? []).flatMap(({ formula, says }) => {
    const value = evaluateFormula(parseFormula(formula), {
      box: (id) => ({ n: BigInt(valueAt(amounts, id)), d: scale }),
    });
    return value.n === 0n ? [says] : [];
  });
}
