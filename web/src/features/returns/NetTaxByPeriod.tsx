import { lazy, Suspense } from "react";
import { Link, useNavigate } from "react-router";
import type { PeriodTile } from "@fiscalon/contract/returns";
import { useScope } from "../../app/scope.ts";
import { displayAmount } from "@fiscalon/core/money/amount";
import { showPeriod } from "../../kit/format.ts";
import { Waiting } from "../../kit/Waiting.tsx";

const BarChart = lazy(() => import("../../kit/BarChart.tsx"));

/** As many periods as can be compared at a glance. */
const MOST = 8;
/** One bar alone compares with nothing. */
const LEAST = 2;

/** Output and input tax of the periods up to this one, and what came of them. */
export function NetTaxByPeriod({ end }: { end: string }) {
  const { periods, minorDigits, path } = useScope();
  const navigate = useNavigate();
  const tiles = periods.filter(({ to, state }) => to <= end && state !== "ahead").slice(-MOST);
  if (tiles.length < LEAST) return null;
  const names = tiles.map(({ from, to }) => showPeriod(from, to));
  const open = (index: number) => {
    const tile = tiles[index];
    if (tile) void navigate(path(`return/${tile.to}`));
  };
  return (
    <div className="mt-6">
      <Suspense fallback={<Waiting what="the chart" />}>
        <BarChart
          title="Net tax by period"
          categories={names}
          series={[
            { name: "output", colour: "info", values: tiles.map(({ output }) => output) },
            { name: "input", colour: "warning", values: tiles.map(({ input }) => input) },
            { name: "net", colour: "primary", line: true, values: tiles.map(({ net }) => net) },
          ]}
          digits={minorDigits}
          onOpen={open}
          table={<PeriodTable tiles={tiles} digits={minorDigits} path={path} />}
        />
      </Suspense>
    </div>
  );
}

/** The figures of the chart; each leads to the return that it is of. */
function PeriodTable({
  tiles,
  digits,
  path,
}: {
  tiles: readonly PeriodTile[];
  digits: number;
  path: (inside: string) => string;
}) {
  return (
    <table className="sheet-table">
      <thead>
        <tr>
          <th>Period</th>
          <th>State</th>
          <th className="num">Output</th>
          <th className="num">Input</th>
          <th className="num">Net</th>
        </tr>
      </thead>
      <tbody>
        {tiles.map(({ from, to, state, output, input, net }) => (
          <tr key={to}>
            <td>{showPeriod(from, to)}</td>
            <td className="quiet">{state}</td>
            {[output, input, net].map((amount, index) => (
              <td key={index} className="num">
                <Link
                  className="figure"
                  to={path(`return/${to}`)}
                  aria-label={`${showPeriod(from, to)} ${displayAmount(amount, digits)}, open its return`}
                >
                  {displayAmount(amount, digits)}
                </Link>
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
