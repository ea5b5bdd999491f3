import { DayPicker } from "react-day-picker";
import { dateOf, partsOf } from "@fiscalon/core/calendar/date";

/** A month to pick a day from; arrows move by day and week, Page Up and Down by month. */
export default function DayPick({ value, onPick }: { value: string; onPick: (date: string) => void }) {
  const chosen = value === "" ? undefined : localDay(value);
  return (
    <DayPicker
      mode="single"
      required={false}
      autoFocus
      weekStartsOn={1}
      captionLayout="dropdown"
      startMonth={new Date(1990, 0)}
      endMonth={new Date(2040, 11)}
      {...(chosen ? { selected: chosen, defaultMonth: chosen } : {})}
      onSelect={(_, day) => onPick(dateOf(day.getFullYear(), day.getMonth() + 1, day.getDate()))}
    />
  );
}

function localDay(date: string): Date {
  const { year, month, day } = partsOf(date);
  return new Date(year, month - 1, day);
}
