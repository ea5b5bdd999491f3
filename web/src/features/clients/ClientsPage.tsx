import { keys } from "../../api/keys.ts";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import type { ClientRow } from "@fiscalon/contract/views";
import { api, ApiError } from "../../api/client.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { FileButton } from "../../kit/FileButton.tsx";
import { JobProgress } from "../../kit/JobProgress.tsx";
import { readJson } from "../../api/readJson.ts";
import { EmptyState, Sheet } from "../../kit/Sheet.tsx";
import { useJob } from "../../api/useJob.ts";
import { ClientTable } from "./ClientTable.tsx";

/** Findings are counted one client after the other; the list looks again so often until all are. */
const COUNTED_MS = 3000;

/** All clients of the practice. */
export function ClientsPage() {
  const { data: clients, error } = useQuery({
    queryKey: keys.clients,
    queryFn: ({ signal }) => api.get("/clients", [], {}, signal),
    refetchInterval: ({ state }) => (isCounting(state.data) ? COUNTED_MS : false),
  });
  const [search, setSearch] = useState("");
  const shown = clients?.filter((client) => client.name.toLowerCase().includes(search.toLowerCase()));
  const book = useOpenBook();
  const actions = (
    <>
      {book.button}
      <Link to="/clients/new" className="action main">
        New client
      </Link>
    </>
  );
  return (
    <Sheet
      title="Clients"
      aside={clients && clients.length > 0 ? `${clients.length} in the practice` : ""}
      actions={clients?.length ? actions : undefined}
    >
      <ErrorNote error={error} />
      {book.note}
      {clients?.length === 0 && (
        <EmptyState title="No clients yet" action={actions}>
          Set up the first one, or open a book file: a backup, or the demonstration practice that{" "}
          <code>npm run demo</code> loads.
        </EmptyState>
      )}
      {shown && clients && clients.length > 0 && (
        <>
          <input
            className="entry mb-2 max-w-xs"
            placeholder="Find by name"
            aria-label="Find by name"
            value={search}
            onChange={(event) => setSearch(event.target.value)}
          />
          <ClientTable clients={shown} />
        </>
      )}
    </Sheet>
  );
}

function isCounting(clients: readonly ClientRow[] | undefined): boolean {
  return clients?.some(({ next }) => next.some(({ counting }) => counting)) ?? false;
}

/** Creates a client from a book file: the button, and what is said of it below. */
function useOpenBook() {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const open = async (client: number | undefined) => {
    await queries.invalidateQueries({ queryKey: keys.jurisdictions });
    await queries.invalidateQueries({ queryKey: keys.clients });
    if (client !== undefined) await navigate(`/c/${client}/return`);
  };
  const work = useJob(({ result }) => void open((result as { client?: number } | null)?.client));
  const load = useMutation({
    mutationFn: async (file: File) =>
      api.post("/books", [], await readJson(file, "book/not-json", "book file")),
    onSuccess: async (answer) => {
      if ("job" in answer) work.follow(answer.job);
      else await open(answer.id);
    },
  });
  const failed = work.job?.error;
  const error = failed ? new ApiError(failed) : load.error;
  return {
    button: (
      <FileButton label="Book file" busy={load.isPending || work.running} onFile={load.mutate}>
        Open a book file
      </FileButton>
    ),
    note: (
      <>
        <JobProgress job={work.job} onCancel={work.cancel} />
        {error && <ErrorNote error={withField(error)} />}
      </>
    ),
  };
}

function withField(error: Error): Error {
  return error instanceof ApiError && error.field ? new Error(`${error.field}: ${error.message}`) : error;
}
