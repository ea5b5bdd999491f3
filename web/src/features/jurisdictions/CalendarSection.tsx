import { MONTHS_OF } from "@fiscalon/core/calendar/filingPeriods";
import type { Frequency } from "@fiscalon/core/calendar/filingPeriods";
import type { DueRule } from "@fiscalon/core/calendar/dueDate";
import { DateField } from "../../kit/DateField.tsx";
import { Field, SelectField } from "../../kit/Field.tsx";
import type { BuilderPart } from "./builderPart.ts";

const SHIFTS = [
  ["none", "stays"],
  ["next", "moves to the next working day"],
  ["before", "moves to the working day before"],
] as const;

/** How often it is filed and by when. */
export function CalendarSection({ draft, set, error }: BuilderPart) {
  const [due, ...laterRules] = draft.due;
  const [rhythm, ...laterRhythms] = draft.rhythms;
  if (!due || !rhythm) return null;
  const setDue = (change: Partial<DueRule>) => set({ due: [{ ...due, ...change }, ...laterRules] });
  return (
    <section aria-label="Calendar">
      <h2 className="mb-1">Calendar</h2>
      <div className="grid grid-cols-4 gap-4">
        <SelectField
          label="Filing periods"
          value={rhythm.frequency}
          onChange={(event) => {
            const frequency = event.target.value as Frequency;
            set({
              rhythms: [{ ...rhythm, id: frequency, name: titled(frequency), frequency }, ...laterRhythms],
            });
          }}
        >
          {Object.keys(MONTHS_OF).map((frequency) => (
            <option key={frequency}>{frequency}</option>
          ))}
        </SelectField>
        <DateField
          label="One period ends on"
          value={rhythm.anchor}
          onChange={(anchor) => set({ rhythms: [{ ...rhythm, anchor }, ...laterRhythms] })}
          error={error("rhythms[0].anchor")}
          className="w-full"
        />
        <Field
          label="Due, months after its end"
          value={String(due.months)}
          inputMode="numeric"
          error={error("due[0].months")}
          onChange={(event) => setDue({ months: Number(event.target.value.replace(/\D/g, "")) })}
        />
        <Field
          label="on day"
          value={String(due.day)}
          hint="a number, or: end"
          error={error("due[0].day")}
          onChange={(event) => setDue({ day: dayOf(event.target.value) })}
        />
        <SelectField
          className="col-span-2"
          label="On a weekend or holiday it"
          value={due.shift}
          onChange={(event) => setDue({ shift: event.target.value as DueRule["shift"] })}
        >
          {SHIFTS.map(([shift, words]) => (
            <option key={shift} value={shift}>
              {words}
            </option>
          ))}
        </SelectField>
        <Field
          label="Holidays of, two letters"
          value={draft.holidays.country}
          onChange={(event) =>
            set({ holidays: { ...draft.holidays, country: event.target.value.toUpperCase() } })
          }
        />
      </div>
      {laterRules.length + laterRhythms.length > 0 && (
        <p className="quiet mt-1">Further rhythms and due dates of the start stay as they are.</p>
      )}
    </section>
  );
}

function titled(frequency: string): string {
  return frequency.charAt(0).toUpperCase() + frequency.slice(1);
}

function dayOf(text: string): DueRule["day"] {
  const day = Number(text);
  return Number.isInteger(day) && day > 0 ? day : "end";
}
