import type { BoxMovement } from "../facts/boxMovements.ts";
import type { ReturnForm } from "../model/returnForm.ts";
import { evaluateReturn } from "./evaluateReturn.ts";
import { figuresOfReturn } from "./returnFigures.ts";
import type { Adjustment, BoxResult, EvaluationContext } from "./evaluateReturn.ts";
import type { ReturnFigures } from "./returnFigures.ts";

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
  movements: readonly Pick<BoxMovement, "box" | "parts">[],
  context: EvaluationContext,
): ReturnFigures {
  const standing = boxes.flatMap(({ box, contributions }) =>
    contributions
      .filter(({ kind }) => kind === "facts" || kind === "carried" || kind === "adjustment")
      .map((part) => ({ box, amount: part.amount, rate: "rate" in part ? part.rate : null })),
  );
  const moved = movements.flatMap(({ box, parts }) => parts.map((part) => ({ box, ...part })));
  const parts = [...standing, ...moved].map((part, id): Adjustment => ({ id, reason: "", ...part }));
  return figuresOfReturn(form, evaluateReturn(form, [], parts, context), context.digits);
}
