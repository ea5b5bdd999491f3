import { lazy, Suspense } from "react";
import { Link, useNavigate } from "react-router";
import { displayAmount } from "@fiscalon/core/money/amount";
import type { SchemeView } from "@fiscalon/contract/schemeView";
import { useScope } from "../../app/scope.ts";
import { showPeriod } from "../../kit/format.ts";
import { Waiting } from "../../kit/Waiting.tsx";

const BarChart = lazy(() => import("../../kit/BarChart.tsx"));

/** One bar alone compares with nothing. */
const LEAST = 2;
/** Percentages come in hundredths. */
const OF_PERCENT = 2;

/** How what a scheme goes by has run over the year; each bar and each figure leads to its return. */
export function SchemeCourse({ paper: { course, digits } }: { paper: SchemeView }) {
  const { path } = useScope();
  const navigate = useNavigate();
  if (course === null || course.points.length < LEAST) return null;
  const { title, unit, points } = course;
  const decimals = unit === "percent" ? OF_PERCENT : digits;
  const shown = (value: number) => `${displayAmount(value, decimals)}${unit === "percent" ? " %" : ""}`;
  return (
    <div className="mt-4">
      <Suspense fallback={<Waiting what="the chart" />}>
        <BarChart
          title={`${title}, by period`}
          categories={points.map(({ from, to }) => showPeriod(from, to))}
          series={[
            {
              name: unit === "percent" ? `${title.toLowerCase()}, %` : title.toLowerCase(),
              colour: "info",
              values: points.map(({ value }) => value),
            },
          ]}
          digits={decimals}
          onOpen={(index) => {
            const point = points[index];
            if (point) void navigate(path(`return/${point.to}`));
          }}
          table={
            <table className="sheet-table">
              <thead>
                <tr>
                  <th>Period</th>
                  <th className="num">{title}</th>
                </tr>
              </thead>
              <tbody>
                {points.map(({ from, to, value }) => (
                  <tr key={to}>
                    <td>{showPeriod(from, to)}</td>
                    <td className="num">
                      <Link
                        className="figure"
                        to={path(`return/${to}`)}
                        aria-label={`${showPeriod(from, to)} ${shown(value)}, open its return`}
                      >
                        {shown(value)}
                      </Link>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          }
        />
      </Suspense>
    </div>
  );
}
