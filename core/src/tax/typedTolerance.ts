/**
 * Whether a typed tax is further from the calculated one than a reader would shrug at: the larger of 1 % of the
 * calculated tax and `floor` minor units. Whole minor units; the sign does not matter.
 */
export function beyondTolerance(typed: number, calculated: number, floor = 5): boolean {
  const distance = Math.abs(typed - calculated);
  return distance > floor && distance * 100 > Math.abs(calculated);
}
