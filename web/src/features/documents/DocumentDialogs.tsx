import { ReasonDialog } from "../../kit/ReasonDialog.tsx";
import { Dialog, DialogActions } from "../../kit/Dialog.tsx";

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

export function DuplicateDialog({
  open,
  message,
  onClose,
  onConfirm,
}: {
  open: boolean;
  message: string;
  onClose: () => void;
  onConfirm: (reason: string) => void;
}) {
  return (
    <ReasonDialog
      open={open}
      title="This number is already in the books"
      label="Why there are two"
      action="Post all the same"
      onClose={onClose}
      onReason={onConfirm}
    >
      {message}
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
