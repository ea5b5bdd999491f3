import { idsOfFamily, isFamily } from "./boxFamily.ts";

/**
 * What a box holds, minor units; of a family the sum of its members. Those that nothing moved are not there, and hold
 * nothing; neither does a box the form of that time did not have.
 */
export function amountOfBox(boxes: readonly { box: string; amount: number }[], id: string): number {
  if (isFamily(id)) {
    const members = new Set(
      idsOfFamily(
        id,
        boxes.map(({ box }) => box),
      ),
    );
    return boxes.reduce((sum, { box, amount }) => sum + (members.has(box) ? amount : 0), 0);
  }
  const result = boxes.find(({ box }) => box === id);
  return result === undefined ? 0 : result.amount;
}
