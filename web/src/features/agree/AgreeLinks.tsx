import { useQuery } from "@tanstack/react-query";
import type { ReactNode } from "react";
import type { AgreementLine } from "@fiscalon/contract/agreements";
import { groupBy } from "@fiscalon/core/groupBy";
import { displayAmount } from "@fiscalon/core/money/amount";
import { ScreenLinks } from "../../app/ScreenLinks.tsx";
import { useScope } from "../../app/scope.ts";
import { useAgreements } from "./useAgreements.ts";

/** The agreements of the period, each with how far it is; on every sheet of the station. */
export function AgreeLinks() {
  const { minorDigits } = useScope();
  const { data = [] } = useQuery(useAgreements());
  const notes = Object.fromEntries(
    [...groupBy(data, ({ screen }) => screen)].map(([screen, lines]) => [screen, noteOf(lines, minorDigits)]),
  );
  return (
    <ScreenLinks
      label="Agree"
      group="agree"
      notes={notes}
      className="flex flex-wrap justify-end gap-x-3 text-[13px] font-semibold"
    />
  );
}

function noteOf(lines: readonly AgreementLine[], digits: number): ReactNode {
  const isList = lines.every(({ screen }) => screen === "agree/statements");
  const left = isList ? 0 : lines.reduce((sum, { rest }) => sum + Math.abs(rest), 0);
  const waiting = lines.reduce((sum, line) => sum + line.waiting, 0);
  if (left !== 0) return <span className="text-warning">▲ {displayAmount(left, digits)} left</span>;
  if (lines.some(({ state }) => state === "changed"))
    return <span className="text-warning">▲ changed since</span>;
  if (waiting > 0) return <span className="quiet">{waiting} waiting</span>;
  const agreed = lines.every(({ state }) => state === "agreed" || state === "accepted");
  return <span className="text-success">✓ {agreed ? "agreed" : displayAmount(0, digits)}</span>;
}
