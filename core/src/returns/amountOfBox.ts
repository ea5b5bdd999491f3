/**
 * What a box holds, minor units. Of a family of boxes the members that nothing moved are not there, and hold nothing;
 * neither does a box the form of that time did not have.
 */
export function amountOfBox(boxes: readonly { box: string; amount: number }[], id: string): number {
  const result = boxes.find(({ box }) => box === id);
  return result === undefined ? 0 : result.amount;
}
