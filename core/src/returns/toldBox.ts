import type { BoxDefinition } from "../model/returnForm.ts";

/** Whether anything is told of a box, in this period or the one before: what is worked out from nothing tells nothing. */
export function isTold({
  kind,
  amount,
  previous,
  contributions,
}: {
  kind: BoxDefinition["kind"];
  amount: number;
  previous: number | null;
  contributions: readonly unknown[];
}): boolean {
  const isWorkedOut = kind === "formula" || kind === "taxed";
  return amount !== 0 || (previous ?? 0) !== 0 || (!isWorkedOut && contributions.length > 0);
}
