import { useEffect, useState } from "react";
import { useScope } from "../../app/scope.ts";
import { today } from "../../kit/format.ts";

/** The days a ledger screen is about: those of the chosen period until others are typed. */
export function useLedgerDates() {
  const { period } = useScope();
  const [from, setFrom] = useState(period?.from ?? `${today().slice(0, 4)}-01-01`);
  const [to, setTo] = useState(period?.to ?? today());
  useEffect(() => {
    if (!period) return;
    setFrom(period.from);
    setTo(period.to);
  }, [period?.from, period?.to, period]);
  return { from, to, setFrom, setTo };
}
