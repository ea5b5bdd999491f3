import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import type { JobUnderWay } from "@fiscalon/contract/views";
import { api } from "../api/client.ts";
import { keys } from "../api/keys.ts";
import { cancelJob } from "../api/useJob.ts";
import { Dialog } from "../kit/Dialog.tsx";
import { JobProgress } from "../kit/JobProgress.tsx";
import { showMoment } from "../kit/format.ts";

/** How often is asked while something is under way, and while nothing is. */
const [OFTEN_MS, SELDOM_MS] = [1_000, 10_000];

const WORDS: Readonly<Record<string, string>> = {
  "import-check": "A file is checked",
  "import-post": "A file is posted",
  "import-undo": "An import is taken out",
  match: "A statement is compared",
  change: "Documents follow a change",
  law: "Documents follow the law",
  book: "A book is brought in",
};

/** Long work that goes on on the server, whoever began it and whatever page is open; nothing where there is none. */
export function UnderWay({ narrow }: { narrow: boolean }) {
  const [open, setOpen] = useState(false);
  const { data: jobs = [] } = useQuery({
    queryKey: keys.jobs,
    queryFn: ({ signal }) => api.get("/jobs", [], {}, signal),
    refetchInterval: ({ state }) => (state.data && state.data.length > 0 ? OFTEN_MS : SELDOM_MS),
  });
  const [first] = jobs;
  return (
    <>
      {first && (
        <button
          type="button"
          className="flex w-full cursor-pointer items-center gap-2 py-1 text-left hover:text-primary"
          aria-label={`${jobs.length} under way`}
          title={WORDS[first.job.kind]}
          onClick={() => setOpen(true)}
        >
          <span className="loading loading-spinner loading-xs shrink-0" aria-hidden />
          {!narrow && (
            <span className="truncate">
              {jobs.length} under way{partOf(first)}
            </span>
          )}
        </button>
      )}
      {open && (
        <Dialog open wide title="Under way" onClose={() => setOpen(false)}>
          {jobs.length === 0 && <p>Nothing is under way any more.</p>}
          {jobs.map(({ job, client, at }) => (
            <section key={job.id}>
              <h3 className="font-semibold">
                {WORDS[job.kind] ?? "Long work"}
                {client && (
                  <>
                    {": "}
                    <Link
                      to={`/c/${client.id}/books/documents`}
                      className="hover:text-primary"
                      onClick={() => setOpen(false)}
                    >
                      {client.name}
                    </Link>
                  </>
                )}
              </h3>
              <p className="quiet">begun {showMoment(at)}</p>
              <JobProgress job={job} onCancel={() => void cancelJob(job.id)} />
            </section>
          ))}
          <div className="mt-4 flex justify-end">
            <button type="button" className="action" onClick={() => setOpen(false)}>
              Close
            </button>
          </div>
        </Dialog>
      )}
    </>
  );
}

function partOf({ job: { done, total } }: JobUnderWay): string {
  return total > 0 ? `, ${Math.floor((done / total) * 100)} %` : "";
}
