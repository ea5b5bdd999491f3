import { useState } from "react";
import { isCalendarDate } from "@fiscalon/core/calendar/date";
import { parseDate } from "@fiscalon/core/calendar/parseDate";
import { Field } from "./Field.tsx";
import { today } from "./format.ts";

/** A date typed as people write it: 14/7, 14 Jul 26, 2026-07-14. Shown as 2026-07-14 once left. */
export function DateField({
  label,
  value,
  onChange,
  error,
  className,
  optional = false,
  disabled = false,
}: {
  label: string;
  value: string;
  onChange: (date: string) => void;
  error?: string | undefined;
  className?: string;
  optional?: boolean;
  disabled?: boolean;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const [wrong, setWrong] = useState(false);
  const text = typed ?? value;
  const take = () => {
    const date = text.trim() === "" && optional ? "" : parseDate(text, "dmy", today());
    setWrong(date === undefined);
    if (date === undefined) return;
    setTyped(null);
    if (date !== value) onChange(date);
  };
  return (
    <Field
      label={label}
      value={text}
      disabled={disabled}
      onChange={(event) => {
        setTyped(event.target.value);
        const whole = isCalendarDate(event.target.value.trim());
        if (whole) onChange(event.target.value.trim());
      }}
      onBlur={take}
      onKeyDown={(event) => event.key === "Enter" && take()}
      placeholder={optional ? "same as the date" : "14/7 or 2026-07-14"}
      error={wrong ? "This is no date. Write it like 14/7/2026." : error}
      className={className ?? "w-[130px]"}
    />
  );
}
