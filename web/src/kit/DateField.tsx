import { useEffect, useState } from "react";
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
  const [text, setText] = useState(value);
  const [wrong, setWrong] = useState(false);
  useEffect(() => {
    setText(value);
    setWrong(false);
  }, [value]);
  const take = () => {
    const date = text.trim() === "" && optional ? "" : parseDate(text, "dmy", today());
    setWrong(date === undefined);
    if (date !== undefined) {
      setText(date);
      if (date !== value) onChange(date);
    }
  };
  return (
    <Field
      label={label}
      value={text}
      disabled={disabled}
      onChange={(event) => {
        setText(event.target.value);
        const date = parseDate(event.target.value, "dmy");
        if (date && /^\d{4}-\d\d-\d\d$/.test(event.target.value)) onChange(date);
      }}
      onBlur={take}
      onKeyDown={(event) => event.key === "Enter" && take()}
      placeholder={optional ? "same as the date" : "14/7 or 2026-07-14"}
      error={wrong ? "This is no date. Write it like 14/7/2026." : error}
      className={className ?? "w-[130px]"}
    />
  );
}
