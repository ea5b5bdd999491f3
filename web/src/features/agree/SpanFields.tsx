import { SelectField } from "../../kit/Field.tsx";
import { showPeriod } from "../../kit/format.ts";

export interface Span {
  from: string;
  to: string;
}

/** The first and the last of whole periods; one that would end before it begins is not taken. */
export function SpanFields({
  periods,
  span,
  onChange,
}: {
  periods: readonly Span[];
  span: Span;
  onChange: (span: Span) => void;
}) {
  const set = (change: Partial<Span>) => {
    const next = { ...span, ...change };
    if (next.from <= next.to) onChange(next);
  };
  return (
    <>
      <SelectField label="From" value={span.from} onChange={({ target }) => set({ from: target.value })}>
        {periods.map((one) => (
          <option key={one.from} value={one.from}>
            {showPeriod(one.from, one.to)}
          </option>
        ))}
      </SelectField>
      <SelectField label="To" value={span.to} onChange={({ target }) => set({ to: target.value })}>
        {periods
          .filter(({ to }) => to >= span.from)
          .map((one) => (
            <option key={one.to} value={one.to}>
              {showPeriod(one.from, one.to)}
            </option>
          ))}
      </SelectField>
    </>
  );
}
