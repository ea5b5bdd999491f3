import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { keys } from "../../api/keys.ts";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { RHYTHMS } from "@fiscalon/contract/templates";
import type { TemplateView } from "@fiscalon/contract/templates";
import { useScope } from "../../app/scope.ts";
import { api } from "../../api/client.ts";
import { seenOf } from "../../api/seen.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { plural, today } from "../../kit/format.ts";
import { KIND_NAMES } from "../../kit/kinds.ts";
import { EmptyState, Sheet } from "../../kit/Sheet.tsx";
import { BooksNav } from "../../app/BooksNav.tsx";
import { draftOfBody } from "./draft.ts";
import { useTemplates } from "./useTemplates.ts";

/** Templates: begun anew from here, or posted in their rhythm. */
export function TemplatesPage() {
  const { client, path } = useScope();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const { data: templates } = useTemplates();
  const refresh = () => queries.invalidateQueries({ queryKey: keys.client(client?.id) });
  const postDue = useMutation({
    mutationFn: () => api.post("/clients/:id/templates/post-due", [client?.id]),
    onSuccess: refresh,
  });
  const drop = useMutation({
    mutationFn: (one: TemplateView) =>
      api.delete("/clients/:id/templates/:template", [client?.id, one.id], {}, seenOf(one)),
    onSettled: refresh,
  });
  const due = templates?.reduce((sum, one) => sum + one.due.length, 0) ?? 0;
  const begin = useMutation({
    mutationFn: async ({ document, kind }: TemplateView) => {
      const contact = document.contact
        ? await api.get("/clients/:id/contacts/:contact", [client?.id, document.contact])
        : null;
      const draft = { ...draftOfBody(document, contact), number: "", date: today(), taxPoint: "" };
      await navigate(path(`books/documents/new/${kind}`), { state: { draft } });
    },
  });
  if (templates?.length === 0) {
    return (
      <Sheet title="Templates" actions={<BooksNav />}>
        <EmptyState title="Nothing is kept yet">
          Open a document and choose “Keep it to use again” under More. One that comes back every week, month,
          quarter or year is posted by itself on its day, or waits here to be posted with one click.
        </EmptyState>
      </Sheet>
    );
  }
  return (
    <Sheet title="Templates" actions={<BooksNav />}>
      <ErrorNote error={postDue.error ?? drop.error ?? begin.error} />
      <div className="mb-2 flex items-center gap-4">
        <span className="quiet">
          {due === 0
            ? "Nothing is due today."
            : `${plural(due, "document is", "documents are")} due up to today.`}
        </span>
        {due > 0 && (
          <button
            type="button"
            className="action main ml-auto"
            disabled={postDue.isPending}
            onClick={() => postDue.mutate()}
          >
            {postDue.isPending ? "Posting …" : `Post the ${due} due`}
          </button>
        )}
      </div>
      {postDue.data && (
        <p role="status" className="note-row mb-3">
          Posted {plural(postDue.data.posted, "document")}.
          {postDue.data.failed > 0 &&
            ` ${plural(postDue.data.failed, "kept document")} could not be posted; what is wrong stands with ${postDue.data.failed === 1 ? "it" : "each"}. Use it, mend it, and keep it again under the same name.`}
        </p>
      )}
      <table className="sheet-table">
        <thead>
          <tr>
            <th>Name</th>
            <th>Kind</th>
            <th>Party</th>
            <th>Rhythm</th>
            <th>Next on</th>
            <th className="num">Due</th>
            <th className="w-[170px]" />
          </tr>
        </thead>
        <tbody>
          {templates?.map((one) => (
            <tr key={one.id}>
              <td>
                <span className="font-semibold">{one.name}</span>
                {one.problem && <p className="text-error">Not posted: {one.problem}</p>}
              </td>
              <td className="whitespace-nowrap">{KIND_NAMES[one.kind]}</td>
              <td>{one.party}</td>
              <td className="quiet">
                {one.every ? RHYTHMS[one.every] : "when asked for"}
                {one.byItself && ", by itself"}
              </td>
              <td className="whitespace-nowrap">
                {one.nextOn ? displayDate(one.nextOn) : ""}
                {one.until && <span className="quiet"> until {displayDate(one.until)}</span>}
              </td>
              <td className="num">{one.due.length || ""}</td>
              <td className="text-right whitespace-nowrap">
                <button type="button" className="word-link mr-4" onClick={() => begin.mutate(one)}>
                  Use it
                </button>
                <button type="button" className="word-link" onClick={() => drop.mutate(one)}>
                  Forget
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Sheet>
  );
}
