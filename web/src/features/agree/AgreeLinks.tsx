import { useQuery } from "@tanstack/react-query";
import type { AgreementSummary } from "@fiscalon/contract/agreements";
import { displayAmount } from "@fiscalon/core/money/amount";
import { api } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { ScreenLinks } from "../../app/ScreenLinks.tsx";
import { useScope } from "../../app/scope.ts";

const AGREEMENTS = "/clients/:id/registrations/:rid/agreements/:period";

/** The agreements of the period, each with how far it is; on every sheet of the station. */
export function AgreeLinks() {
  const { client, registration, period, minorDigits } = useScope();
  const { data } = useQuery({
    queryKey: keys.of(client?.id, "control", "all", registration?.id, period?.to),
    queryFn: () => api.get(AGREEMENTS, [client?.id, registration?.id, period?.to]),
    enabled: registration !== undefined && period !== undefined,
  });
  const notes = Object.fromEntries((data ?? []).map((one) => [one.screen, noteOf(one, minorDigits)]));
  return (
    <ScreenLinks
      label="Agree"
      group="agree"
      notes={notes}
      className="flex flex-wrap justify-end gap-x-5 font-semibold"
    />
  );
}

function noteOf({ left, waiting, state }: AgreementSummary, digits: number) {
  if (left !== 0) return <span className="text-warning">▲ {displayAmount(left, digits)} left</span>;
  if (state === "changed") return <span className="text-warning">▲ changed since</span>;
  if (waiting > 0) return <span className="quiet">{waiting} waiting</span>;
  return <span className="text-success">✓ {state === "agreed" ? "agreed" : displayAmount(0, digits)}</span>;
}
