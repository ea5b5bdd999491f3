import { useCallback, useEffect, useRef, useState } from "react";
import type { JobView } from "@fiscalon/contract/views";
import { api } from "./client.ts";
import { isUnderWay, listenToJob } from "./jobEvents.ts";

/** Follows a job; survives leaving the page, because the job runs on the server. */
export function useJob(onDone: (job: JobView) => void) {
  const [job, setJob] = useState<JobView | null>(null);
  const done = useRef(onDone);
  useEffect(() => {
    done.current = onDone;
  }, [onDone]);
  const id = job && isUnderWay(job) ? job.id : null;
  useEffect(() => {
    if (id === null) return undefined;
    return listenToJob(id, (now) => {
      setJob(now);
      if (!isUnderWay(now)) done.current(now);
    });
  }, [id]);
  const cancel = useCallback(() => {
    if (id !== null) void cancelJob(id);
  }, [id]);
  return { job, follow: setJob, cancel, running: id !== null };
}

/** Asks the server to give a job up: what it did so far is undone. */
export function cancelJob(id: number): Promise<JobView> {
  return api.post("/jobs/:id/cancel", [id]);
}
