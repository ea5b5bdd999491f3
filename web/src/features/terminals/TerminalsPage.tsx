import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { keys } from "../../api/keys.ts";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { Link } from "react-router";
import type { TerminalDay, TerminalDayPage } from "@fiscalon/contract/terminals";
import { useScope } from "../../app/scope.ts";
import { api } from "../../api/client.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { plural } from "../../kit/format.ts";
import { DataTable } from "../../kit/DataTable.tsx";
import { EmptyState, Sheet } from "../../kit/Sheet.tsx";
import { BooksNav } from "../../app/BooksNav.tsx";
import { dayColumns } from "./dayColumns.tsx";
import { ConnectTerminalDialog } from "./ConnectTerminalDialog.tsx";
import { MappingDialog } from "./MappingDialog.tsx";
import { TerminalKeyDialog } from "./TerminalKeyDialog.tsx";

/** Card terminals: their trading days as one summary and one fee bill each. */
export function TerminalsPage() {
  const { client, path, minorDigits: digits } = useScope();
  const queries = useQueryClient();
  const [chosen, setChosen] = useState(0);
  const [dialog, setDialog] = useState<"connect" | "mapping" | "key" | null>(null);
  const columns = useMemo(
    () => dayColumns(digits, (document) => path(`books/documents/${document}`)),
    [digits, path],
  );
  const { data: terminals } = useQuery({
    queryKey: keys.of(client?.id, "terminals"),
    queryFn: ({ signal }) => api.get("/clients/:id/terminals", [client?.id], {}, signal),
    enabled: client !== undefined,
  });
  const terminal = terminals?.find(({ id }) => id === chosen) ?? terminals?.[0];
  const fetchNew = useMutation({
    mutationFn: () => api.post("/clients/:id/terminals/:terminal/fetch", [client?.id, terminal?.id]),
    onSuccess: () => queries.invalidateQueries({ queryKey: keys.client(client?.id) }),
  });
  const report = fetchNew.data;
  const connect = dialog === "connect" && (
    <ConnectTerminalDialog
      onClose={() => setDialog(null)}
      onDone={(id) => {
        setChosen(id);
        setDialog(null);
      }}
    />
  );
  if (terminals?.length === 0) {
    return (
      <Sheet title="Terminals" actions={<BooksNav />}>
        <EmptyState
          title="No card terminal is connected"
          action={
            <button type="button" className="action main" onClick={() => setDialog("connect")}>
              Connect a terminal
            </button>
          }
        >
          Each trading day becomes one summary of sales and one bill of fees; payouts move from transit to the
          bank.
        </EmptyState>
        {connect}
      </Sheet>
    );
  }
  if (!terminal)
    return (
      <Sheet title="Terminals" actions={<BooksNav />}>
        {null}
      </Sheet>
    );
  return (
    <Sheet title="Terminals" actions={<BooksNav />}>
      <ErrorNote error={fetchNew.error} />
      <div className="mb-3 flex flex-wrap items-center gap-x-5 gap-y-2">
        {(terminals?.length ?? 0) > 1 ? (
          <select
            className="entry !w-[180px]"
            aria-label="Terminal"
            value={terminal.id}
            onChange={(event) => setChosen(Number(event.target.value))}
          >
            {terminals?.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        ) : (
          <strong>{terminal.name}</strong>
        )}
        <span className="quiet">
          merchant {terminal.merchant} · day ends {terminal.cutOff} {terminal.zone} · since{" "}
          {displayDate(terminal.start)}
        </span>
        <span className="ml-auto flex gap-2">
          <button
            type="button"
            className="action main"
            disabled={fetchNew.isPending || !terminal.authorised}
            onClick={() => fetchNew.mutate()}
          >
            {fetchNew.isPending ? "Asking the operator …" : "Fetch and post"}
          </button>
          <button type="button" className="action" onClick={() => setDialog("mapping")}>
            Codes and accounts
          </button>
          <button type="button" className="action" onClick={() => setDialog("connect")}>
            Connect another
          </button>
        </span>
      </div>
      {!terminal.authorised && (
        <p className="note-row mb-3 flex items-center gap-4">
          <span>
            This terminal came with a book file, without its key. Give the key once more and fetching goes on
            where it stopped.
          </span>
          <button type="button" className="action ml-auto" onClick={() => setDialog("key")}>
            Give the key
          </button>
        </p>
      )}
      {terminal.unmapped.length > 0 && (
        <p className="note-row mb-3 flex items-center gap-4">
          <span>
            The terminal calls {terminal.unmapped.length === 1 ? "a tax" : "taxes"}{" "}
            <strong>{terminal.unmapped.join(", ")}</strong>. Say which code that is, then fetch again:{" "}
            {plural(terminal.waiting, "day waits", "days wait")}.
          </span>
          <button type="button" className="action ml-auto" onClick={() => setDialog("mapping")}>
            Choose codes
          </button>
        </p>
      )}
      {report && terminal.unmapped.length === 0 && (
        <p role="status" className="note-row mb-3">
          {plural(report.fresh, "new transaction")}; posted {plural(report.days, "trading day")},{" "}
          {plural(report.bills, "fee bill")} and {plural(report.payouts, "payout")}.{" "}
          <Link className="word-link" to={path("books/bank")}>
            Match the payouts
          </Link>
        </p>
      )}
      <DataTable<TerminalDay, TerminalDayPage>
        name="trading-days"
        label="Trading days"
        columns={columns}
        rowId={({ day }) => day}
        queryKey={keys.of(client?.id, "terminals", terminal.id, "days")}
        enabled={client !== undefined}
        fetchPage={({ offset, limit }) =>
          api.get("/clients/:id/terminals/:terminal/days", [client?.id, terminal.id], { offset, limit })
        }
        empty="Nothing was fetched yet."
      />
      {connect}
      {dialog === "key" && <TerminalKeyDialog terminal={terminal} onClose={() => setDialog(null)} />}
      {dialog === "mapping" && <MappingDialog terminal={terminal} onClose={() => setDialog(null)} />}
    </Sheet>
  );
}
