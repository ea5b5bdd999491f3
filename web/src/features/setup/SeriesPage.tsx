import { keys } from "../../api/keys.ts";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { NUMBERED_KINDS, seriesBody } from "@fiscalon/contract/series";
import type { SeriesView } from "@fiscalon/contract/series";
import { useScope } from "../../app/scope.ts";
import { api } from "../../api/client.ts";
import { seenOf } from "../../api/seen.ts";
import { BodyDialog } from "../../kit/BodyDialog.tsx";
import { TextField } from "../../kit/formFields.tsx";
import { useBodyForm } from "../../kit/useBodyForm.ts";
import { Sheet } from "../../kit/Sheet.tsx";

/** The numbers of our own documents: how they look, what comes next, and what is missing. */
export function SeriesPage() {
  const { client } = useScope();
  const [changing, setChanging] = useState<SeriesView | null>(null);
  const { data: series = [] } = useQuery({
    queryKey: keys.of(client?.id, "series"),
    queryFn: ({ signal }) => api.get("/clients/:id/series", [client?.id], {}, signal),
    enabled: client !== undefined,
  });
  return (
    <Sheet
      title="Number series"
      lead="Each number is given when its document is posted, once and without a gap. What was taken out keeps its number."
    >
      <table className="sheet-table">
        <thead>
          <tr>
            <th>Series</th>
            <th>Next</th>
            <th className="num">Used</th>
            <th>Missing</th>
            <th className="w-[90px]" />
          </tr>
        </thead>
        <tbody>
          {series.map((one) => (
            <tr key={one.kind}>
              <td className="font-semibold">{NUMBERED_KINDS[one.kind].name}</td>
              <td className="font-mono">{one.next}</td>
              <td className="num">{one.used || "–"}</td>
              <td className={one.missingCount > 0 ? "text-warning" : "quiet"}>
                {one.missingCount === 0
                  ? "none"
                  : `${one.missing.slice(0, 6).join(", ")}${one.missingCount > 6 ? ` and ${one.missingCount - 6} more` : ""}`}
              </td>
              <td className="text-right">
                <button type="button" className="word-link" onClick={() => setChanging(one)}>
                  Change
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {changing && <SeriesDialog series={changing} onClose={() => setChanging(null)} />}
    </Sheet>
  );
}

function SeriesDialog({ series, onClose }: { series: SeriesView; onClose: () => void }) {
  const { client } = useScope();
  const dialog = useBodyForm({
    values: { prefix: series.prefix, digits: String(series.digits) },
    schema: seriesBody,
    body: ({ prefix, digits }) => ({ prefix, digits: Number(digits) }),
    seen: seenOf(series),
    send: (body, _typed, seen) => api.put("/clients/:id/series/:kind", [client?.id, series.kind], body, seen),
    refresh: keys.of(client?.id, "series"),
    onSaved: onClose,
  });
  return (
    <BodyDialog
      of={dialog}
      title={NUMBERED_KINDS[series.kind].name}
      action="Keep"
      className="grid grid-cols-2 gap-4"
      onClose={onClose}
    >
      <TextField name="prefix" label="Begins with" hint="A year in it starts the counting anew." />
      <TextField name="digits" label="Digits" type="number" min={1} max={10} />
    </BodyDialog>
  );
}
