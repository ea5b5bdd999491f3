import type { ReactNode } from "react";
import { FormProvider } from "react-hook-form";
import type { FieldValues } from "react-hook-form";
import { FormDialog } from "./FormDialog.tsx";
import { OvertakenDialog } from "./OvertakenDialog.tsx";
import type { BodyForm } from "./useBodyForm.ts";

/** A dialog over a form that becomes a body of the API. */
export function BodyDialog<Values extends FieldValues>({
  of: { form, submit, error, pending, overtaken },
  title,
  action,
  busy,
  cancel,
  ready = true,
  wide = false,
  className,
  onClose,
  children,
}: {
  of: BodyForm<Values>;
  title: string;
  action: string;
  /** What the button says while it takes its time. */
  busy?: string;
  cancel?: string;
  /** Whether it may be sent yet. */
  ready?: boolean;
  wide?: boolean;
  className?: string;
  onClose: () => void;
  children: ReactNode;
}) {
  return (
    <FormProvider {...form}>
      <FormDialog
        title={title}
        action={pending ? (busy ?? action) : action}
        pending={pending || !ready}
        {...(cancel === undefined ? {} : { cancel })}
        wide={wide}
        {...(className === undefined ? {} : { className })}
        error={error}
        onClose={onClose}
        onSubmit={submit}
      >
        {children}
      </FormDialog>
      {overtaken && (
        <OvertakenDialog
          of={overtaken.of}
          yours={overtaken.yours}
          onKeepMine={overtaken.keepMine}
          onTakeTheirs={() => {
            overtaken.takeTheirs();
            onClose();
          }}
        />
      )}
    </FormProvider>
  );
}
