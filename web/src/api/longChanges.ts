import { useSyncExternalStore } from "react";
import type { JobView } from "@fiscalon/contract/views";
import { isUnderWay, listenToJob } from "./jobEvents.ts";

/** Changes somebody waits for that the server does as jobs, as far as they are. */
let waitedFor: readonly JobView[] = [];
const listeners = new Set<() => void>();

function keep(now: JobView): void {
  const others = waitedFor.filter(({ id }) => id !== now.id);
  waitedFor = isUnderWay(now) ? [...others, now] : others;
  for (const told of listeners) told();
}

/** Waits for the end of a job in the place of the answer it stands for. */
export function endOfJob(job: JobView): Promise<JobView> {
  keep(job);
  return new Promise((resolve) => {
    listenToJob(job.id, (now) => {
      keep(now);
      if (!isUnderWay(now)) resolve(now);
    });
  });
}

/** Those that are under way now. */
export function useLongChanges(): readonly JobView[] {
  return useSyncExternalStore(
    (told) => {
      listeners.add(told);
      return () => listeners.delete(told);
    },
    () => waitedFor,
  );
}
