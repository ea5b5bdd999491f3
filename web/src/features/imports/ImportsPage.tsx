import { keys } from "../../api/keys.ts";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import clsx from "clsx";
import { useState } from "react";
import { useDropzone } from "react-dropzone";
import { Link, useNavigate } from "react-router";
import { useScope } from "../../app/scope.ts";
import { api } from "../../api/client.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { showDate, showMoment } from "../../kit/format.ts";
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
  const { data: batches } = useQuery({
    queryKey: keys.of(client?.id, "imports"),
    queryFn: () => api.get("/clients/:id/imports", [client?.id]),
    enabled: client !== undefined,
  });
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
      {batches && batches.length > 0 && (
        <>
          <h2 className="mt-6 mb-1">Imported before</h2>
          <table className="sheet-table">
            <thead>
              <tr>
                <th>File</th>
                <th>Holds</th>
                <th>Received</th>
                <th>State</th>
                <th>Dates</th>
                <th className="num">Records</th>
              </tr>
            </thead>
            <tbody>
              {batches.map((batch) => (
                <tr key={batch.id}>
                  <td>
                    <Link className="font-semibold hover:text-primary" to={path(`books/import/${batch.id}`)}>
                      {batch.fileName}
                    </Link>
                  </td>
                  <td>{holdsWords(batch)}</td>
                  <td>
                    {showMoment(batch.at)} <span className="quiet">by {batch.by}</span>
                  </td>
                  <td>
                    {batch.state === "recognised"
                      ? "not checked yet"
                      : batch.state === "checked"
                        ? "checked, not posted"
                        : batch.state}
                  </td>
                  <td className="quiet">
                    {batch.report?.from && batch.report.to
                      ? `${showDate(batch.report.from)} to ${showDate(batch.report.to)}`
                      : ""}
                  </td>
                  <td className="num">{batch.state === "posted" ? batch.documents : "–"}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
    </Sheet>
  );
}
