import { useState } from "react";
import type { RateRow } from "@fiscalon/core/model/taxCode";
import type { BuilderPart } from "./builderPart.ts";

/** The rates by date, a percentage or an amount in major units each. */
export function RatesSection({ draft, set, error }: BuilderPart) {
  const [name, setName] = useState("");
  const change = (id: string, rows: readonly RateRow[]) =>
    set({ schedules: { ...draft.schedules, [id]: [...rows] } });
  const without = (id: string) => {
    const { [id]: _, ...rest } = draft.schedules;
    return rest;
  };
  return (
    <section aria-label="Rates">
      <h2 className="mb-1">Rates by date</h2>
      <table className="sheet-table max-w-4xl">
        <thead>
          <tr>
            <th>Schedule</th>
            <th>From</th>
            <th>To, the last day</th>
            <th>Rate</th>
            <th>Source</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {Object.entries(draft.schedules).flatMap(([id, rows]) =>
            rows.map((row, index) => {
              const setRow = (next: Partial<RateRow>) =>
                change(
                  id,
                  rows.map((one, at) => (at === index ? { ...one, ...next } : one)),
                );
              const wrong = error(`schedules.${id}[${index}]`) ?? error(`schedules.${id}`);
              return (
                <tr key={`${id}/${index}`}>
                  <td className="font-mono">
                    {index === 0 ? id : ""}
                    {wrong && <span className="block font-sans text-error">{wrong}</span>}
                  </td>
                  <Cell label={`${id} from`} value={row.from} onChange={(from) => setRow({ from })} />
                  <Cell
                    label={`${id} to`}
                    value={row.to ?? ""}
                    onChange={(to) => setRow({ to: to || null })}
                  />
                  <Cell label={`${id} rate`} value={row.rate} onChange={(rate) => setRow({ rate })} />
                  <Cell label={`${id} source`} value={row.source} onChange={(source) => setRow({ source })} />
                  <td className="text-right whitespace-nowrap">
                    <button
                      type="button"
                      className="word-link"
                      onClick={() => change(id, [...rows, { from: "", to: null, rate: "", source: "" }])}
                    >
                      Later rate
                    </button>
                    <button
                      type="button"
                      className="word-link ml-3"
                      onClick={() =>
                        rows.length > 1
                          ? change(
                              id,
                              rows.filter((_, at) => at !== index),
                            )
                          : set({ schedules: without(id) })
                      }
                    >
                      Take out
                    </button>
                  </td>
                </tr>
              );
            }),
          )}
        </tbody>
      </table>
      <div className="mt-2 flex items-center gap-3">
        <input
          className="entry max-w-[180px] font-mono"
          aria-label="Name of a further schedule"
          placeholder="own.BOTTLE"
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        <button
          type="button"
          className="action"
          disabled={name.trim() === "" || name.trim() in draft.schedules}
          onClick={() => {
            change(name.trim(), [{ from: "2000-01-01", to: null, rate: "", source: "" }]);
            setName("");
          }}
        >
          Add schedule
        </button>
      </div>
    </section>
  );
}

function Cell({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string;
  onChange: (value: string) => void;
}) {
  return (
    <td>
      <input
        className="entry"
        aria-label={label}
        placeholder={/from|to$/.test(label) ? "2026-01-01" : ""}
        value={value}
        onChange={(event) => onChange(event.target.value)}
      />
    </td>
  );
}
