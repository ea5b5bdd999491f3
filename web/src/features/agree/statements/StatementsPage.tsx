import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { displayAmount } from "@fiscalon/core/money/amount";
import { api } from "../../../api/client.ts";
import { keys } from "../../../api/keys.ts";
import { useScope } from "../../../app/scope.ts";
import { ErrorNote } from "../../../kit/ErrorNote.tsx";
import { plural } from "../../../kit/format.ts";
import { EmptyState, Sheet } from "../../../kit/Sheet.tsx";
import { Waiting } from "../../../kit/Waiting.tsx";
import { AgreeLinks } from "../AgreeLinks.tsx";
import { DropStatement, STATEMENTS } from "./DropStatement.tsx";

/** Lists in which others tell of our documents, each with how far it agrees. */
export function StatementsPage() {
  const { client, registration, period, path, minorDigits } = useScope();
  const [dropping, setDropping] = useState(false);
  const { data, error } = useQuery({
    queryKey: keys.of(client?.id, "statements", "under", registration?.id),
    queryFn: ({ signal }) => api.get(STATEMENTS, [client?.id, registration?.id], {}, signal),
    enabled: registration !== undefined,
  });
  return (
    <Sheet
      title="What others say"
      lead="Statements of suppliers and customers, and the authority's lists, laid beside our documents."
      actions={<AgreeLinks />}
    >
      <div className="mb-3 flex">
        <button
          type="button"
          className="btn btn-primary"
          disabled={!data || !period}
          onClick={() => setDropping(true)}
        >
          Bring in a statement …
        </button>
      </div>
      <ErrorNote error={error} />
      {!data && !error && registration && <Waiting what="the statements" />}
      {data?.statements.length === 0 && (
        <EmptyState title="No statement yet">
          Bring one in: {data.kinds.map(({ title }) => title).join(", ")}.
        </EmptyState>
      )}
      {data && data.statements.length > 0 && (
        <table className="sheet-table">
          <thead>
            <tr>
              <th>To</th>
              <th>Statement</th>
              <th>Of</th>
              <th>Drawn</th>
              <th className="num">Documents</th>
              <th className="num">Agree</th>
              <th className="num">Tax apart</th>
              <th>State</th>
            </tr>
          </thead>
          <tbody>
            {data.statements.map((one) => (
              <tr key={one.id}>
                <td>{displayDate(one.periodEnd)}</td>
                <td>
                  <Link className="word-link" to={path(`agree/statements/${one.id}`)}>
                    {one.title}
                  </Link>
                  <span className="quiet ml-2">{one.name}</span>
                </td>
                <td>{one.party}</td>
                <td>{one.drawnOn === null ? "" : displayDate(one.drawnOn)}</td>
                <td className="num">{one.rows}</td>
                <td className="num">{one.agreed}</td>
                <td className="num">{displayAmount(one.apart, minorDigits)}</td>
                <td>
                  {!one.matched ? (
                    <span className="quiet">not laid beside the books yet</span>
                  ) : one.undecided === 0 ? (
                    <span className="text-success">✓ all decided</span>
                  ) : (
                    <span className="text-warning">▲ {plural(one.undecided, "line")} open</span>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {dropping && data && <DropStatement kinds={data.kinds} onClose={() => setDropping(false)} />}
    </Sheet>
  );
}
