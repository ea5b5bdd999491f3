import clsx from "clsx";
import { displayAmount } from "@fiscalon/core/money/amount";
import type { TrailStep } from "@fiscalon/contract/trail";
import { useTrail } from "./trailContext.ts";

/**
 * An amount that can be opened. `amount` in minor units, `digits` decimals shown; for boxes in whole units pass
 * `minorDigits`, the decimals the amount is kept with. `of` names the trail.
 */
export function Figure({
  amount,
  digits,
  minorDigits = digits,
  of,
  dash = false,
  className,
  label,
}: {
  amount: number;
  digits: number;
  minorDigits?: number;
  of?: string | TrailStep | null;
  dash?: boolean;
  className?: string;
  label?: string;
}) {
  const trail = useTrail();
  const shown = shownAmount(amount, digits, minorDigits, dash);
  if (!of) return <span className={clsx("num", className)}>{shown}</span>;
  const ref = typeof of === "string" ? of : of.ref;
  return (
    <button
      type="button"
      className={clsx("figure", className)}
      aria-label={`${label ? `${label} ` : ""}${shown}, open trail`}
      aria-pressed={trail.chain.some((step) => (typeof step === "string" ? step : step.ref) === ref)}
      onClick={() => trail.open(of)}
    >
      {shown}
    </button>
  );
}

export function shownAmount(amount: number, digits: number, minorDigits: number, dash: boolean): string {
  if (amount === 0 && dash) return "–";
  if (digits === minorDigits) return displayAmount(amount, digits);
  return displayAmount(Math.trunc(amount / 10 ** (minorDigits - digits)), digits);
}
