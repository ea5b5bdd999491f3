import clsx from "clsx";
import { useState } from "react";
import type { ReactNode } from "react";
import { SidePanel } from "../../kit/SidePanel.tsx";
import { Papers } from "./Papers.tsx";

/** Beside a document: what it does and, once it is posted, the papers it comes from. */
export function BesidePanel({ documentId, children }: { documentId: number | null; children: ReactNode }) {
  const [view, setView] = useState<"effect" | "papers">("effect");
  return (
    <SidePanel name="Effect" initial={316}>
      {documentId !== null && (
        <div role="tablist" aria-label="Beside the document" className="flex gap-4 px-4 pt-2">
          {(["effect", "papers"] as const).map((one) => (
            <button
              key={one}
              type="button"
              role="tab"
              aria-selected={view === one}
              className={clsx(
                "min-h-6 cursor-pointer border-b-2 font-semibold",
                view === one ? "border-primary" : "quiet border-transparent",
              )}
              onClick={() => setView(one)}
            >
              {one === "effect" ? "Effect" : "Papers"}
            </button>
          ))}
        </div>
      )}
      {documentId !== null && view === "papers" ? <Papers documentId={documentId} /> : children}
    </SidePanel>
  );
}
