import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { useState } from "react";
import { rowInForce } from "@fiscalon/core/tax/rateInForce";
import { usePacks } from "../../api/packs.ts";
import { DoubtMark } from "../../kit/DoubtMark.tsx";
import { plural, today } from "../../kit/format.ts";
import { Sheet } from "../../kit/Sheet.tsx";
import { usePlainSetup } from "../../app/records.ts";
import { Waiting } from "../../kit/Waiting.tsx";
import { ScheduleDialog } from "./ScheduleDialog.tsx";
import { Tip } from "../../kit/Tip.tsx";

/** Rates by date. A document takes the rate of its tax point; a change says which open documents it touches. */
export function RatesPage() {
  const packs = usePacks();
  const setup = usePlainSetup();
  const [editing, setEditing] = useState<{ schedule: string | null } | null>(null);
  const [search, setSearch] = useState("");
  if (!setup) return <Waiting what="the set-up" />;
  const wanted = search.trim().toLowerCase();
  const schedules = Object.entries(setup.schedules).filter(([id]) =>
    `${packs.rateName(id)} ${id}`.toLowerCase().includes(wanted),
  );
  return (
    <Sheet
      title="Rates"
      aside={plural(Object.keys(setup.schedules).length, "schedule")}
      lead="A line takes the rate in force at its tax point, a credit note that of the document it corrects. A change here is for this client; what the law says to everyone is corrected under Law."
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
                  <span key={row.from} className="mr-3 inline-block whitespace-nowrap">
                    <Tip words={row.source || "no source"}>
                      <span className="font-mono">{row.rate}</span>{" "}
                      <span className={row.from > today() ? "font-semibold" : "quiet"}>
                        from {displayDate(row.from)}
                        {row.to ? ` to ${displayDate(row.to)}` : ""}
                      </span>
                    </Tip>
                    {row.doubt !== undefined && <DoubtMark says={row.doubt} className="ml-1" />}
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
          rows={editing.schedule === null ? [] : (setup.schedules[editing.schedule] ?? [])}
          digits={setup.digits}
          onClose={() => setEditing(null)}
        />
      )}
    </Sheet>
  );
}
