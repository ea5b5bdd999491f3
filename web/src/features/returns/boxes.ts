import type { BoxView, ReturnView } from "@fiscalon/contract/returns";

/** What the result of a return is, where its own words do not say so. */
export function direction(words: string, net: number): string {
  if (/\b(pay|paid|payable|repay|repayable|refund|reclaim)\b/i.test(words)) return "";
  return net < 0 ? " to reclaim" : " to pay";
}

/** The step of the trail a box opens; none where nothing is in it. */
export function trailOf(box: BoxView, { registration, to }: ReturnView): string | null {
  return box.amount === 0 && box.contributions.length === 0 ? null : `box/${registration}/${to}/${box.id}`;
}
