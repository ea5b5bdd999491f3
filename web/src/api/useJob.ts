import { useCallback, useEffect, useRef, useState } from "react";
import type { JobView } from "@fiscalon/contract/views";
import { api } from "./client.ts";

/** Follows a job over server-sent events; survives leaving the page, because the job runs on the server. */
export function useJob(onDone: (job: JobView) => void) {
  const [job, setJob] = useState<JobView | null>(null);
  const done = useRef(onDone);
  useEffect(() => {
    done.current = onDone;
  }, [onDone]);
  const id = job && (job.state === "running" || job.state === "waiting") ? job.id : null;
  useEffect(() => {
    if (id === null) return undefined;
    const events = new EventSource(`/api/jobs/${id}/events`);
    events.onmessage = (event: MessageEvent<string>) => {
      const now = JSON.parse(event.data) as JobView;
      setJob(now);
      if (now.state !== "running" && now.state !== "waiting") {
        events.close();
        done.current(now);
      }
    };
    return () => events.close();
  }, [id]);
  const cancel = useCallback(() => {
    if (id !== null) void api.post("/jobs/:id/cancel", [id]);
  }, [id]);
  return { job, follow: setJob, cancel, running: id !== null };
}
