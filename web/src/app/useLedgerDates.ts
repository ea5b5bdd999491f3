import { useState } from "react";
import { useScope } from "./scope.ts";
import { today } from "../kit/format.ts";

/** The days a ledger screen is about: those of the chosen period until others are typed. */
export function useLedgerDates() {
  const { period } = useScope();
  const [typed, setTyped] = useState<{ period: string | undefined; from?: string; to?: string }>({
    period: undefined,
  });
  const own = typed.period === period?.to ? typed : { period: period?.to };
  return {
    from: own.from ?? period?.from ?? `${today().slice(0, 4)}-01-01`,
    to: own.to ?? period?.to ?? today(),
    setFrom: (from: string) => setTyped({ ...own, from }),
    setTo: (to: string) => setTyped({ ...own, to }),
  };
}
