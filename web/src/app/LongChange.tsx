import type { JobView } from "@fiscalon/contract/views";
import { cancelJob } from "../api/useJob.ts";
import { Dialog } from "../kit/Dialog.tsx";
import { JobProgress } from "../kit/JobProgress.tsx";

/** A change that moves many documents, as far as it is; whoever asked for it waits, and may give it up. */
export function LongChange({ job }: { job: JobView }) {
  const cancel = () => void cancelJob(job.id);
  return (
    <Dialog open wide title="Many documents follow this change" onClose={cancel}>
      <p>
        Each open document it concerns is worked out anew. All of them follow, or none: until the end nothing
        is changed, and whoever saves in these books meanwhile goes first.
      </p>
      <JobProgress job={job} onCancel={cancel} />
    </Dialog>
  );
}
