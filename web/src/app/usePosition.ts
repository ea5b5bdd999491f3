import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { keys } from "../api/keys.ts";
import { formNow } from "./formBoxes.ts";
import { useScope } from "./scope.ts";
import { usePeriodReturn } from "./usePeriodReturn.ts";
import { usePlainSetup } from "./records.ts";

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
  const setup = usePlainSetup();
  const { packs, registration, period, draft, minorDigits } = useScope();
  const movements = useMemo(
    () =>
      (draft?.movements ?? []).filter(
        (one) => one.registration === registration?.id && one.periodEnd === period?.to,
      ),
    [draft, registration, period],
  );
  const { data: view } = usePeriodReturn(movements.length > 0);
  // What evaluates formulas comes with the first document that is typed.
  const { data: positionWith } = useQuery({
    queryKey: keys.positionWith,
    queryFn: async () => (await import("@fiscalon/core/returns/positionWith")).positionWith,
    enabled: movements.length > 0,
    staleTime: Infinity,
    structuralSharing: false,
  });
  return useMemo(() => {
    if (!registration || !period || !view || !setup || !positionWith || movements.length === 0) return null;
    const form = formNow(packs, registration, period.to);
    const boxes = view.boxes.map(({ id, contributions }) => ({ box: id, contributions }));
    const context = { digits: minorDigits, on: period.to, schedules: setup.schedules };
    return positionWith(form, boxes, movements, context);
  }, [packs, registration, period, view, setup, positionWith, movements, minorDigits]);
}
