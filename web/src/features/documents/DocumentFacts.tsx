import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { bringsMoney } from "@fiscalon/core/model/documentKinds";
import { Link } from "react-router";
import type { DocumentView } from "@fiscalon/contract/views";
import { useScope } from "../../app/scope.ts";
import { Figure } from "../../kit/Figure.tsx";
import { showMoment } from "../../kit/format.ts";

/** Where a posted document came from, whether it can be changed, and what happened to it. */
export function DocumentFacts({ document }: { document: DocumentView }) {
  const { path } = useScope();
  return (
    <div className="mb-4 space-y-1 text-[13px]">
      {document.locked && (
        <p className="note-row">
          On the return to {displayDate(document.locked.period)}, which is {document.locked.state}. It cannot
          be changed; credit it, or enter a new document, which becomes a late item.
        </p>
      )}
      {document.ledgerDate !== document.input.date && (
        <p className="quiet">
          The ledger takes it on {displayDate(document.ledgerDate)}, because the period of its date is sealed.
        </p>
      )}
      {document.source && (
        <p className="quiet">
          From{" "}
          <Link className="word-link" to={path(`books/import/${document.source.importId}`)}>
            {document.source.fileName}
          </Link>
          {document.source.row ? `, row ${document.source.row}` : ""}.
        </p>
      )}
      {document.open !== null && document.state === "posted" && <Settled document={document} />}
      <ul className="quiet flex flex-wrap gap-x-4">
        {document.history.map((step) => (
          <li key={`${step.at} ${step.what}`}>
            {step.documentId === document.id ? (
              step.what
            ) : (
              <Link className="word-link" to={path(`books/documents/${step.documentId}`)}>
                {step.what}
              </Link>
            )}{" "}
            by {step.by}, {showMoment(step.at)}
          </li>
        ))}
      </ul>
    </div>
  );
}

/** What is open, and the payments that settled the rest. */
function Settled({ document }: { document: DocumentView }) {
  const { path, minorDigits } = useScope();
  const { id, open, settledBy, input, contact } = document;
  const kind = bringsMoney(input.kind) ? "receipt" : "payment";
  return (
    <p className="flex flex-wrap gap-x-4">
      <span>
        Open{" "}
        <Figure
          amount={open ?? 0}
          digits={minorDigits}
          of={`open/${id}`}
          label={`Open of ${input.number}`}
          dash
        />
      </span>
      {settledBy.map((one) => (
        <span key={one.payment} className="quiet">
          <Link className="word-link" to={path(`books/payments/${one.payment}`)}>
            {one.number}
          </Link>
          , {displayDate(one.date)}
        </span>
      ))}
      {open !== 0 && (
        <Link className="word-link" to={path(`books/payments/new/${kind}/${contact?.id ?? 0}/${id}`)}>
          record its {kind}
        </Link>
      )}
    </p>
  );
}
