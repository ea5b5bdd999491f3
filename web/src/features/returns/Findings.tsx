import { useState } from "react";
import { Link } from "react-router";
import type { FindingView } from "@fiscalon/contract/returns";
import { useScope } from "../../app/scope.ts";
import { plural } from "../../kit/format.ts";
import { ReasonDialog } from "../../kit/ReasonDialog.tsx";

/** What the checks found: put right, or accepted with a reason. */
export function Findings({
  findings,
  editable,
  onAccept,
  onAdjust,
  onTakeBack,
}: {
  findings: readonly FindingView[];
  editable: boolean;
  onAccept: (key: string, reason: string) => void;
  /** Adds what a finding asks for to its box. */
  onAdjust: (adjust: NonNullable<FindingView["adjust"]>, reason: string) => void;
  onTakeBack: (key: string) => void;
}) {
  const [accepting, setAccepting] = useState<FindingView | null>(null);
  const open = findings.filter((finding) => finding.accepted === null);
  const accepted = findings.filter((finding) => finding.accepted !== null);
  return (
    <section aria-label="Findings" className="mt-6 border-t border-base-content pt-2">
      <h2>
        {open.length === 0 ? "No open findings" : `${plural(open.length, "finding")} to clear before sealing`}
      </h2>
      <ul className="mt-1">
        {open.map((finding) => (
          <li key={finding.key} className="flex items-start gap-3 border-b border-base-300 py-2">
            <Mark finding={finding} />
            <p className="min-w-0 flex-1">
              <strong className="font-semibold">{finding.title}.</strong> {finding.text}{" "}
              <span className="quiet text-[12px]">{finding.source}</span>
            </p>
            {finding.document !== null && (
              <Opens to={`books/documents/${finding.document}`}>Open document</Opens>
            )}
            {finding.check === "unpaid-input" && <Opens to="agree/unpaid">Open the list</Opens>}
            {editable && finding.adjust && (
              <button
                type="button"
                className="word-link"
                onClick={() => finding.adjust && onAdjust(finding.adjust, finding.text)}
              >
                Put on the return
              </button>
            )}
            {editable && finding.severity === "check" && (
              <button
                type="button"
                className="word-link"
                aria-label={`Accept: ${finding.text}`}
                onClick={() => setAccepting(finding)}
              >
                Accept
              </button>
            )}
          </li>
        ))}
      </ul>
      {accepted.length > 0 && (
        <details className="mt-3">
          <summary className="cursor-pointer font-semibold">
            {plural(accepted.length, "finding")} accepted
          </summary>
          <ul>
            {accepted.map((finding) => (
              <li
                key={finding.key}
                className="flex items-start gap-3 border-b border-base-300 py-1.5 text-[13px]"
              >
                <span aria-hidden className="text-success">
                  ✓
                </span>
                <p className="min-w-0 flex-1">
                  {finding.text}{" "}
                  <span className="quiet">
                    Accepted by {finding.accepted?.by}: {finding.accepted?.reason}
                  </span>
                </p>
                {editable && (
                  <button type="button" className="word-link" onClick={() => onTakeBack(finding.key)}>
                    Take back
                  </button>
                )}
              </li>
            ))}
          </ul>
        </details>
      )}
      <ReasonDialog
        open={accepting !== null}
        title="Accept this finding"
        label="Why it is right as it is"
        action="Accept"
        onClose={() => setAccepting(null)}
        onReason={(reason) => {
          if (accepting) onAccept(accepting.key, reason);
          setAccepting(null);
        }}
      >
        {accepting?.text}
      </ReasonDialog>
    </section>
  );
}

function Mark({ finding }: { finding: FindingView }) {
  const stop = finding.severity === "stop";
  return (
    <span
      className={stop ? "text-error" : "text-warning"}
      role="img"
      aria-label={stop ? "must be put right" : "to check"}
    >
      {stop ? "▲" : "◆"}
    </span>
  );
}

function Opens({ to, children }: { to: string; children: string }) {
  const { path } = useScope();
  return (
    <Link className="word-link" to={path(to)}>
      {children}
    </Link>
  );
}
