import { agreeBody } from "@fiscalon/contract/bridge";
import type { BridgeView } from "@fiscalon/contract/bridge";
import { displayAmount } from "@fiscalon/core/money/amount";
import { api } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { useScope } from "../../app/scope.ts";
import { BodyDialog } from "../../kit/BodyDialog.tsx";
import { TextField } from "../../kit/formFields.tsx";
import { useBodyForm } from "../../kit/useBodyForm.ts";

/** Keeps that a bridge is agreed as it stands; where something is left, with the reason. */
export function AgreeDialog({ view, rid, onClose }: { view: BridgeView; rid: number; onClose: () => void }) {
  const { client } = useScope();
  const { of, from, to, rest, digits } = view;
  const dialog = useBodyForm({
    values: { note: "" },
    schema: agreeBody,
    body: (typed) => ({ ...typed, of, from, to }),
    send: (body) => api.post("/clients/:id/registrations/:rid/bridge/agreement", [client?.id, rid], body),
    refresh: keys.client(client?.id),
    onSaved: onClose,
  });
  return (
    <BodyDialog of={dialog} title={`Agree the ${of}`} action="Agree" onClose={onClose}>
      <p className="quiet mb-3">
        {rest === 0
          ? "Every difference has its cause. Should a figure change later, this sheet says so."
          : `${displayAmount(rest, digits)} is left without a cause. Say why that is accepted.`}
      </p>
      <TextField name="note" label={rest === 0 ? "Note, if any" : "Reason"} />
    </BodyDialog>
  );
}
