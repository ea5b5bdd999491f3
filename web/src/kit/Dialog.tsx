import { useEffect, useRef } from "react";
import type { ReactNode } from "react";

/** A modal dialog; the element of the platform keeps focus inside and closes on Escape. */
export function Dialog({
  open,
  title,
  onClose,
  children,
  wide = false,
}: {
  open: boolean;
  title: string;
  onClose: () => void;
  children: ReactNode;
  wide?: boolean;
}) {
  const element = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    const dialog = element.current;
    if (open && dialog && !dialog.open) {
      dialog.showModal();
      dialog.querySelector<HTMLElement>("input, select, textarea")?.focus();
    }
    if (!open && dialog?.open) dialog.close();
  }, [open]);
  if (!open) return null;
  return (
    <dialog
      ref={element}
      aria-label={title}
      onCancel={(event) => {
        event.preventDefault();
        onClose();
      }}
      className={`m-auto ${wide ? "w-[720px]" : "w-[480px]"} max-w-[94vw] rounded border border-base-300 bg-base-100 p-6 text-base-content backdrop:bg-black/40`}
    >
      <h2 className="mb-3 text-[16px]">{title}</h2>
      {children}
    </dialog>
  );
}

export function DialogActions({ children }: { children: ReactNode }) {
  return <div className="mt-5 flex justify-end gap-2">{children}</div>;
}
