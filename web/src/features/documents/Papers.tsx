import { keys } from "../../api/keys.ts";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useDropzone } from "react-dropzone";
import clsx from "clsx";
import { useScope } from "../../app/scope.ts";
import { api } from "../../api/client.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { showMoment } from "../../kit/format.ts";
import { Tip } from "../../kit/Tip.tsx";

/** The papers of a document, shown beside it. */
export function Papers({ documentId }: { documentId: number }) {
  const { client } = useScope();
  const queries = useQueryClient();
  const [chosen, setChosen] = useState<number | null>(null);
  const base = `/clients/${client?.id}`;
  const key = keys.of(client?.id, "document", documentId, "papers");
  const { data: papers = [] } = useQuery({
    queryKey: key,
    queryFn: ({ signal }) =>
      api.get("/clients/:id/documents/:document/attachments", [client?.id, documentId], {}, signal),
    enabled: client !== undefined,
  });
  const add = useMutation({
    mutationFn: (file: File) => {
      const form = new FormData();
      form.append("file", file);
      return api.post("/clients/:id/documents/:document/attachments", [client?.id, documentId], form);
    },
    onSuccess: (now) => queries.setQueryData(key, now),
  });
  const remove = useMutation({
    mutationFn: (paper: number) => api.delete("/clients/:id/attachments/:attachment", [client?.id, paper]),
    onSuccess: () => queries.invalidateQueries({ queryKey: key }),
  });
  const { getRootProps, getInputProps, isDragActive, open } = useDropzone({
    noClick: true,
    noKeyboard: true,
    onDropAccepted: (files) => files.forEach((file) => add.mutate(file)),
  });
  const shown = papers.find(({ id }) => id === chosen) ?? papers[0];
  const address = shown ? `/api${base}/attachments/${shown.id}` : "";
  return (
    <section
      {...getRootProps({ "aria-label": "Papers" })}
      className={clsx("flex h-full flex-col overflow-y-auto px-4 pt-2 pb-6", isDragActive && "bg-accent")}
    >
      <input {...getInputProps({ "aria-label": "Paper file" })} />
      <ErrorNote error={add.error ?? remove.error} />
      {papers.length === 0 && (
        <p className="quiet mb-2">
          No paper stands beside this document. Drop the bill or receipt here: PDF, PNG, JPEG or XML.
        </p>
      )}
      <ul className="mb-2 text-[13px]">
        {papers.map((paper) => (
          <li key={paper.id} className="flex items-baseline gap-3 border-b border-base-300 py-1">
            <Tip control words={`${paper.by}, ${showMoment(paper.at)}`}>
              <button
                type="button"
                className={clsx(
                  "min-w-0 flex-1 cursor-pointer truncate text-left",
                  shown?.id === paper.id && "font-semibold",
                )}
                aria-pressed={shown?.id === paper.id}
                onClick={() => setChosen(paper.id)}
              >
                {paper.name}
              </button>
            </Tip>
            <a
              className="word-link"
              href={`/api${base}/attachments/${paper.id}`}
              target="_blank"
              rel="noreferrer"
            >
              open
            </a>
            <button type="button" className="word-link" onClick={() => remove.mutate(paper.id)}>
              take away
            </button>
          </li>
        ))}
      </ul>
      <button type="button" className="action mb-3 self-start" disabled={add.isPending} onClick={open}>
        {add.isPending ? "Keeping …" : "Add a paper"}
      </button>
      {shown &&
        (shown.type.startsWith("image/") ? (
          <img src={address} alt={shown.name} className="max-w-full border border-base-300" />
        ) : (
          <iframe
            src={address}
            title={shown.name}
            className="min-h-[420px] w-full flex-1 border border-base-300"
          />
        ))}
    </section>
  );
}
