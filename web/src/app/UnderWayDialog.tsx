import { Link } from "react-router";
import type { JobUnderWay } from "@fiscalon/contract/views";
import { cancelJob } from "../api/useJob.ts";
import { Dialog } from "../kit/Dialog.tsx";
import { JobProgress } from "../kit/JobProgress.tsx";
import { showMoment } from "../kit/format.ts";

const WORDS: Readonly<Record<string, string>> = {
  "import-check": "A file is checked",
  "import-post": "A file is posted",
  "import-undo": "An import is taken out",
  match: "A statement is compared",
  change: "Documents follow a change",
  law: "Documents follow the law",
  book: "A book is brought in",
};

/** What is under way, whose books it is about, how far it is, and the way to give it up. */
export function UnderWayDialog({ jobs, onClose }: { jobs: readonly JobUnderWay[]; onClose: () => void }) {
  return (
    <Dialog open wide title="Under way" onClose={onClose}>
      {jobs.length === 0 && <p>Nothing is under way any more.</p>}
      {jobs.map(({ job, client, at }) => (
        <section key={job.id}>
          <h3 className="font-semibold">
            {WORDS[job.kind] ?? "Long work"}
            {client && (
              <>
                {": "}
                <Link to={`/c/${client.id}/books/documents`} className="hover:text-primary" onClick={onClose}>
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
        <button type="button" className="action" onClick={onClose}>
          Close
        </button>
      </div>
    </Dialog>
  );
}
