import { keys } from "../api/keys.ts";
import { useQuery } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useState } from "react";
import type { ReactNode } from "react";
import { useLocation, useNavigate, useParams } from "react-router";
import { Packs } from "@fiscalon/core/model/packs";
import type { PeriodTile } from "@fiscalon/contract/returns";
import { api } from "../api/client.ts";
import { clientQuery } from "../api/atStart.ts";
import { useClientPacks } from "../api/clientPacks.ts";
import { DateOrderContext } from "../kit/dateOrder.ts";
import { keepDaysOf, today } from "../kit/format.ts";
import { ScopeContext } from "./scope.ts";
import type { DraftEffect, Scope } from "./scope.ts";

/** Reads client, registration and period from the address; what it does not say is chosen sensibly. */
export function ScopeProvider({ children }: { children: ReactNode }) {
  const { clientId } = useParams();
  const { pathname, search } = useLocation();
  const navigate = useNavigate();
  const [draft, setDraft] = useState<DraftEffect | null>(null);
  const params = useMemo(() => new URLSearchParams(search), [search]);

  const { data: found, error: clientError } = useQuery(clientQuery(clientId));
  const packs = useClientPacks(found);
  const client = packs && found;
  // Before anything below asks for a day.
  keepDaysOf(client?.zone);
  const registration =
    client?.registrations.find((r) => String(r.id) === params.get("r")) ??
    client?.registrations.find((r) => r.to === null) ??
    client?.registrations.at(-1);
  const { data: periods = NONE, isPending: periodsPending } = useQuery({
    queryKey: keys.of(client?.id, "periods", registration?.id),
    queryFn: ({ signal }) =>
      api.get("/clients/:id/registrations/:rid/periods", [clientId, registration?.id], {}, signal),
    enabled: registration !== undefined,
  });
  const pathPeriod = /\/return\/(\d{4}-\d\d-\d\d)$/.exec(pathname)?.[1];
  const wanted = pathPeriod ?? params.get("period");
  const period = periods.find((tile) => tile.to === wanted) ?? workPeriod(periods);

  const choose = useCallback<Scope["choose"]>(
    (change) => {
      const next = new URLSearchParams(search);
      if (change.registration !== undefined) {
        next.set("r", String(change.registration));
        // The same period of the other one, where it has one that ends with it; otherwise the one it works on.
        if (wanted) next.set("period", wanted);
      }
      if (change.period !== undefined) next.set("period", change.period);
      void navigate(
        { pathname: pathname.replace(/(\/return)\/\d{4}-\d\d-\d\d$/, "$1"), search: next.toString() },
        { replace: true },
      );
    },
    [navigate, pathname, search, wanted],
  );
  useEffect(() => {
    if (period && wanted !== period.to && PINNING.test(pathname)) choose({ period: period.to });
  }, [period, wanted, pathname, choose]);
  const scope = useMemo<Scope>(() => {
    const index = period ? periods.indexOf(period) : -1;
    const kept = (inside: string) => {
      const query = new URLSearchParams();
      const r = params.get("r");
      if (r) query.set("r", r);
      if (period && wanted) query.set("period", period.to);
      return inside.startsWith("return/") ? "" : query.toString();
    };
    return {
      client,
      packs: packs ?? NOT_YET,
      clientError,
      registration,
      periods,
      period,
      ready: client !== undefined && (registration === undefined || !periodsPending),
      minorDigits: client?.digits ?? 2,
      choose,
      stepPeriod: (by) => {
        const next = periods[index + by];
        if (next) choose({ period: next.to });
      },
      path: (inside) => {
        const query = kept(inside);
        return `/c/${clientId}/${inside}${query === "" ? "" : `?${query}`}`;
      },
      draft,
      setDraft,
    };
  }, [
    client,
    packs,
    clientError,
    registration,
    periods,
    periodsPending,
    period,
    params,
    wanted,
    choose,
    clientId,
    draft,
  ]);
  const order = packs?.ofCountry(client?.country ?? "")?.dateOrder ?? "dmy";
  return (
    <DateOrderContext value={order}>
      <ScopeContext value={scope}>{children}</ScopeContext>
    </DateOrderContext>
  );
}

const NONE: PeriodTile[] = [];
const NOT_YET = new Packs([]);

/** Whoever goes to work on a period stays on it, also when what is done there makes another one more pressing. */
const PINNING = /\/(agree|return|settle)$/;

/** The oldest period that has ended and is not filed, if anything is in it; otherwise the running one. */
function workPeriod(periods: readonly PeriodTile[]): PeriodTile | undefined {
  const now = today();
  const todo = periods.find(
    (tile) =>
      tile.to < now && !["filed", "settled"].includes(tile.state) && (tile.output !== 0 || tile.input !== 0),
  );
  return todo ?? periods.find((tile) => tile.from <= now && now <= tile.to) ?? periods.at(-1);
}
