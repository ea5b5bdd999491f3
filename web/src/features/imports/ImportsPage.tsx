import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { keys } from "../../api/keys.ts";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import clsx from "clsx";
import { useMemo, useState } from "react";
import { useDropzone } from "react-dropzone";
import { Link, useNavigate } from "react-router";
import { useScope } from "../../app/scope.ts";
import { api } from "../../api/client.ts";
import { DataTable } from "../../kit/DataTable.tsx";
import { FindInput } from "../../kit/FindInput.tsx";
import type { Column } from "../../kit/useGridTable.ts";
import type { ImportPage, ImportRow } from "@fiscalon/contract/imports";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { showMoment } from "../../kit/format.ts";
import { Sheet } from "../../kit/Sheet.tsx";
import { holdsWords, NAMES, QUERY, WHAT } from "./holds.ts";
import type { Holds } from "./holds.ts";
import { BooksNav } from "../../app/BooksNav.tsx";

/** Drop a register, and what was imported before. */
export function ImportsPage() {
  const { client, path } = useScope();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [holds, setHolds] = useState<Holds>("sale");
  const [search, setSearch] = useState("");
  const { data: whole } = useQuery({
    queryKey: keys.of(client?.id, "imports", "whole"),
    queryFn: ({ signal }) => api.get("/clients/:id/imports", [client?.id], { limit: 1 }, signal),
    enabled: client !== undefined,
  });
  const columns = useMemo(() => columnsOf(path), [path]);
  const receive = useMutation({
    mutationFn: (file: File) => {
      const form = new FormData();
      form.append("file", file);
      return api.post("/clients/:id/imports", [client?.id], form, QUERY[holds]);
    },
    onSuccess: async (batch) => {
      await queries.invalidateQueries({ queryKey: keys.of(client?.id, "imports") });
      await navigate(path(`books/import/${batch.id}`));
    },
  });
  const { getRootProps, getInputProps, isDragActive, open } = useDropzone({
    noClick: true,
    noKeyboard: true,
    multiple: false,
    onDropAccepted: ([file]) => file && receive.mutate(file),
  });
  return (
    <Sheet
      title="Import"
      lead="Tables as CSV, TSV or workbook, e-invoices in UBL, audit files (SAF-T). Nothing is posted before you have seen what it would do."
      actions={<BooksNav />}
    >
      <fieldset className="mb-3">
        <legend className="field-label">The file holds</legend>
        <div className="join flex-wrap">
          {(Object.keys(NAMES) as Holds[]).map((one) => (
            <button
              key={one}
              type="button"
              aria-pressed={holds === one}
              className={clsx("action join-item", holds === one && "bg-neutral text-neutral-content")}
              onClick={() => setHolds(one)}
            >
              {NAMES[one]}
            </button>
          ))}
        </div>
      </fieldset>
      <div
        {...getRootProps({ role: "group", tabIndex: -1, "aria-label": "File" })}
        className={clsx(
          "border border-dashed p-8 text-center",
          isDragActive ? "border-primary bg-accent" : "border-secondary",
        )}
      >
        <input {...getInputProps({ "aria-label": "Register file" })} />
        <p className="font-semibold">{receive.isPending ? "Reading …" : `Drop ${WHAT[holds]} here`}</p>
        <p className="quiet mb-3">
          Format, separators, encoding, dates and decimals are recognised; up to 60 MB.
        </p>
        <button type="button" className="action" onClick={open} disabled={receive.isPending}>
          Choose a file
        </button>
      </div>
      <ErrorNote error={receive.error} />
      {whole && whole.total > 0 && (
        <>
          <div className="mt-6 mb-1 flex items-end justify-between gap-4">
            <h2>Imported before</h2>
            <FindInput label="Find imports" placeholder="File" value={search} onChange={setSearch} />
          </div>
          <DataTable<ImportRow, ImportPage>
            name="imports"
            label="Imported before"
            columns={columns}
            rowId={({ id }) => id}
            queryKey={keys.of(client?.id, "imports", "list", search)}
            enabled={client !== undefined}
            fetchPage={(order, signal) =>
              api.get("/clients/:id/imports", [client?.id], { search, ...order }, signal)
            }
            empty="No file is called so."
          />
        </>
      )}
    </Sheet>
  );
}

function columnsOf(path: (inside: string) => string): Column<ImportRow>[] {
  return [
    {
      id: "file",
      head: "File",
      width: 200,
      grow: 1,
      sorts: true,
      always: true,
      cell: ({ id, fileName }) => (
        <Link className="block truncate font-semibold hover:text-primary" to={path(`books/import/${id}`)}>
          {fileName}
        </Link>
      ),
    },
    { id: "holds", head: "Holds", width: 120, cell: holdsWords },
    { id: "received", head: "Received", width: 146, sorts: true, cell: ({ at }) => showMoment(at) },
    { id: "by", head: "By", width: 110, grow: 0.6, cell: ({ by }) => by },
    { id: "state", head: "State", width: 150, sorts: true, cell: ({ state }) => STATE_WORDS[state] },
    {
      id: "dates",
      head: "Dates",
      width: 200,
      sorts: true,
      cell: ({ from, to }) =>
        from && to && <span className="quiet">{`${displayDate(from)} to ${displayDate(to)}`}</span>,
    },
    {
      id: "records",
      head: "Records",
      width: 84,
      amount: true,
      sorts: true,
      cell: ({ state, documents }) => (
        <span className="font-mono">{state === "posted" ? documents : "–"}</span>
      ),
    },
  ];
}

const STATE_WORDS: Readonly<Record<ImportRow["state"], string>> = {
  recognised: "not checked yet",
  checked: "checked, not posted",
  posted: "posted",
  undone: "undone",
};
