import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { useState } from "react";
import { Link } from "react-router";
import type { ReturnView } from "@fiscalon/contract/returns";
import { formatAmount } from "@fiscalon/core/money/amount";
import { seenOf } from "../../api/seen.ts";
import { api, filled } from "../../api/client.ts";
import { useScope } from "../../app/scope.ts";
import { DoubtMark } from "../../kit/DoubtMark.tsx";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { plural, showMoment, showPeriod, today } from "../../kit/format.ts";
import { EmptyState, Sheet } from "../../kit/Sheet.tsx";
import { LateItems } from "../../records/LateItems.tsx";
import { Adjustments } from "./Adjustments.tsx";
import { Findings } from "./Findings.tsx";
import { FormSheet } from "./FormSheet.tsx";
import { SchemePapers } from "./SchemePapers.tsx";
import { Registers } from "./Registers.tsx";
import { ToLookUp } from "./ToLookUp.tsx";
import { NetTaxByPeriod } from "./NetTaxByPeriod.tsx";
import { RETURN, seenBoxes, useReturn } from "./useReturn.ts";
import { Tip } from "../../kit/Tip.tsx";
import { Waiting } from "../../kit/Waiting.tsx";
import { onDemand } from "../../kit/onDemand.tsx";

const FileDialog = onDemand(() => import("./FileDialog.tsx").then((one) => one.FileDialog));

const AdjustDialog = onDemand(() => import("./AdjustDialog.tsx").then((one) => one.AdjustDialog));

/** The return of the period, from open to filed. */
export function ReturnPage() {
  const { client, registration, period, path, minorDigits } = useScope();
  const { view, checked, error, act, parts } = useReturn();
  const [dialog, setDialog] = useState<"adjust" | "file" | null>(null);
  // What was refused before says nothing of what is done now.
  const begin = (one: "adjust" | "file") => {
    act.reset();
    setDialog(one);
  };
  if (client && !registration) {
    return (
      <Sheet title="Return">
        <EmptyState
          title="No registration, no return"
          action={
            <Link className="action main" to={path("setup/places")}>
              Add a registration
            </Link>
          }
        >
          A registration decides which periods are declared, and when.
        </EmptyState>
      </Sheet>
    );
  }
  if (!view || !period) {
    return (
      <Sheet title="Return">
        <ErrorNote error={error} />
      </Sheet>
    );
  }
  const editable = view.state === "open" || view.state === "in-review";
  const open = checked?.findings.filter((finding) => finding.accepted === null).length;
  return (
    <Sheet
      title={`${view.formName}, ${showPeriod(view.from, view.to)}`}
      lead={<Lead view={view} />}
      actions={
        <>
          <a className="action" href={`/api${filled(RETURN, parts)}/pdf`} target="_blank" rel="noreferrer">
            PDF
          </a>
          <Link className="action" to={historyOf(path("books/audit"))}>
            History
          </Link>
          {editable && (
            <button type="button" className="action" onClick={() => begin("adjust")}>
              Adjust
            </button>
          )}
          {editable && (
            <button
              type="button"
              className="action"
              onClick={() =>
                act.mutate(() =>
                  api.post(`${RETURN}/state`, parts, { state: view.state === "open" ? "in-review" : "open" }),
                )
              }
            >
              {view.state === "open" ? "To review" : "Take back"}
            </button>
          )}
          {editable && (
            <Tip
              words={
                open === undefined
                  ? "The period is being checked"
                  : open > 0
                    ? "Clear the findings below first"
                    : view.to >= today()
                      ? "The period is still running"
                      : "Freeze the figures and lock the documents"
              }
            >
              <button
                type="button"
                className="action main"
                disabled={open !== 0 || view.to >= today() || act.isPending}
                onClick={() =>
                  act.mutate(() => api.post(`${RETURN}/seal`, parts, { boxes: seenBoxes(view) }))
                }
              >
                Seal this period
              </button>
            </Tip>
          )}
          {view.state === "sealed" && (
            <button
              type="button"
              className="action"
              onClick={() => act.mutate(() => api.post(`${RETURN}/reopen`, parts))}
            >
              Open again
            </button>
          )}
          {view.state === "sealed" && (
            <button type="button" className="action main" onClick={() => begin("file")}>
              File with {registration?.authority}
              {view.simulated && " (simulated)"}
            </button>
          )}
          {view.state === "filed" && (
            <Link className="action main" to={path("settle")}>
              Settle
            </Link>
          )}
        </>
      }
    >
      <ErrorNote error={act.error} />
      {view.filed && <Receipt view={view} />}
      {view.sentWithoutAnswer !== null && (
        <p role="status" className="note-row mb-4">
          Sent {showMoment(view.sentWithoutAnswer)}, and its answer is not known. File it again:{" "}
          {registration?.authority} is asked first what it holds, and nothing is sent twice.
        </p>
      )}
      {view.drift.length > 0 && (
        <p role="alert" className="note-row mb-3 border-l-2 border-error">
          The books say something else today than what was sealed:{" "}
          {view.drift.map((one) => `box ${one.box}`).join(", ")}.
        </p>
      )}
      <ToLookUp doubts={view.doubts} />
      <FormSheet view={view} />
      <Adjustments
        view={view}
        editable={editable}
        onRemove={(id) =>
          act.mutate(() => api.delete("/clients/:id/adjustments/:adjustment", [client?.id, id]))
        }
      />
      <LateItems late={view.late} corrections={view.corrections} period={editable ? view.to : undefined} />
      {!checked && (error ? <ErrorNote error={error} /> : <Waiting what="what the checks find" />)}
      {checked && (
        <Findings
          findings={checked.findings}
          editable={editable}
          onAccept={(key, reason) =>
            act.mutate(() => api.post(`${RETURN}/acceptances`, parts, { key, reason }, {}, seenOf(checked)))
          }
          onAdjust={({ box, amount }, reason) =>
            act.mutate(() =>
              api.post(`${RETURN}/adjustments`, parts, {
                box,
                amount: formatAmount(amount, minorDigits),
                reason,
                evidence: "",
              }),
            )
          }
          onTakeBack={(key) =>
            act.mutate(() => api.delete(`${RETURN}/acceptances`, parts, { key }, seenOf(checked)))
          }
        />
      )}
      <SchemePapers parts={parts} />
      <Registers parts={parts} />
      <NetTaxByPeriod end={view.to} />
      {dialog === "adjust" && <AdjustDialog view={view} parts={parts} onClose={() => setDialog(null)} />}
      {dialog === "file" && <FileDialog view={view} parts={parts} onClose={() => setDialog(null)} />}
    </Sheet>
  );
}

