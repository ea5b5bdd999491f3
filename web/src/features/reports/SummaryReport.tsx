import { useQuery } from "@tanstack/react-query";
import { Fragment } from "react";
import type { SummaryRow } from "@fiscalon/contract/reports";
import { displayAmount } from "@fiscalon/core/money/amount";
import { useScope } from "../../app/scope.ts";
import { api, withQuery } from "../../kit/api.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { EmptyState } from "../../kit/Sheet.tsx";

export type Filter = Record<string, string | number | undefined>;

/** Levies with their codes and rates added up; each sum opens its lines. */
export function SummaryReport({
  clientId,
  filter,
  onOpen,
}: {
  clientId: number;
  filter: Filter;
  onOpen: (code: string) => void;
}) {
  const { minorDigits } = useScope();
  const { data: rows, error } = useQuery({
    queryKey: ["client", clientId, "tax-summary", filter],
    queryFn: () => api.get<SummaryRow[]>(withQuery(`/clients/${clientId}/reports/tax/summary`, filter)),
    placeholderData: (previous) => previous,
  });
  if (error) return <ErrorNote error={error} />;
  if (rows?.length === 0) {
    return <EmptyState title="Nothing was counted in these days">Choose other days or filters.</EmptyState>;
  }
  const levies = [...new Set(rows?.map(({ levy }) => levy))];
  return (
    <table className="sheet-table">
      <thead>
        <tr>
          <th>Code</th>
          <th>Side</th>
          <th className="num">Rate</th>
          <th className="num">Lines</th>
          <th className="num">Net</th>
          <th className="num">Tax</th>
          <th className="num">Deducted</th>
        </tr>
      </thead>
      <tbody>
        {levies.map((levy) => {
          const own = rows?.filter((row) => row.levy === levy) ?? [];
          const sum = (key: "net" | "tax" | "recoverable" | "lines") =>
            own.reduce((total, row) => total + row[key], 0);
          return (
            <Fragment key={levy}>
              <tr>
                <td colSpan={7} className="!pt-4 font-semibold">
                  {levy}
                </td>
              </tr>
              {own.map((row) => (
                <tr key={`${row.code} ${row.rate} ${row.direction}`}>
                  <td>
                    <span className="code-chip mr-2">{row.code}</span>
                    {row.name}
                  </td>
                  <td>{row.direction}</td>
                  <td className="num">{row.rate === null ? "–" : `${row.rate} %`}</td>
                  <td className="num quiet">{row.lines.toLocaleString("en-GB")}</td>
                  {[row.net, row.tax, row.recoverable].map((amount, index) => (
                    <td key={index} className="num">
                      {amount === 0 ? (
                        "–"
                      ) : (
                        <button
                          type="button"
                          className="figure cursor-pointer"
                          aria-label={`${row.code} ${row.direction}, open its lines`}
                          onClick={() => onOpen(row.code)}
                        >
                          {displayAmount(amount, minorDigits)}
                        </button>
                      )}
                    </td>
                  ))}
                </tr>
              ))}
              <tr className="total">
                <td colSpan={3}>Total {levy}</td>
                <td className="num">{sum("lines").toLocaleString("en-GB")}</td>
                <td className="num">{displayAmount(sum("net"), minorDigits)}</td>
                <td className="num">{displayAmount(sum("tax"), minorDigits)}</td>
                <td className="num">{displayAmount(sum("recoverable"), minorDigits)}</td>
              </tr>
            </Fragment>
          );
        })}
      </tbody>
    </table>
  );
}
