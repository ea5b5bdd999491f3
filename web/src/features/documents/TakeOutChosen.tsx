import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { useScope } from "../../app/scope.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { plural } from "../../kit/format.ts";
import { VoidDialog } from "./DocumentDialogs.tsx";

/** Takes the documents chosen in the grid out of the books with one reason: all of them, or none. */
export function TakeOutChosen({ ids, onDone }: { ids: number[]; onDone: () => void }) {
  const { client } = useScope();
  const queries = useQueryClient();
  const [asking, setAsking] = useState(false);
  const takeOut = useMutation({
    mutationFn: (reason: string) =>
      api.post("/clients/:id/documents/void", [client?.id], { documents: ids, reason }),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: keys.client(client?.id) });
      onDone();
    },
    onSettled: () => setAsking(false),
  });
  return (
    <>
      <button type="button" className="word-link" onClick={() => setAsking(true)}>
        Take out of the books …
      </button>
      <ErrorNote error={takeOut.error} />
      <VoidDialog
        open={asking}
        number={plural(ids.length, "document")}
        onClose={() => setAsking(false)}
        onVoid={(reason) => takeOut.mutate(reason)}
      />
    </>
  );
}