/** The audit trail, narrowed to what made the return. */
function historyOf(audit: string): string {
  return `${audit}${audit.includes("?") ? "&" : "?"}of=return-made`;
}

function Lead({ view }: { view: ReturnView }) {
  const sealed = view.sealed
    ? ` Sealed by ${view.sealed.by}, ${showMoment(view.sealed.at)}.`
    : view.state === "in-review"
      ? " In review."
      : "";
  const dueDoubt = view.doubts.find(({ kind }) => kind === "due");
  const pay =
    view.payBy === view.due
      ? ""
      : `; money must arrive by ${displayDate(view.payBy)}, the last working day before`;
  return (
    <>
      Due {displayDate(view.due)}
      {dueDoubt && <DoubtMark says={`${dueDoubt.says} (${dueDoubt.source})`} className="ml-1" />}
      {view.net > 0 ? pay : ""}.{" "}
      {view.further.map(({ name, due, source }) => (
        <Tip key={name} words={source} className="mr-1">
          {name} {displayDate(due)}.
        </Tip>
      ))}
      {sealed} {plural(view.factCount, "line")} counted.
    </>
  );
}

/** What the authority answered. */
function Receipt({ view }: { view: ReturnView }) {
  if (!view.filed) return null;
  const { receipt, by, at } = view.filed;
  return (
    <section aria-label="Receipt" className="note-row mb-4">
      <p className="font-semibold">
        Filed by {by}, {showMoment(at)}
      </p>
      <dl className="mt-1 grid grid-cols-[170px_1fr] gap-x-4 text-[13px]">
        {Object.entries(receipt)
          .filter(([, value]) => value !== "")
          .map(([field, value]) => (
            <div key={field} className="contents">
              <dt className="quiet">{RECEIPT_WORDS[field] ?? field}</dt>
              <dd className="font-mono text-[12.5px]">
                {field === "processingDate" ? showMoment(String(value)) : String(value)}
              </dd>
            </div>
          ))}
      </dl>
    </section>
  );
}

const RECEIPT_WORDS: Record<string, string> = {
  receiptId: "Receipt",
  processingDate: "Processed",
  formBundleNumber: "Form bundle number",
  paymentIndicator: "Payment by",
  chargeRefNumber: "Charge reference",
  confirmedBy: "Confirmed by",
  simulated: "Simulated",
};
