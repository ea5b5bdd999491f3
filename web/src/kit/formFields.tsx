import type { ComponentProps, ReactNode } from "react";
import { useController, useFormContext } from "react-hook-form";
import { DateField } from "./DateField.tsx";
import { Field, SelectField } from "./Field.tsx";

interface Named {
  /** The name in the body. */
  name: string;
  label: string;
  hint?: ReactNode;
  className?: string;
}

/** What is wrong with a field of the form around it, by its label. */
export function useFieldError(name: string, label: string): string | undefined {
  const { getFieldState, formState } = useFormContext();
  const message = getFieldState(name, formState).error?.message;
  const path = name.replace(/\.(\d+)(?=\.|$)/g, "[$1]");
  return message?.startsWith(`${path} `) ? `${label}${message.slice(path.length)}` : message;
}

const CAPITALS = { style: { textTransform: "uppercase" } } as const;

/** A text of the form around it. `upper`: for codes, which are written in capitals. */
export function TextField({
  name,
  label,
  upper = false,
  ...rest
}: Named & Omit<ComponentProps<"input">, "name"> & { upper?: boolean }) {
  const { register } = useFormContext();
  const error = useFieldError(name, label);
  const set = upper ? { setValueAs: (typed: string | null) => (typed ?? "").toUpperCase() } : {};
  return (
    <Field label={label} error={error} {...register(name, set)} {...rest} {...(upper ? CAPITALS : {})} />
  );
}

/** One of a few, of the form around it. */
export function ChoiceField({
  name,
  label,
  children,
  ...rest
}: Named & { children: ReactNode; disabled?: boolean; onChosen?: (value: string) => void }) {
  const { register } = useFormContext();
  const error = useFieldError(name, label);
  const { onChosen, ...shown } = rest;
  return (
    <SelectField
      label={label}
      error={error}
      {...register(
        name,
        onChosen ? { onChange: ({ target }: { target: { value: string } }) => onChosen(target.value) } : {},
      )}
      {...shown}
    >
      {children}
    </SelectField>
  );
}

/** A date of the form around it. */
export function DayField({
  name,
  label,
  optional = false,
  className = "w-full",
}: Named & { optional?: boolean }) {
  const { field } = useController({ name });
  const error = useFieldError(name, label);
  return (
    <DateField
      label={label}
      value={String(field.value ?? "")}
      optional={optional}
      className={className}
      error={error}
      onChange={field.onChange}
    />
  );
}

/** Yes or no, of the form around it. */
export function CheckField({
  name,
  children,
  className,
}: {
  name: string;
  children: ReactNode;
  className?: string;
}) {
  const { register } = useFormContext();
  return (
    <label className={className ?? "flex cursor-pointer items-center gap-2"}>
      <input type="checkbox" className="checkbox checkbox-sm" {...register(name)} />
      <span>{children}</span>
    </label>
  );
}
