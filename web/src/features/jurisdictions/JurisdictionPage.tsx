import { keys } from "../../api/keys.ts";
import type { BuilderPart } from "./builderPart.ts";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";
import { blankJurisdiction } from "@fiscalon/core/jurisdictions/blankJurisdiction";
import { memberStart } from "@fiscalon/core/jurisdictions/memberStart";
import { UNION_MEMBERS } from "@fiscalon/core/packs/eu/members";
import type { OwnJurisdiction } from "@fiscalon/core/jurisdictions/ownJurisdiction";
import { api, ApiError } from "../../api/client.ts";
import { seenOf } from "../../api/seen.ts";
import { overtakenBy } from "../../kit/overtaken.ts";
import { OvertakenDialog } from "../../kit/OvertakenDialog.tsx";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { Sheet } from "../../kit/Sheet.tsx";
import { BoxesSection } from "./BoxesSection.tsx";
import { CalendarSection } from "./CalendarSection.tsx";
import { CodesSection } from "./CodesSection.tsx";
import { HeadSection } from "./HeadSection.tsx";
import { LeviesSection } from "./LeviesSection.tsx";
import { fileOf } from "./jurisdictionFile.ts";
import { RatesSection } from "./RatesSection.tsx";

/** Makes or changes a jurisdiction; a shipped one is taken as a start under another id. */
export function JurisdictionPage() {
  const { ref } = useParams();
  const [query] = useSearchParams();
  const isNew = ref === "new";
  const member = query.get("member") ?? "";
  const { data, error } = useQuery({
    queryKey: keys.jurisdiction(ref),
    queryFn: ({ signal }) => api.get("/jurisdictions/:ref", [ref], {}, signal),
    enabled: !isNew,
    staleTime: Infinity,
  });
  if (isNew) {
    const start = UNION_MEMBERS.has(member) ? memberStart(member) : blankJurisdiction();
    return <Builder key={`new ${member}`} start={start} />;
  }
  if (!data) return <ErrorNote error={error} />;
  const { format: _format, version: _version, ...own } = data;
  return <Builder key={ref} start={own} seen={seenOf(data)} />;
}

function Builder({ start, seen: seenNow }: { start: OwnJurisdiction; seen?: number | undefined }) {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [draft, setDraft] = useState(start);
  // The draft was begun from what was read then, whatever is read meanwhile.
  const [seen] = useState(seenNow);
  const save = useMutation({
    mutationFn: (upTo: number | undefined) => api.put("/jurisdictions/:ref", [draft.id], fileOf(draft), upTo),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: keys.jurisdictions });
      await navigate("/jurisdictions");
    },
  });
  const overtaken = overtakenBy(save.error);
  const failed = save.error instanceof ApiError ? save.error : null;
  const part: BuilderPart = {
    draft,
    set: (change) => setDraft({ ...draft, ...change }),
    error: (path) => (failed?.field === path ? failed.message : undefined),
  };
  return (
    <Sheet
      title={draft.name || "Jurisdiction"}
      lead="Everything here is checked together when it is kept: rates that overlap, boxes in a circle, formulas, levies without an account."
      actions={
        <>
          <Link to="/jurisdictions" className="action">
            Cancel
          </Link>
          <button
            type="button"
            className="action main"
            disabled={save.isPending}
            onClick={() => save.mutate(seen)}
          >
            Keep jurisdiction
          </button>
        </>
      }
    >
      <ErrorNote
        error={failed ? new Error([failed.field, failed.message].filter(Boolean).join(": ")) : save.error}
      />
      <div className="grid max-w-5xl gap-7">
        <HeadSection {...part} />
        <LeviesSection {...part} />
        <RatesSection {...part} />
        <CodesSection {...part} />
        <BoxesSection {...part} />
        <CalendarSection {...part} />
      </div>
      {overtaken && (
        <OvertakenDialog
          of={overtaken}
          yours={draft}
          onKeepMine={() => save.mutate(overtaken.entry)}
          onTakeTheirs={() => void queries.invalidateQueries().then(() => navigate("/jurisdictions"))}
        />
      )}
    </Sheet>
  );
}
