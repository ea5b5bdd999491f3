import clsx from "clsx";
import { useId } from "react";
import type { ComponentProps, ReactNode } from "react";

interface Labelled {
  label: string;
  error?: string | undefined;
  hint?: ReactNode;
}

/** A labelled input with its error, or its hint, right below. */
export function Field({
  label,
  error,
  hint,
  className,
  inputClass,
  ...input
}: Labelled & ComponentProps<"input"> & { inputClass?: string }) {
  const id = useId();
  return (
    <div className={className}>
      <label className="field-label" htmlFor={id}>
        {label}
      </label>
      <input
        id={id}
        className={clsx("entry", inputClass)}
        aria-invalid={error !== undefined}
        aria-describedby={error || hint ? `${id}-note` : undefined}
        autoComplete="off"
        {...input}
      />
      <FieldNote id={`${id}-note`} error={error} hint={hint} />
    </div>
  );
}

export function SelectField({
  label,
  error,
  hint,
  className,
  children,
  ...select
}: Labelled & ComponentProps<"select">) {
  const id = useId();
  return (
    <div className={className}>
      <label className="field-label" htmlFor={id}>
        {label}
      </label>
      <select
        id={id}
        className="entry cursor-pointer"
        aria-invalid={error !== undefined}
        aria-describedby={error || hint ? `${id}-note` : undefined}
        {...select}
      >
        {children}
      </select>
      <FieldNote id={`${id}-note`} error={error} hint={hint} />
    </div>
  );
}

function FieldNote({ id, error, hint }: { id: string; error: string | undefined; hint: ReactNode }) {
  if (!error && !hint) return null;
  return (
    <p
      id={id}
      role={error ? "alert" : undefined}
      className={error ? "mt-1 font-sans text-[12.5px] text-error" : "quiet mt-1 font-sans text-[12.5px]"}
    >
      {error ?? hint}
    </p>
  );
}
