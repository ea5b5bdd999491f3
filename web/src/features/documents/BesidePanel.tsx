import { useState } from "react";
import type { ReactNode } from "react";
import { useTrail } from "../../kit/trailContext.ts";
import { SidePanel } from "../../kit/SidePanel.tsx";
import { Papers } from "./Papers.tsx";
import { ViewTabs } from "../../kit/ViewTabs.tsx";

const VIEWS = [
  ["effect", "Effect"],
  ["papers", "Papers"],
] as const;

/**
 * Beside a document: what it does and, once it is posted, the papers it comes from. It makes way for the trail, so that
 * lines are not squeezed between both.
 */
export function BesidePanel({ documentId, children }: { documentId: number | null; children: ReactNode }) {
  const [view, setView] = useState<"effect" | "papers">("effect");
  const trail = useTrail();
  return (
    <SidePanel name="Effect" initial={316} yields={trail.chain.length > 0}>
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
