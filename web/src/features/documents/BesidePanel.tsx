import { useState } from "react";
import type { ReactNode } from "react";
import { SidePanel } from "../../kit/SidePanel.tsx";
import { Papers } from "./Papers.tsx";
import { ViewTabs } from "../../kit/ViewTabs.tsx";

const VIEWS = [
  ["effect", "Effect"],
  ["papers", "Papers"],
] as const;

/** Beside a document: what it does and, once it is posted, the papers it comes from. */
export function BesidePanel({ documentId, children }: { documentId: number | null; children: ReactNode }) {
  const [view, setView] = useState<"effect" | "papers">("effect");
  return (
    <SidePanel name="Effect" initial={316}>
      {documentId !== null && (
        <ViewTabs
          label="Beside the document"
          views={VIEWS}
          chosen={view}
          onChoose={setView}
          className="px-4 pt-2 font-semibold"
        />
      )}
      {documentId !== null && view === "papers" ? <Papers documentId={documentId} /> : children}
    </SidePanel>
  );
}
