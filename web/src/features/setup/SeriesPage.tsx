import { keys } from "../../api/keys.ts";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { NUMBERED_KINDS } from "@fiscalon/contract/series";
import type { SeriesView } from "@fiscalon/contract/series";
import { useScope } from "../../app/scope.ts";
import { api } from "../../api/client.ts";
import { Field } from "../../kit/Field.tsx";
import { FormDialog } from "../../kit/FormDialog.tsx";
import { Sheet } from "../../kit/Sheet.tsx";

/** The numbers of our own documents: how they look, what comes next, and what is missing. */
export function SeriesPage() {
  const { client } = useScope();
  const [changing, setChanging] = useState<SeriesView | null>(null);
  const { data: series = [] } = useQuery({
    queryKey: keys.of(client?.id, "series"),
    queryFn: () => api.get<SeriesView[]>(`/clients/${client?.id}/series`),
    enabled: client !== undefined,
  });
  return (
    <Sheet
      title="Numbers"
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
  const queries = useQueryClient();
  const [prefix, setPrefix] = useState(series.prefix);
  const [digits, setDigits] = useState(String(series.digits));
  const save = useMutation({
    mutationFn: () =>
      api.put<SeriesView[]>(`/clients/${client?.id}/series/${series.kind}`, {
        prefix,
        digits: Number(digits),
      }),
    onSuccess: (now) => {
      queries.setQueryData(keys.of(client?.id, "series"), now);
      onClose();
    },
  });
  return (
    <FormDialog
      title={NUMBERED_KINDS[series.kind].name}
      action="Keep"
      className="grid grid-cols-2 gap-4"
      error={save.error}
      onClose={onClose}
      onSubmit={() => save.mutate()}
    >
      <Field
        label="Begins with"
        value={prefix}
        maxLength={16}
        hint="A year in it starts the counting anew."
        onChange={(event) => setPrefix(event.target.value)}
      />
      <Field
        label="Digits"
        type="number"
        min={1}
        max={10}
        value={digits}
        onChange={(event) => setDigits(event.target.value)}
      />
    </FormDialog>
  );
}
