import { FiscalError } from "@fiscalon/core/errors";
import { formatAmount } from "@fiscalon/core/money/amount";
import type { SeenBox } from "@fiscalon/contract/returns";

/**
 * Refuses to seal or file other figures than were seen: somebody else may have posted, adjusted, opened and sealed
 * meanwhile.
 * @param seen the figures whoever does it looked at; undefined where nobody says
 * @param now those it would be done with
 * @throws FiscalError `returns/figures-moved` with every box that moved
 */
export function refuseMoved(
  seen: readonly SeenBox[] | undefined,
  now: readonly SeenBox[],
  digits: number,
  what: "sealed" | "filed",
): void {
  const amounts = new Map(now.map(({ box, amount }) => [box, amount]));
  const moved = (seen ?? [])
    .map(({ box, amount }) => ({ box, seen: amount, now: amounts.get(box) ?? 0 }))
    .filter((one) => one.seen !== one.now);
  const [first] = moved;
  if (!first) return;
  throw new FiscalError(
    "returns/figures-moved",
    `Box ${first.box} is ${formatAmount(first.now, digits)} now; it was ${formatAmount(first.seen, digits)} when you looked. Look at the return again before it is ${what}.`,
    undefined,
    { moved },
  );
}
