import { CalendarDays } from "lucide-react";
import { Popover } from "radix-ui";
import { lazy, Suspense, useState } from "react";
import { isCalendarDate } from "@fiscalon/core/calendar/date";
import { parseDate } from "@fiscalon/core/calendar/parseDate";
import type { DateOrder } from "@fiscalon/core/calendar/parseDate";
import { useDateOrder, writtenDate } from "./dateOrder.ts";
import { Field } from "./Field.tsx";
import { today } from "./format.ts";
import { Waiting } from "./Waiting.tsx";

const DayPick = lazy(() => import("./DayPick.tsx"));

const EXAMPLES: Record<DateOrder, string> = { dmy: "14/7", mdy: "7/14", ymd: "2026-07-14" };

/**
 * A date, typed as people write it (14/7, 14 Jul 26, 2026-07-14) in the order of the client's country, or picked from a
 * calendar that the button or Alt and the down arrow open.
 */
export function DateField({
  label,
  value,
  onChange,
  error,
  className,
  optional = false,
  placeholder,
  disabled = false,
}: {
  label: string;
  value: string;
  onChange: (date: string) => void;
  error?: string | undefined;
  className?: string;
  optional?: boolean;
  /** What it means left empty. */
  placeholder?: string;
  disabled?: boolean;
}) {
  const order = useDateOrder();
  const [typed, setTyped] = useState<string | null>(null);
  const [wrong, setWrong] = useState(false);
  const [open, setOpen] = useState(false);
  const text = typed ?? (value === "" ? "" : writtenDate(value, order));
  const take = () => {
    const date = text.trim() === "" && optional ? "" : parseDate(text, order, today());
    setWrong(date === undefined);
    if (date === undefined) return;
    setTyped(null);
    if (date !== value) onChange(date);
  };
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <div className={`relative ${className ?? "w-[130px]"}`}>
        <Field
          label={label}
          value={text}
          disabled={disabled}
          inputClass="pr-6"
          onChange={(event) => {
            setTyped(event.target.value);
            const whole = isCalendarDate(event.target.value.trim());
            if (whole) onChange(event.target.value.trim());
          }}
          onBlur={take}
          onKeyDown={(event) => {
            if (event.key === "Enter") take();
            if (event.key === "ArrowDown" && event.altKey && !disabled) setOpen(true);
          }}
          placeholder={placeholder ?? (optional ? "" : EXAMPLES[order])}
          error={wrong ? `This is no date. Write it like ${EXAMPLES[order]}/2026.` : error}
        />
        {!disabled && (
          <Popover.Trigger
            tabIndex={-1}
            aria-label="Open the calendar"
            className="absolute top-[22px] right-0 flex size-6 cursor-pointer items-center justify-center text-secondary hover:text-base-content"
          >
            <CalendarDays size={14} aria-hidden />
          </Popover.Trigger>
        )}
      </div>
      <Popover.Content
        align="start"
        sideOffset={4}
        collisionPadding={8}
        aria-label="Calendar"
        className="z-50 rounded border border-base-300 bg-base-100 p-3 shadow-lg"
      >
        <Suspense fallback={<Waiting what="the calendar" />}>
          <DayPick
            value={value}
            onPick={(date) => {
              setTyped(null);
              setWrong(false);
              setOpen(false);
              onChange(date);
            }}
          />
        </Suspense>
      </Popover.Content>
    </Popover.Root>
  );
}
