import { keys } from "../../api/keys.ts";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef } from "react";
import { Link, useParams } from "react-router";
import type { ImportSettings } from "@fiscalon/contract/imports";
import type { JobView } from "@fiscalon/contract/views";
import { useScope } from "../../app/scope.ts";
import { api, ApiError } from "../../api/client.ts";
import { seenOf } from "../../api/seen.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { JobProgress } from "../../kit/JobProgress.tsx";
import { plural } from "../../kit/format.ts";
import { Sheet } from "../../kit/Sheet.tsx";
import { useJob } from "../../api/useJob.ts";
import { usePlainSetup } from "../../app/records.ts";
import { holdsWords, recordWord } from "./holds.ts";
import { MappingForm } from "./MappingForm.tsx";
import { ProblemList } from "./ProblemList.tsx";
import { XmlForm } from "./XmlForm.tsx";
import { ReportSummary } from "./ReportSummary.tsx";

/** One file on its way in: how it is read, what it would do, posted, undone. */
export function ImportPage() {
  const { client, path } = useScope();
  const { importId } = useParams();
  const queries = useQueryClient();
  const setup = usePlainSetup();
  const key = keys.of(client?.id, "import", importId);
  const { data: batch, error } = useQuery({
    queryKey: key,
    queryFn: ({ signal }) => api.get("/clients/:id/imports/:import", [client?.id, importId], {}, signal),
    enabled: client !== undefined,
  });
  const refresh = () => void queries.invalidateQueries({ queryKey: keys.client(client?.id) });
  const check = useJob(refresh);
  const post = useJob(refresh);
  const { follow } = check;
  const clientId = client?.id;
  const dryRun = useCallback(
    () => api.post("/clients/:id/imports/:import/check", [clientId, importId]),
    [clientId, importId],
  );
  const change = useMutation({
    scope: { id: `settings-of-import-${importId}` },
    mutationFn: (settings: Partial<ImportSettings>) =>
      api.put(
        "/clients/:id/imports/:import/settings",
        [client?.id, importId],
        settings,
        seenOf(queries.getQueryData(key)),
      ),
    onError: refresh,
    onSuccess: (saved) => {
      queries.setQueryData(key, saved);
      void dryRun().then(follow);
    },
  });
  const undo = useJob(refresh);
  const undoing = useMutation({
    mutationFn: () =>
      api.post(
        "/clients/:id/imports/:import/undo",
        [client?.id, importId],
        undefined,
        {},
        seenOf(queries.getQueryData(key)),
      ),
    onSuccess: undo.follow,
  });
  const started = useRef(false);
  useEffect(() => {
    if (batch?.state !== "recognised" || started.current || change.isPending) return;
    started.current = true;
    void dryRun().then(follow);
  }, [batch?.state, dryRun, follow, change.isPending]);

  if (!batch || !setup) {
    return (
      <Sheet title="Import">
        <ErrorNote error={error} />
      </Sheet>
    );
  }
  const { report } = batch;
  const isXml = batch.content === "e-invoice" || batch.content === "audit-file";
  const word = recordWord(batch);
  const many = word === "entry" ? "entries" : `${word}s`;
  const busy = check.running || post.running || undo.running || change.isPending;
  // What was undone is checked once more when it is posted.
  const checked = batch.state === "checked" || batch.state === "undone";
  const ready = report !== null && report.problemCount === 0 && report.fresh > 0 && checked && !busy;
  return (
    <Sheet
      title={batch.fileName}
      aside={`${holdsWords(batch)} · ${STATE_WORDS[batch.state]}`}
      actions={
        <>
          <Link className="action" to={path("books/import")}>
            All imports
          </Link>
          {batch.state === "posted" && (
            <button
              type="button"
              className="action"
              onClick={() => undoing.mutate()}
              disabled={undoing.isPending || undo.running}
            >
              Undo: take {plural(batch.documents, word, many)} out again
            </button>
          )}
          {batch.state !== "posted" && (
            <button
              type="button"
              className="action main"
              disabled={!ready}
              onClick={() =>
                void api
                  .post(
                    "/clients/:id/imports/:import/post",
                    [client?.id, importId],
                    undefined,
                    {},
                    seenOf(batch),
                  )
                  .then(post.follow)
              }
            >
              {report && report.fresh > 0 ? `Post ${plural(report.fresh, word, many)}` : "Post"}
            </button>
          )}
        </>
      }
    >
      <ErrorNote
        error={
          undoing.error ?? change.error ?? jobError(check.job) ?? jobError(post.job) ?? jobError(undo.job)
        }
      />
      <JobProgress job={check.job} onCancel={check.cancel} />
      <JobProgress job={post.job} onCancel={post.cancel} />
      <JobProgress job={undo.job} onCancel={undo.cancel} />
      {report && <ReportSummary batch={batch} report={report} digits={setup.digits} />}
      {report && batch.state !== "posted" && report.problemCount > 0 && (
        <ProblemList
          key={JSON.stringify(batch.settings)}
          batch={batch}
          report={report}
          busy={busy}
          onChange={(settings) => change.mutate(settings)}
        />
      )}
      {batch.state !== "posted" && isXml && (
        <XmlForm batch={batch} setup={setup} busy={busy} onChange={(settings) => change.mutate(settings)} />
      )}
      {batch.state !== "posted" && !isXml && (
        <MappingForm
          batch={batch}
          setup={setup}
          busy={busy}
          onChange={(settings) => change.mutate(settings)}
        />
      )}
      {batch.state === "posted" && (
        <p className="mt-4">
          <Link className="word-link" to={path("books/documents")}>
            See the documents
          </Link>
        </p>
      )}
    </Sheet>
  );
}

const STATE_WORDS = {
  recognised: "being checked",
  checked: "checked, not posted",
  posted: "posted",
  undone: "undone, can be posted again",
};

function jobError(job: JobView | null): Error | null {
  return job?.error ? new ApiError(job.error) : null;
}
