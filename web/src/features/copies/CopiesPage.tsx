import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import type { CopiesView } from "@fiscalon/contract/copies";
import { api } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { plural, showMoment } from "../../kit/format.ts";
import { EmptyState, Sheet } from "../../kit/Sheet.tsx";

/** What is said of what a copy holds. */
const HELD = ["Clients", "Documents", "Papers"];
/** How often it is looked how far a copy is. */
const LOOK_MS = 1500;

/** Copies of the whole practice: made while it is worked on, opened and added up, and restored beside them. */
export function CopiesPage() {
  const queries = useQueryClient();
  const { data: view, error } = useQuery({
    queryKey: keys.copies,
    queryFn: ({ signal }) => api.get("/copies", [], {}, signal),
    refetchInterval: ({ state }) => (state.data?.running ? LOOK_MS : false),
  });
  const act = useMutation({
    mutationFn: (what: () => Promise<CopiesView>) => what(),
    onSuccess: (now) => queries.setQueryData(keys.copies, now),
  });
  const busy = act.isPending || Boolean(view?.running);
  const make = (
    <button
      type="button"
      className="action main"
      disabled={busy}
      onClick={() => act.mutate(() => api.post("/copies", []))}
    >
      Make a copy now
    </button>
  );
  return (
    <Sheet
      title="Copies"
      lead={view && leadOf(view)}
      actions={view && view.copies.length > 0 ? make : undefined}
    >
      <ErrorNote error={error ?? act.error} />
      {view?.running && (
        <p role="status" className="note-row mb-3 flex items-center gap-4">
          {view.running.what === "copy"
            ? "A copy is being made and added up; everybody goes on working meanwhile …"
            : `${view.running.name ?? ""} is being restored beside the copies and added up …`}
          <button
            type="button"
            className="word-link ml-auto"
            onClick={() => act.mutate(() => api.delete("/copies/running", []))}
          >
            Break off
          </button>
        </p>
      )}
      {view?.last && !view.running && (
        <p role={view.last.ok ? "status" : "alert"} className="note-row mb-3 break-words">
          {view.last.says}
        </p>
      )}
      {view?.copies.length === 0 && (
        <EmptyState title="No copy yet" action={make}>
          A copy holds every client with its papers as they are at that moment. It is opened and added up
          before it counts. Keep it on another disk: set <code>FISCALON_BACKUP</code>, and one is made each
          day by itself.
        </EmptyState>
      )}
      {view && view.copies.length > 0 && (
        <table className="sheet-table">
          <thead>
            <tr>
              <th>Made</th>
              <th>Folder</th>
              {HELD.map((what) => (
                <th key={what} className="num">
                  {what}
                </th>
              ))}
              <th />
            </tr>
          </thead>
          <tbody>
            {view.copies.map(({ name, made, sealed, holds, closed }) => (
              <tr key={name}>
                <td className="whitespace-nowrap">
                  {showMoment(made)}
                  {sealed && <span className="quiet block text-[12px]">sealed</span>}
                </td>
                <td className="font-mono text-[12px] whitespace-nowrap">{name}</td>
                {holds ? (
                  [holds.clients, holds.documents, holds.papers].map((count, index) => (
                    <td key={HELD[index]} className="num">
                      {count.toLocaleString("en-GB")}
                    </td>
                  ))
                ) : (
                  <td colSpan={HELD.length} className="quiet !whitespace-normal text-[12px] break-words">
                    {closed}
                  </td>
                )}
                <td className="text-right">
                  {holds && (
                    <button
                      type="button"
                      className="word-link"
                      disabled={busy}
                      onClick={() => act.mutate(() => api.post("/copies/:copy/restore", [name]))}
                    >
                      Restore into a new folder
                    </button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </Sheet>
  );
}

function leadOf({ folder, byItself, sealed }: CopiesView): string {
  const kept = byItself
    ? `made by itself every ${plural(byItself.hours, "hour")}, the last ${byItself.keep} kept`
    : "made when you ask for one";
  return `In ${folder}, ${sealed ? "sealed with the passphrase that is set, " : ""}${kept}. What is restored goes into a folder of its own, proved to hold the same figures; nothing here is overwritten.`;
}
