import { useState } from "react";
import { useScope } from "./scope.ts";
import { today } from "../kit/format.ts";

/** The days a ledger screen is about: those of the chosen period until others are typed. */
export function useLedgerDates() {
  const { period } = useScope();
  const [typed, setTyped] = useState<{ period: string | undefined; from?: string; to?: string }>({
    period: undefined,
  });
  const dates = typed.period === period?.to ? typed : { period: period?.to };
  return {
    from: dates.from ?? period?.from ?? `${today().slice(0, 4)}-01-01`,
    to: dates.to ?? period?.to ?? today(),
    setFrom: (from: string) => setTyped({ ...dates, from }),
    setTo: (to: string) => setTyped({ ...dates, to }),
  };
}
