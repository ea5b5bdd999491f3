import { useState } from "react";
import { Field } from "./Field.tsx";
import { FormDialog } from "./FormDialog.tsx";

/** Asks for a reason before something unusual is done. */
export function ReasonDialog({
  open,
  title,
  label,
  action,
  onClose,
  onReason,
  children,
}: {
  open: boolean;
  title: string;
  label: string;
  action: string;
  onClose: () => void;
  onReason: (reason: string) => void;
  children: React.ReactNode;
}) {
  const [reason, setReason] = useState("");
  return (
    <FormDialog
      open={open}
      title={title}
      action={action}
      onClose={onClose}
      onSubmit={() => {
        onReason(reason);
        setReason("");
      }}
    >
      <p className="quiet mb-3">{children}</p>

      <Field
        label={label}
        value={reason}
        onChange={(event) => setReason(event.target.value)}
        required
        minLength={3}
        autoFocus
      />
    </FormDialog>
  );
}
