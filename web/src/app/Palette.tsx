import { lazy, Suspense, useState } from "react";
import { Dialog } from "../kit/Dialog.tsx";
import { FIELD, FIND } from "./findField.ts";

const FindList = lazy(async () => ({ default: (await import("./FindList.tsx")).FindList }));

/** Finds clients, documents, codes, screens and actions by typing, at once: what fits comes as soon as it is here. */
export function Palette({ onClose }: { onClose: () => void }) {
  const [search, setSearch] = useState("");
  const field = (
    <input
      className={FIELD}
      aria-label="Find anything"
      placeholder={FIND}
      value={search}
      onChange={(event) => setSearch(event.target.value)}
    />
  );
  return (
    <Dialog open title="Find anything" onClose={onClose} wide>
      <Suspense fallback={field}>
        <FindList search={search} onSearch={setSearch} onClose={onClose} />
      </Suspense>
    </Dialog>
  );
}
