import type { JobView } from "@fiscalon/contract/views";

/** Whether a job is still under way. */
export function isUnderWay({ state }: Pick<JobView, "state">): boolean {
  return state === "running" || state === "waiting";
}

/**
 * Tells of a job as it goes, to its end, over server-sent events.
 * @returns stops telling
 */
export function listenToJob(id: number, tell: (now: JobView) => void): () => void {
  const events = new EventSource(`/api/jobs/${id}/events`);
  events.onmessage = (event: MessageEvent<string>) => {
    const now = JSON.parse(event.data) as JobView;
    if (!isUnderWay(now)) events.close();
    tell(now);
  };
  return () => events.close();
}
