import {
  BarController,
  BarElement,
  CategoryScale,
  Chart,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
} from "chart.js";
import type { ChartData, ChartOptions } from "chart.js";
import { useState } from "react";
import type { ReactNode } from "react";
import { Chart as Canvas } from "react-chartjs-2";
import { displayAmount } from "@fiscalon/core/money/amount";
import { useThemeColours } from "./useThemeColours.ts";

Chart.register(
  BarController,
  BarElement,
  CategoryScale,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
);

/** A row of figures, one for each category; drawn as bars, or as a line across them. */
export interface Series {
  name: string;
  /** A colour of the theme. */
  colour: string;
  line?: boolean;
  values: readonly number[];
}

/**
 * Figures over time where looking beats reading. The table behind them is one key away: T, or the button; in it every
 * figure can be opened.
 */
export default function BarChart({
  title,
  categories,
  series,
  digits,
  table,
  onOpen,
}: {
  title: string;
  categories: readonly string[];
  series: readonly Series[];
  digits: number;
  /** The same figures to read. */
  table: ReactNode;
  onOpen: (index: number) => void;
}) {
  const [asTable, setAsTable] = useState(false);
  const colour = useThemeColours();
  const data: ChartData<"bar" | "line", number[], string> = {
    labels: [...categories],
    datasets: series.map(({ name, colour: tone, line, values }) => ({
      type: line ? ("line" as const) : ("bar" as const),
      label: name,
      data: [...values],
      backgroundColor: colour(tone),
      borderColor: colour(tone),
      borderWidth: line ? 2 : 0,
      pointRadius: line ? 3 : 0,
      maxBarThickness: 26,
      categoryPercentage: 0.45,
      order: line ? 0 : 1,
    })),
  };
  const axis = {
    ticks: { color: colour("secondary"), font: { family: FONT, size: 12 } },
    grid: { color: colour("base-300"), lineWidth: 0.5 },
    border: { display: false },
  };
  const options: ChartOptions<"bar" | "line"> = {
    responsive: true,
    maintainAspectRatio: false,
    animation: false,
    interaction: { mode: "index", intersect: false },
    onClick: (_, [hit]) => hit && onOpen(hit.index),
    scales: {
      x: { ...axis, grid: { display: false } },
      y: {
        ...axis,
        ticks: {
          ...axis.ticks,
          callback: (value) => displayAmount(Math.round(Number(value) / 10 ** digits), 0),
        },
      },
    },
    plugins: {
      tooltip: {
        titleFont: { family: FONT },
        bodyFont: { family: FONT },
        callbacks: {
          label: ({ dataset, raw }) => `${dataset.label ?? ""} ${displayAmount(Number(raw), digits)}`,
        },
      },
    },
  };
  return (
    <section
      aria-label={title}
      onKeyDown={({ key, target }) => {
        if (key.toLowerCase() === "t" && !(target instanceof HTMLInputElement)) setAsTable((now) => !now);
      }}
    >
      <header className="mb-1 flex items-baseline gap-4">
        <h2>{title}</h2>
        {!asTable &&
          series.map(({ name, colour: tone, line }) => (
            <span key={name} className="quiet flex items-center gap-1.5 text-[12.5px]">
              <span
                aria-hidden
                className={line ? "h-0.5 w-4" : "size-2.5 rounded-[1px]"}
                style={{ background: `var(--color-${tone})` }}
              />
              {name}
            </span>
          ))}
        <button
          type="button"
          className="word-link ml-auto"
          aria-keyshortcuts="t"
          onClick={() => setAsTable(!asTable)}
        >
          {asTable ? "as a chart" : "as a table"}
        </button>
      </header>
      {asTable ? (
        table
      ) : (
        <div className="h-[190px]">
          <Canvas
            type="bar"
            data={data}
            options={options}
            aria-label={`${title}, drawn; the table has the figures`}
          />
        </div>
      )}
    </section>
  );
}

const FONT = "Atkinson Hyperlegible Next Variable";
