import type { ReactNode } from "react";
import { reasonBody } from "@fiscalon/contract/returns";
import { BodyDialog } from "./BodyDialog.tsx";
import { TextField } from "./formFields.tsx";
import { useBodyForm } from "./useBodyForm.ts";

export interface ReasonAsked {
  title: string;
  label: string;
  action: string;
  onClose: () => void;
  onReason: (reason: string) => void;
  children: ReactNode;
}

/** Asks for a reason before something unusual is done; ReasonDialog fetches it when it is opened. */
export function AskReason({ title, label, action, onClose, onReason, children }: ReasonAsked) {
  const dialog = useBodyForm({
    values: { reason: "" },
    schema: reasonBody,
    body: (typed) => typed,
    send: ({ reason }) => Promise.resolve(reason),
    onSaved: onReason,
  });
  return (
    <BodyDialog of={dialog} title={title} action={action} onClose={onClose}>
      <div className="quiet mb-3">{children}</div>
      <TextField name="reason" label={label} />
    </BodyDialog>
  );
}
