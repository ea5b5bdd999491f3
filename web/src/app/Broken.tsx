import { isRouteErrorResponse, Link, useRouteError } from "react-router";

/** What is shown when an address leads nowhere, or a screen breaks. */
export function Broken() {
  const error = useRouteError();
  const unknown =
    error === undefined || error === null || (isRouteErrorResponse(error) && error.status === 404);
  return (
    <main className="p-10">
      <h1>{unknown ? "There is nothing at this address" : "This screen broke"}</h1>
      <p className="quiet mt-2">
        {unknown
          ? "It may have been moved, or the link is incomplete."
          : "Nothing was lost on the server. Load the page again."}
      </p>
      <Link className="word-link mt-4 inline-block" to="/">
        To the clients
      </Link>
    </main>
  );
}
