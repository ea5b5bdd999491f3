import { useQuery } from "@tanstack/react-query";
import { api } from "../../../api/client.ts";
import { keys } from "../../../api/keys.ts";
import { Dialog, DialogActions } from "../../../kit/Dialog.tsx";
import { ErrorNote } from "../../../kit/ErrorNote.tsx";

/** What to write to the other side about lines, to be copied into a mail or printed. */
export function LetterDialog({
  clientId,
  statement,
  lines,
  onClose,
}: {
  clientId: number | undefined;
  statement: number;
  lines: number[];
  onClose: () => void;
}) {
  const { data: letters, error } = useQuery({
    queryKey: keys.of(clientId, "statements", "letter", statement, lines),
    queryFn: ({ signal }) =>
      api.ask("/clients/:id/statements/:statement/letter", [clientId, statement], { lines }, signal),
  });
  return (
    <Dialog open wide title="Ask the other side" onClose={onClose}>
      <ErrorNote error={error} />
      <div className="max-h-[60vh] overflow-y-auto">
        {letters?.map(({ party, subject, text }) => (
          <section key={party} className="mb-4">
            <h3 className="mb-1 font-semibold">{subject}</h3>
            <textarea
              readOnly
              className="textarea w-full font-mono text-[13px]"
              rows={Math.min(16, text.split("\n").length + 1)}
              value={text}
              aria-label={`Letter to ${party || "the other side"}`}
            />
            <div className="flex gap-4">
              <button
                type="button"
                className="word-link"
                onClick={() => void navigator.clipboard.writeText(text)}
              >
                Copy
              </button>
              <a
                className="word-link"
                href={`mailto:?subject=${encodeURIComponent(subject)}&body=${encodeURIComponent(text)}`}
              >
                As a mail
              </a>
            </div>
          </section>
        ))}
      </div>
      <DialogActions>
        <button type="button" className="action" onClick={onClose}>
          Close
        </button>
      </DialogActions>
    </Dialog>
  );
}
