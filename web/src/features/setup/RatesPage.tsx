import { keys } from "../../api/keys.ts";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { rowInForce } from "@fiscalon/core/tax/rateInForce";
import type { RateRow } from "@fiscalon/core/model/taxCode";
import { displayAmount } from "@fiscalon/core/money/amount";
import { usePacks } from "../../api/packs.tsx";
import { useScope } from "../../app/scope.ts";
import { api } from "../../api/client.ts";
import { DateField } from "../../kit/DateField.tsx";
import { Field } from "../../kit/Field.tsx";
import { plural, showDate, today } from "../../kit/format.ts";
import { FormDialog } from "../../kit/FormDialog.tsx";
import { Sheet } from "../../kit/Sheet.tsx";
import { useSetup } from "../../app/useSetup.ts";
import { Waiting } from "../../kit/Waiting.tsx";

interface Touched {
  count: number;
  first: { id: number; number: string; date: string; gross: number }[];
}

/** Rates by date. A document takes the rate of its tax point; a change says which open documents it touches. */
export function RatesPage() {
  const packs = usePacks();
  const setup = useSetup();
  const [editing, setEditing] = useState<{ schedule: string | null } | null>(null);
  const [search, setSearch] = useState("");
  if (!setup) return <Waiting what="the set-up" />;
  const wanted = search.trim().toLowerCase();
  const schedules = Object.entries(setup.plain.schedules).filter(([id]) =>
    `${packs.rateName(id)} ${id}`.toLowerCase().includes(wanted),
  );
  return (
    <Sheet
      title="Rates"
      aside={plural(Object.keys(setup.plain.schedules).length, "schedule")}
      lead="A line takes the rate in force at its tax point, a credit note that of the document it corrects."
      actions={
        <button type="button" className="action main" onClick={() => setEditing({ schedule: null })}>
          New schedule
        </button>
      }
    >
      <input
        className="entry mb-2 max-w-[200px]"
        placeholder="Find a schedule"
        aria-label="Find a schedule"
        value={search}
        onChange={(event) => setSearch(event.target.value)}
      />
      <table className="sheet-table max-w-5xl">
        <thead>
          <tr>
            <th>Schedule</th>
            <th className="num">Today</th>
            <th>By date</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {schedules.map(([id, rows]) => (
            <tr key={id}>
              <td className="min-w-[200px]">{packs.rateName(id)}</td>
              <td className="num font-semibold">{rowInForce(rows, today())?.rate ?? "–"}</td>
              <td className="text-[12.5px]">
                {rows.map((row) => (
                  <span key={row.from} className="mr-3 inline-block whitespace-nowrap" title={row.source}>
                    <span className="font-mono">{row.rate}</span>{" "}
                    <span className="quiet">
                      from {showDate(row.from)}
                      {row.to ? ` to ${showDate(row.to)}` : ""}
                    </span>
                  </span>
                ))}
              </td>
              <td>
                <button type="button" className="word-link" onClick={() => setEditing({ schedule: id })}>
                  Change
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {editing && (
        <ScheduleDialog
          id={editing.schedule}
          rows={editing.schedule === null ? [] : (setup.plain.schedules[editing.schedule] ?? [])}
          digits={setup.plain.digits}
          onClose={() => setEditing(null)}
        />
      )}
    </Sheet>
  );
}

const BLANK_ROW: RateRow = { from: "", to: null, rate: "", source: "" };

function ScheduleDialog({
  id,
  rows,
  digits,
  onClose,
}: {
  id: string | null;
  rows: readonly RateRow[];
  digits: number;
  onClose: () => void;
}) {
  const packs = usePacks();
  const { client } = useScope();
  const queries = useQueryClient();
  const [name, setName] = useState(id ?? "own.");
  const [draft, setDraft] = useState<RateRow[]>(rows.length === 0 ? [BLANK_ROW] : [...rows]);
  const path = `/clients/${client?.id}/schedules/${encodeURIComponent(name)}`;
  const complete = draft.every((row) => row.from !== "" && row.rate !== "");
  const { data: touched } = useQuery({
    queryKey: keys.of(client?.id, "touched", name, draft),
    queryFn: () => api.post<Touched>(`${path}/touched`, { rows: draft }),
    enabled: id !== null && complete && JSON.stringify(draft) !== JSON.stringify(rows),
    retry: false,
  });
  const save = useMutation({
    mutationFn: () => api.put<Touched>(path, { rows: draft }),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: keys.client(client?.id) });
      onClose();
    },
  });
  const set = (index: number, change: Partial<RateRow>) =>
    setDraft(draft.map((row, at) => (at === index ? { ...row, ...change } : row)));
  return (
    <FormDialog
      title={id ? packs.rateName(id) : "New schedule"}
      action="Save"
      wide
      error={save.error}
      onClose={onClose}
      onSubmit={() => save.mutate()}
    >
      {id === null && (
        <Field
          label="Name"
          value={name}
          required
          className="mb-3 max-w-[220px] font-mono"
          onChange={(event) => setName(event.target.value)}
        />
      )}
      <div className="grid grid-cols-[130px_130px_110px_1fr_auto] items-end gap-x-3 gap-y-2">
        {draft.map((row, index) => (
          <div key={index} className="contents">
            <DateField
              label="From"
              value={row.from}
              className="w-full"
              onChange={(from) => set(index, { from })}
            />
            <DateField
              label="to"
              value={row.to ?? ""}
              optional
              className="w-full"
              onChange={(to) => set(index, { to: to || null })}
            />
            <Field
              label="Rate"
              value={row.rate}
              inputMode="decimal"
              className="font-mono"
              onChange={(event) => set(index, { rate: event.target.value })}
            />
            <Field
              label="Source"
              value={row.source}
              onChange={(event) => set(index, { source: event.target.value })}
            />
            <button
              type="button"
              className="word-link pb-2"
              disabled={draft.length === 1}
              onClick={() => setDraft(draft.filter((_, at) => at !== index))}
            >
              Take out
            </button>
          </div>
        ))}
      </div>
      <button type="button" className="word-link mt-3" onClick={() => setDraft([...draft, BLANK_ROW])}>
        Add a row
      </button>
      {touched && (
        <div role="status" className="note-row mt-3">
          {touched.count === 0
            ? "No open document is touched."
            : `${plural(touched.count, "open document")} would be worked out anew; sealed periods stay as declared.`}
          <ul className="mt-1 text-[12.5px]">
            {touched.first.slice(0, 6).map((one) => (
              <li key={one.id}>
                {one.number}, {showDate(one.date)}:{" "}
                <span className="font-mono">{displayAmount(one.gross, digits)}</span>
              </li>
            ))}
          </ul>
        </div>
      )}
    </FormDialog>
  );
}
