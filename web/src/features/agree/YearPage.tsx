import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { addDays, addMonths } from "@fiscalon/core/calendar/date";
import { api, filled } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { useScope } from "../../app/scope.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { FileLinks } from "../../kit/FileLinks.tsx";
import { EmptyState, Sheet } from "../../kit/Sheet.tsx";
import { Waiting } from "../../kit/Waiting.tsx";
import { AgreeLinks } from "./AgreeLinks.tsx";
import { SpanFields } from "./SpanFields.tsx";
import { YearTable } from "./YearTable.tsx";

const YEAR = "/clients/:id/registrations/:rid/year";

/** The returns of a year against its ledger, box by box, with every cause between the two. */
export function YearPage() {
  const { client, registration, period, periods } = useScope();
  const [chosen, setChosen] = useState<{ from: string; to: string } | null>(null);
  const past = periods.filter(({ state }) => state !== "ahead");
  const span = chosen ?? (period ? { from: yearBefore(past, period.to), to: period.to } : null);
  const { data: view, error } = useQuery({
    queryKey: keys.of(client?.id, "bridge", "year", registration?.id, span),
    queryFn: ({ signal }) => api.get(YEAR, [client?.id, registration?.id], { ...span }, signal),
    enabled: registration !== undefined && span !== null,
  });
  if (!registration || !span)
    return (
      <Sheet title="Year" actions={<AgreeLinks />}>
        <EmptyState title="Nothing to add up yet">
          A year of returns is laid beside its ledger once there is a registration.
        </EmptyState>
      </Sheet>
    );
  const file = `/api${filled(YEAR, [client?.id, registration.id])}/file`;
  return (
    <Sheet
      title={`Year, ${displayDate(span.from)} to ${displayDate(span.to)}`}
      lead="A year adds its returns as they are filed. What its ledger says of each box, and why that is another figure."
      actions={<AgreeLinks />}
    >
      <div className="no-print mb-3 flex flex-wrap items-end gap-4">
        <SpanFields periods={past} span={span} onChange={setChosen} />
        <span className="ml-auto flex gap-4">
          <FileLinks href={file} query={{ ...span }} />
        </span>
      </div>
      <ErrorNote error={error} />
      {!view && !error && <Waiting what="the year" />}
      {view && <YearTable view={view} rid={registration.id} />}
    </Sheet>
  );
}

/** The first day of the period that begins a year ending on a day, or of the first there is. */
function yearBefore(periods: readonly { from: string; to: string }[], end: string): string {
  const begin = addMonths(addDays(end, 1), -12);
  const inside = periods.filter(({ from, to }) => from >= begin && to <= end);
  return (inside[0] ?? periods.at(-1))?.from ?? begin;
}
