import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { JobUnderWay } from "@fiscalon/contract/views";
import { api } from "../api/client.ts";
import { keys } from "../api/keys.ts";
import { onDemand } from "../kit/onDemand.tsx";

const UnderWayDialog = onDemand(() => import("./UnderWayDialog.tsx").then((one) => one.UnderWayDialog));

/** How often is asked while something is under way, and while nothing is. */
const [OFTEN_MS, SELDOM_MS] = [1_000, 10_000];

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
      {open && <UnderWayDialog jobs={jobs} onClose={() => setOpen(false)} />}
    </>
  );
}

function partOf({ job: { done, total } }: JobUnderWay): string {
  return total > 0 ? `, ${Math.floor((done / total) * 100)} %` : "";
}
