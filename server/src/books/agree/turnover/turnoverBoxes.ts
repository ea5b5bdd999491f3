import type { BridgeOf } from "@fiscalon/core/agree/turnoverBridge";
import type { ReturnForm } from "@fiscalon/core/model/returnForm";
import { idsOfFamily, isFamily } from "@fiscalon/core/returns/boxFamily";
import type { BoxResult } from "@fiscalon/core/returns/evaluateReturn";

/** Of the boxes of a form those that hold turnover, or the value of purchases. */
export function turnoverBoxes<Box extends Pick<BoxResult, "box">>(
  form: ReturnForm,
  boxes: readonly Box[],
  of: BridgeOf,
): Box[] {
  const ids = boxes.map(({ box }) => box);
  const wanted = new Set((form[of] ?? []).flatMap((id) => (isFamily(id) ? idsOfFamily(id, ids) : [id])));
  return boxes.filter(({ box }) => wanted.has(box));
}
