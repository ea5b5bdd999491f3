import { Fragment } from "react";
import type { SummaryRow } from "@fiscalon/contract/reports";
import { displayAmount } from "@fiscalon/core/money/amount";
import { usePacks } from "../../api/packs.ts";
import { useScope } from "../../app/scope.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { EmptyState } from "../../kit/Sheet.tsx";
import { useTaxSummary } from "./useTaxSummary.ts";
import type { Filter } from "./useTaxSummary.ts";

/** Levies, sales and purchases apart, with their codes and rates added up; each sum opens its lines. */
export function SummaryReport({
  clientId,
  filter,
  onOpen,
}: {
  clientId: number;
  filter: Filter;
  onOpen: (row: SummaryRow) => void;
}) {
  const { minorDigits } = useScope();
  const packs = usePacks();
  const { data: rows, error } = useTaxSummary(clientId, filter);
  if (error) return <ErrorNote error={error} />;
  if (rows?.length === 0) {
    return <EmptyState title="Nothing was counted in these days">Choose other days or filters.</EmptyState>;
  }
  const groupOf = ({ levy, direction }: SummaryRow) => `${packs.levyName(levy)}, ${direction}s`;
  const groups = [...new Set(rows?.map(groupOf))];
  return (
    <table className="sheet-table">
      <thead>
        <tr>
          <th>Code</th>
          <th className="num">Rate</th>
          <th className="num">Lines</th>
          <th className="num">Net</th>
          <th className="num">Tax</th>
          <th className="num">Deducted</th>
        </tr>
      </thead>
      <tbody>
        {groups.map((group) => {
          const ofGroup = rows?.filter((row) => groupOf(row) === group) ?? [];
          const sum = (key: "net" | "tax" | "recoverable" | "lines") =>
            ofGroup.reduce((total, row) => total + row[key], 0);
          return (
            <Fragment key={group}>
              <tr>
                <td colSpan={6} className="!pt-4 font-semibold">
                  {group}
                </td>
              </tr>
              {ofGroup.map((row) => (
                <tr key={`${row.code} ${row.rate} ${row.direction}`}>
                  <td>
                    <span className="code-chip mr-2">{row.code}</span>
                    {row.name}
                  </td>
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
                          aria-label={`${row.code} ${row.direction} ${displayAmount(amount, minorDigits)}, open its lines`}
                          onClick={() => onOpen(row)}
                        >
                          {displayAmount(amount, minorDigits)}
                        </button>
                      )}
                    </td>
                  ))}
                </tr>
              ))}
              <tr className="total">
                <td colSpan={2}>Total {group}</td>
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
