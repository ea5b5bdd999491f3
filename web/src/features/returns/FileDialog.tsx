import { useState } from "react";
import type { ReturnView } from "@fiscalon/contract/returns";
import { displayAmount } from "@fiscalon/core/money/amount";
import { useScope } from "../../app/scope.ts";
import { Dialog, DialogActions } from "../../kit/Dialog.tsx";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { Field } from "../../kit/Field.tsx";
import { showPeriod } from "../../kit/format.ts";

/** The declaration, in figures and in the words the authority requires, before the return is sent. */
export function FileDialog({
  view,
  error,
  busy,
  onClose,
  onFile,
}: {
  view: ReturnView;
  error: Error | null;
  busy: boolean;
  onClose: () => void;
  onFile: (reference: string) => void;
}) {
  const { client, registration, minorDigits } = useScope();
  const [declared, setDeclared] = useState(false);
  const [reference, setReference] = useState("");
  const net = displayAmount(Math.abs(view.net), minorDigits);
  return (
    <Dialog open title={`File with ${registration?.authority}`} onClose={onClose} wide>
      <p>
        {client?.name}, {registration?.number}: {view.formName.toLowerCase()} for{" "}
        {showPeriod(view.from, view.to)},{" "}
        <strong>
          {view.net < 0 ? `${net} ${client?.currency} to reclaim` : `${net} ${client?.currency} to pay`}
        </strong>
        .{" "}
        {view.electronic
          ? "Once accepted it cannot be sent again."
          : "It is keyed into the authority's own pages; note here the reference they gave."}
      </p>
      {!view.electronic && (
        <Field
          className="mt-3"
          label="Reference of the authority"
          value={reference}
          onChange={(event) => setReference(event.target.value)}
        />
      )}
      <label className="mt-4 flex cursor-pointer gap-3">
        <input
          type="checkbox"
          className="checkbox checkbox-sm mt-0.5"
          checked={declared}
          onChange={(event) => setDeclared(event.target.checked)}
        />
        <span>{view.declaration}</span>
      </label>
      <ErrorNote error={error} />
      <DialogActions>
        <button type="button" className="action" onClick={onClose}>
          Not yet
        </button>
        <button
          type="button"
          className="action main"
          disabled={!declared || busy || (!view.electronic && reference.trim() === "")}
          onClick={() => onFile(reference)}
        >
          {busy ? "Sending …" : view.electronic ? "Send the return" : "Note as filed"}
        </button>
      </DialogActions>
    </Dialog>
  );
}
