import { useQueryClient } from "@tanstack/react-query";
import { useWatch } from "react-hook-form";
import { fileBody } from "@fiscalon/contract/returns";
import type { ReturnView } from "@fiscalon/contract/returns";
import { displayAmount } from "@fiscalon/core/money/amount";
import { api } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { useScope } from "../../app/scope.ts";
import { BodyDialog } from "../../kit/BodyDialog.tsx";
import { showPeriod } from "../../kit/format.ts";
import { CheckField, TextField } from "../../kit/formFields.tsx";
import { RETURN, seenBoxes } from "./useReturn.ts";
import type { ReturnParts } from "./useReturn.ts";
import { useBodyForm } from "../../kit/useBodyForm.ts";

/** The declaration, in figures and in the words the authority requires, before the return is sent. */
export function FileDialog({
  view,
  parts,
  onClose,
}: {
  view: ReturnView;
  parts: ReturnParts;
  onClose: () => void;
}) {
  const { client, registration, minorDigits } = useScope();
  const queries = useQueryClient();
  // Also where no answer came it may have been sent: the page below says what is known.
  const close = () => {
    void queries.invalidateQueries({ queryKey: keys.client(client?.id) });
    onClose();
  };
  const dialog = useBodyForm({
    values: { declared: false, reference: "" },
    schema: fileBody,
    body: (typed) => ({ ...typed, boxes: seenBoxes(view) }),
    send: (body) => api.post(`${RETURN}/file`, parts, body),
    refresh: keys.client(client?.id),
    onSaved: onClose,
  });
  const [declared, reference] = useWatch({
    control: dialog.form.control,
    name: ["declared", "reference"],
  });
  const net = displayAmount(Math.abs(view.net), minorDigits);
  return (
    <BodyDialog
      of={dialog}
      title={`File with ${registration?.authority}${view.simulated ? " (simulated)" : ""}`}
      action={view.electronic ? "Send the return" : "Note as filed"}
      busy="Sending …"
      cancel="Not yet"
      ready={declared && (view.electronic || reference.trim() !== "")}
      wide
      onClose={close}
    >
      <p>
        {client?.name}, {registration?.number}: {view.formName} for {showPeriod(view.from, view.to)},{" "}
        <strong>
          {view.net < 0 ? `${net} ${client?.currency} to reclaim` : `${net} ${client?.currency} to pay`}
        </strong>
        .{" "}
        {view.electronic
          ? view.simulated
            ? "The simulator that ships with Fiscalon answers in place of the authority: nothing reaches it."
            : "Once accepted it cannot be sent again."
          : "It is keyed into the authority's own pages; note here the reference they gave."}
      </p>
      {!view.electronic && <TextField className="mt-3" name="reference" label="Reference of the authority" />}
      <CheckField name="declared" className="mt-4 flex cursor-pointer gap-3">
        {view.declaration}
      </CheckField>
    </BodyDialog>
  );
}
