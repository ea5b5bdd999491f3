import { useQuery } from "@tanstack/react-query";
import { addDays, addMonths } from "@fiscalon/core/calendar/date";
import { api } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { useScope } from "../../app/scope.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { Figure } from "../../kit/Figure.tsx";
import { showDate } from "../../kit/format.ts";

/** What operators and customers deducted from what they paid us in a fiscal year, until it is in the authority's ledger. */
export function Deducted({ year }: { year: string }) {
  const { client, minorDigits: digits } = useScope();
  const span = { from: addMonths(addDays(year, 1), -12), to: year };
  const { data, error } = useQuery({
    queryKey: keys.of(client?.id, "collection", "deducted", span),
    queryFn: () => api.get("/clients/:id/collection/deducted", [client?.id], span),
    enabled: client !== undefined,
  });
  if (!data) return <ErrorNote error={error} />;
  if (data.account === null) {
    return (
      <p className="quiet">
        No account has the role “tax deducted from us”. Give it to one in Set up, Accounts; a receipt that
        came in short books what was deducted there as its difference.
      </p>
    );
  }
  return (
    <>
      <table className="sheet-table max-w-3xl">
        <thead>
          <tr>
            <th>Date</th>
            <th>Entry</th>
            <th>By</th>
            <th>What for</th>
            <th className="num">Deducted</th>
          </tr>
        </thead>
        <tbody>
          {data.rows.map((row, index) => (
            <tr key={`${row.ref}/${index}`}>
              <td>{showDate(row.date)}</td>
              <td className="font-mono">{row.number}</td>
              <td>{row.party}</td>
              <td>{row.text}</td>
              <td className="num">
                <Figure amount={row.amount} digits={digits} of={row.ref} label={`Deducted, ${row.number},`} />
              </td>
            </tr>
          ))}
          {data.rows.length === 0 && (
            <tr>
              <td colSpan={5} className="quiet">
                Nothing in this year. A receipt that came in short books what was deducted as its difference,
                to account {data.account}.
              </td>
            </tr>
          )}
        </tbody>
      </table>
      <p className="mt-3">
        Not yet in the authority&rsquo;s ledger:{" "}
        <Figure
          amount={data.balance}
          digits={digits}
          of={`account/${data.account}`}
          label="Deducted and open"
        />
      </p>
    </>
  );
}
