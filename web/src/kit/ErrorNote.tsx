import { TriangleAlert } from "lucide-react";

/** What went wrong and what to do, as the server or core said it. */
export function ErrorNote({ error }: { error: Error | null | undefined }) {
  if (!error) return null;
  return (
    <p role="alert" className="note-row my-3 flex gap-2 border-l-2 border-error">
      <TriangleAlert size={16} className="mt-0.5 shrink-0 text-error" aria-hidden />
      <span>{error.message}</span>
    </p>
  );
}
