import { isRouteErrorResponse, Link, useNavigate, useRouteError } from "react-router";

/** What is shown when an address leads nowhere, or a screen breaks. */
export function Broken() {
  const error = useRouteError();
  const navigate = useNavigate();
  const unknown =
    error === undefined || error === null || (isRouteErrorResponse(error) && error.status === 404);
  const said = error instanceof Error ? error.message : null;
  return (
    <section role={unknown ? undefined : "alert"} className="min-w-0 flex-1 p-10">
      <h1>{unknown ? "There is nothing at this address" : "This screen broke"}</h1>
      {said && !unknown && <p className="mt-2">{said}</p>}
      <p className="quiet mt-2">
        {unknown
          ? "It may have been moved, or the link is incomplete."
          : "Nothing was lost on the server, and the other screens work on."}
      </p>
      <p className="mt-4 flex gap-4">
        {!unknown && (
          <button type="button" className="action" onClick={() => void navigate(0)}>
            Try again
          </button>
        )}
        <Link className="word-link" to="/">
          To the clients
        </Link>
      </p>
    </section>
  );
}
