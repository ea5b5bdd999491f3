import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import type { UnlistedLine } from "@fiscalon/contract/stockBook";
import { displayAmount } from "@fiscalon/core/money/amount";
import { api } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { useScope } from "../../app/scope.ts";
import { DateField } from "../../kit/DateField.tsx";
import { FormDialog } from "../../kit/FormDialog.tsx";
import { plural } from "../../kit/format.ts";

/** Purchases that are in no piece yet. */
export function TakeInDialog({ onClose }: { onClose: () => void }) {
  const { client, minorDigits: digits } = useScope();
  const queries = useQueryClient();
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const { data: lines = [] } = useQuery({
    queryKey: keys.of(client?.id, "pieces", "unlisted"),
    queryFn: ({ signal }) => api.get("/clients/:id/pieces/unlisted", [client?.id], {}, signal),
  });
  const key = ({ document, line }: UnlistedLine) => `${document}/${line}`;
  const chosen = lines.filter((line) => !left.has(key(line)));
  const take = useMutation({
    mutationFn: () =>
      api.post("/clients/:id/pieces/take-in", [client?.id], {
        lines: chosen.map(({ document, line }) => ({ document, line })),
      }),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: keys.client(client?.id) });
      onClose();
    },
  });
  return (
    <FormDialog
      title="Take purchases into the stock book"
      action={`Take in ${chosen.length}`}
      pending={take.isPending || chosen.length === 0}
      error={take.error}
      wide
      onClose={onClose}
      onSubmit={() => take.mutate()}
    >
      <p className="quiet mb-2">
        Each line becomes a piece with the day, the price and the seller of its bill. Marks and addresses are
        filled in piece by piece.
      </p>
      <div className="max-h-[46vh] overflow-auto">
        <table className="sheet-table">
          <tbody>
            {lines.map((line) => (
              <tr key={key(line)}>
                <td className="w-[28px]">
                  <input
                    type="checkbox"
                    className="checkbox checkbox-xs"
                    aria-label={`Take in ${line.number}, ${line.text}`}
                    checked={!left.has(key(line))}
                    onChange={() => {
                      const next = new Set(left);
                      if (!next.delete(key(line))) next.add(key(line));
                      setLeft(next);
                    }}
                  />
                </td>
                <td>{displayDate(line.date)}</td>
                <td className="font-mono text-[12.5px]">{line.number}</td>
                <td>{line.party}</td>
                <td>{line.text}</td>
                <td className="num">{displayAmount(line.net, digits)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </FormDialog>
  );
}

/** Pieces from a CSV file, all or nothing. */
export function ImportDialog({ file, onClose }: { file: File; onClose: () => void }) {
  const { client } = useScope();
  const queries = useQueryClient();
  const [on, setOn] = useState("");
  const read = useMutation({
    mutationFn: () => {
      const form = new FormData();
      form.append("file", file);
      return api.post("/clients/:id/pieces/import", [client?.id], form, on === "" ? {} : { on });
    },
    onSuccess: () => queries.invalidateQueries({ queryKey: keys.client(client?.id) }),
  });
  return (
    <FormDialog
      title={`Pieces from ${file.name}`}
      action={read.data ? "Done" : "Import"}
      pending={read.isPending}
      error={read.error}
      onClose={onClose}
      onSubmit={() => (read.data ? onClose() : read.mutate())}
    >
      {read.data ? (
        <p role="status">{plural(read.data.taken, "piece")} taken in.</p>
      ) : (
        <>
          <p className="quiet mb-3">
            Columns: name, identifier, kind, boughtOn, price, purchaseNumber, seller, sellerAddress,
            offReason, note. One row that does not fit stops all of it.
          </p>
          <DateField
            label="Book their cost as opening balance of"
            value={on}
            optional
            onChange={setOn}
            className="w-[180px]"
          />
        </>
      )}
    </FormDialog>
  );
}
