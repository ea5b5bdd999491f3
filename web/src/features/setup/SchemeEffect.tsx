import { useQuery } from "@tanstack/react-query";
import type { SchemeInForce } from "@fiscalon/core/model/scheme";
import { displayAmount } from "@fiscalon/core/money/amount";
import { api } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { useScope } from "../../app/scope.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { showPeriod } from "../../kit/format.ts";

const EFFECT = "/clients/:id/registrations/:rid/schemes/effect";

/** What schemes would do to the open periods of a registration, asked of the server as it would keep them. */
export function useSchemeEffect(registration: number, schemes: readonly SchemeInForce[]) {
  const { client } = useScope();
  return useQuery({
    queryKey: keys.of(client?.id, "scheme-effect", registration, schemes),
    queryFn: ({ signal }) => api.ask(EFFECT, [client?.id, registration], { schemes }, signal),
    enabled: client !== undefined,
    retry: false,
    placeholderData: (before) => before,
  });
}

/** Open periods now and then, before anything is kept. */
export function SchemeEffect({
  registration,
  schemes,
}: {
  registration: number;
  schemes: readonly SchemeInForce[];
}) {
  const { minorDigits: digits } = useScope();
  const { data, error } = useSchemeEffect(registration, schemes);
  const moved = data?.periods.filter(({ now, then }) => now !== then) ?? [];
  return (
    <div role="status" aria-label="Effect on open periods" className="mt-2 text-[13px]">
      <ErrorNote error={error} />
      {data && !error && moved.length === 0 && (
        <p className="quiet">No open period comes to anything else by this.</p>
      )}
      {moved.length > 0 && !error && (
        <table className="sheet-table">
          <thead>
            <tr>
              <th>Open period</th>
              <th className="num">Owed now</th>
              <th className="num">Owed then</th>
              <th className="num">Difference</th>
            </tr>
          </thead>
          <tbody>
            {moved.map(({ from, to, now, then }) => (
              <tr key={to}>
                <td>{showPeriod(from, to)}</td>
                <td className="num">{displayAmount(now, digits)}</td>
                <td className="num">{displayAmount(then, digits)}</td>
                <td className="num font-semibold">{displayAmount(then - now, digits)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}
