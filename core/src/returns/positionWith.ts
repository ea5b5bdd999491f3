import type { ReturnForm } from "../model/returnForm.ts";
import { evaluateReturn, figuresOfReturn } from "./evaluateReturn.ts";
import type { Adjustment, BoxResult, EvaluationContext, ReturnFigures } from "./evaluateReturn.ts";

/**
 * What a return comes to with a document that is not in it yet: its own parts and what the document adds, through the
 * formulas of the form once more.
 * @param boxes the return as it stands
 * @param movements what is added, by box, minor units before the box's rounding
 * @throws FiscalError as `evaluateReturn` does
 */
export function positionWith(
  form: ReturnForm,
  boxes: readonly Pick<BoxResult, "box" | "contributions">[],
  movements: readonly { box: string; amount: number }[],
  context: EvaluationContext,
): ReturnFigures {
  const standing = boxes.flatMap(({ box, contributions }) =>
    contributions
      .filter(({ kind }) => kind === "facts" || kind === "carried" || kind === "adjustment")
      .map(({ amount }) => ({ box, amount })),
  );
  const parts = [...standing, ...movements].map(({ box, amount }, id): Adjustment => {
    return { id, box, amount, reason: "" };
  });
  return figuresOfReturn(form, evaluateReturn(form, [], parts, context), context.digits);
}
