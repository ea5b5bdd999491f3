import { ReasonDialog } from "../../kit/ReasonDialog.tsx";
import { Dialog, DialogActions } from "../../kit/Dialog.tsx";
import { confirmedBy } from "./confirmed.ts";
import type { Reasons } from "./confirmed.ts";

export function VoidDialog({
  open,
  number,
  onClose,
  onVoid,
}: {
  open: boolean;
  number: string;
  onClose: () => void;
  onVoid: (reason: string) => void;
}) {
  return (
    <ReasonDialog
      open={open}
      title={`Take ${number} out of the books`}
      label="Why"
      action="Take out"
      onClose={onClose}
      onReason={onVoid}
    >
      Its entries and its place on the return go away. The document and this reason stay on record.
    </ReasonDialog>
  );
}

/** Asks why what looks mistyped is right. */
export function ConfirmDialog({
  error,
  onClose,
  onConfirm,
}: {
  error: Error | null;
  onClose: () => void;
  onConfirm: (reason: Reasons) => void;
}) {
  const asked = confirmedBy(error);
  return (
    <ReasonDialog
      open={asked !== undefined}
      title={asked?.title ?? ""}
      label={asked?.label ?? ""}
      action="Post all the same"
      onClose={onClose}
      onReason={(reason) => asked && onConfirm({ [asked.field]: reason })}
    >
      {error?.message}
    </ReasonDialog>
  );
}

/** Asks once before a typed tax that no longer fits is posted. */
export function ConfirmTyped({
  open,
  warnings,
  onClose,
  onConfirm,
}: {
  open: boolean;
  warnings: string[];
  onClose: () => void;
  onConfirm: () => void;
}) {
  return (
    <Dialog open={open} title="Post with the typed tax?" onClose={onClose}>
      <ul className="space-y-2">
        {warnings.map((warning) => (
          <li key={warning}>{warning}</li>
        ))}
      </ul>
      <DialogActions>
        <button type="button" className="action" onClick={onClose}>
          Go back
        </button>
        <button type="button" className="action main" onClick={onConfirm} autoFocus>
          Keep what was typed
        </button>
      </DialogActions>
    </Dialog>
  );
}
