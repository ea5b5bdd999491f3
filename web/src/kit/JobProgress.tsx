import type { JobView } from "@fiscalon/contract/views";

export function JobProgress({ job, onCancel }: { job: JobView | null; onCancel: () => void }) {
  if (!job || (job.state !== "running" && job.state !== "waiting")) return null;
  const known = job.total > 0;
  return (
    <div className="note-row my-3 flex items-center gap-4" role="status">
      <progress
        className="progress w-48"
        value={known ? job.done : undefined}
        max={known ? job.total : undefined}
        aria-label="Progress"
      />
      <span>
        {job.message || "starting"}
        {known && ` · ${job.done.toLocaleString("en-GB")} of ${job.total.toLocaleString("en-GB")}`}
      </span>
      <button type="button" className="word-link ml-auto" onClick={onCancel}>
        Cancel
      </button>
    </div>
  );
}
