import { useMemo } from "react";
import { positionWith } from "@fiscalon/core/returns/positionWith";
import { usePacks } from "../api/packs.tsx";
import { formNow } from "./formBoxes.ts";
import { useScope } from "./scope.ts";
import { usePeriodReturn } from "./usePeriodReturn.ts";
import { useSetup } from "./useSetup.ts";

export interface Position {
  output: number;
  input: number;
  net: number;
}

/**
 * Where the chosen period stands with the document that is being typed, by the formulas of its form; null where
 * nothing is typed that moves this return, or while the return is fetched.
 */
export function usePosition(): Position | null {
  const packs = usePacks();
  const setup = useSetup();
  const { registration, period, draft, minorDigits } = useScope();
  const movements = useMemo(
    () =>
      (draft?.movements ?? []).filter(
        (one) => one.registration === registration?.id && one.periodEnd === period?.to,
      ),
    [draft, registration, period],
  );
  const { data: view } = usePeriodReturn(movements.length > 0);
  return useMemo(() => {
    if (!registration || !period || !view || !setup || movements.length === 0) return null;
    const form = formNow(packs, registration, period.to);
    const boxes = view.boxes.map(({ id, contributions }) => ({ box: id, contributions }));
    const context = { digits: minorDigits, on: period.to, schedules: setup.plain.schedules };
    return positionWith(form, boxes, movements, context);
  }, [packs, registration, period, view, setup, movements, minorDigits]);
}
