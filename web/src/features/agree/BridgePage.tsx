import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { BridgeOf } from "@fiscalon/core/agree/turnoverBridge";
import type { BridgeView } from "@fiscalon/contract/bridge";
import { api, filled } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { useScope } from "../../app/scope.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { FileLinks } from "../../kit/FileLinks.tsx";
import { showPeriod } from "../../kit/format.ts";
import { Waiting } from "../../kit/Waiting.tsx";
import { EmptyState, Sheet } from "../../kit/Sheet.tsx";
import { AgreeDialog } from "./AgreeDialog.tsx";
import { BridgeSheet } from "./BridgeSheet.tsx";
import { WORDS } from "./bridgeWords.ts";
import { AgreeLinks } from "./AgreeLinks.tsx";
import { SpanFields } from "./SpanFields.tsx";

export const BRIDGE = "/clients/:id/registrations/:rid/bridge";

const STATES: Record<BridgeView["state"], string> = {
  open: "not agreed yet",
  agreed: "agreed",
  accepted: "agreed with what is left",
  changed: "changed since it was agreed",
};

/** From income in the profit and loss account to the turnover boxes, cause by cause. */
export function TurnoverPage() {
  return <BridgePage key="turnover" of="turnover" />;
}

/** From costs in the profit and loss account to the purchases on the returns, cause by cause. */
export function PurchasesPage() {
  return <BridgePage key="purchases" of="purchases" />;
}

/** A bridge of a side; what nobody knows is named here. */
function BridgePage({ of }: { of: BridgeOf }) {
  const words = WORDS[of];
  const { client, registration, period, periods } = useScope();
  const [span, setSpan] = useState<{ from: string; to: string } | null>(null);
  const [agreeing, setAgreeing] = useState(false);
  const chosen = span ?? (period ? { from: period.from, to: period.to } : null);
  const parts = [client?.id, registration?.id];
  const { data: view, error } = useQuery({
    queryKey: keys.of(client?.id, "bridge", of, registration?.id, chosen),
    queryFn: ({ signal }) => api.get(BRIDGE, [client?.id, registration?.id], { of, ...chosen }, signal),
    enabled: registration !== undefined && chosen !== null,
  });
  const links = <AgreeLinks />;
  if (!registration || !chosen)
    return (
      <Sheet title={words.tab} actions={links}>
        <EmptyState title="Nothing to compare yet">
          The profit and loss account and the returns are compared period by period, once there is a
          registration.
        </EmptyState>
      </Sheet>
    );
  const past = periods.filter(({ state }) => state !== "ahead");
  const isOne = periods.some(({ from, to }) => from === chosen.from && to === chosen.to);
  return (
    <Sheet
      title={`${words.title}, ${isOne ? showPeriod(chosen.from, chosen.to) : `${displayDate(chosen.from)} to ${displayDate(chosen.to)}`}`}
      aside={view && STATES[view.state]}
      actions={links}
      lead={words.lead}
    >
      <div className="no-print mb-3 flex flex-wrap items-end gap-4">
        <SpanFields periods={past} span={chosen} onChange={setSpan} />
        <span className="ml-auto flex items-center gap-4">
          <FileLinks href={`/api${filled(BRIDGE, parts)}/file`} query={{ of, ...chosen }} />
          {view && (
            <button type="button" className="btn btn-primary" onClick={() => setAgreeing(true)}>
              {view.rest === 0 ? "Agree at 0.00" : "Accept with what is left …"}
            </button>
          )}
        </span>
      </div>
      <ErrorNote error={error} />
      {!view && !error && <Waiting what={`the ${words.tab.toLowerCase()}`} />}
      {view && <BridgeSheet view={view} rid={registration.id} />}
      {view && agreeing && (
        <AgreeDialog view={view} rid={registration.id} onClose={() => setAgreeing(false)} />
      )}
    </Sheet>
  );
}
