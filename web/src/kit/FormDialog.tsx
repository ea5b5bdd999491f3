import clsx from "clsx";
import type { ReactNode } from "react";
import { Dialog, DialogActions } from "./Dialog.tsx";
import { ErrorNote } from "./ErrorNote.tsx";

/** A dialog that holds a form: fields, what the server said, cancel, and the one main action. */
export function FormDialog({
  open = true,
  title,
  cancel = "Cancel",
  action,
  pending = false,
  wide = false,
  className,
  error,
  onClose,
  onSubmit,
  children,
}: {
  open?: boolean;
  title: string;
  cancel?: string;
  action: string;
  /** It is being sent, or not to be sent yet. */
  pending?: boolean;
  wide?: boolean;
  className?: string;
  error?: Error | null;
  onClose: () => void;
  onSubmit: () => void;
  children: ReactNode;
}) {
  return (
    <Dialog open={open} title={title} onClose={onClose} wide={wide}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          event.stopPropagation();
          onSubmit();
        }}
      >
        <div className={clsx(className)}>{children}</div>
        <ErrorNote error={error} />
        <DialogActions>
          <button type="button" className="action" onClick={onClose}>
            {cancel}
          </button>
          <button type="submit" className="action main" disabled={pending}>
            {action}
          </button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
