import { useQuery } from "@tanstack/react-query";
import { Outlet, useParams } from "react-router";
import { api } from "../api/client.ts";
import { keys } from "../api/keys.ts";
import { ErrorNote } from "../kit/ErrorNote.tsx";
import { Sheet } from "../kit/Sheet.tsx";
import { useScope } from "./scope.ts";

/** The clock of a machine is not moved often. */
const LOOK_AGAIN_MS = 5 * 60_000;

/** The screens of a client; one that does not exist is said so, and so is a clock that cannot be trusted. */
export function ClientFrame() {
  const { clientId } = useParams();
  const { client, clientError } = useScope();
  const { data: clock } = useQuery({
    queryKey: keys.of(client?.id, "clock"),
    queryFn: ({ signal }) => api.get("/clients/:id/clock", [client?.id], {}, signal),
    enabled: client !== undefined,
    refetchInterval: LOOK_AGAIN_MS,
  });
  if (clientError === null)
    return (
      <>
        {clock?.trouble && (
          <p role="alert" className="note-row mx-6 mt-3 border-l-2 border-error">
            {clock.trouble}
          </p>
        )}
        <Outlet key={clientId} />
      </>
    );
  return (
    <Sheet title="Client">
      <ErrorNote error={clientError} />
    </Sheet>
  );
}
