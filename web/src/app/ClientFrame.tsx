import { Outlet, useParams } from "react-router";
import { ErrorNote } from "../kit/ErrorNote.tsx";
import { Sheet } from "../kit/Sheet.tsx";
import { useScope } from "./scope.ts";

/** The screens of a client; one that does not exist is said so. */
export function ClientFrame() {
  const { clientId } = useParams();
  const { clientError } = useScope();
  if (clientError === null) return <Outlet key={clientId} />;
  return (
    <Sheet title="Client">
      <ErrorNote error={clientError} />
    </Sheet>
  );
}
