import { usePacks } from "../api/packs.ts";
import { COUNTRY_NAMES } from "../kit/countries.ts";
import { SelectField } from "../kit/Field.tsx";

/** Any country of the world and of the practice's own jurisdictions, by name. */
export function AnyCountryField({ value, onChange }: { value: string; onChange: (country: string) => void }) {
  const known = usePacks().all.map(({ country, name }): [string, string] => [country, name]);
  const names = new Map([...known, ...Object.entries(COUNTRY_NAMES)]);
  if (value !== "" && !names.has(value)) names.set(value, value);
  const sorted = [...names].sort(([, a], [, b]) => a.localeCompare(b));
  return (
    <SelectField label="Country" value={value} onChange={(event) => onChange(event.target.value)}>
      <option value="">as the business</option>
      {sorted.map(([code, name]) => (
        <option key={code} value={code}>
          {name}
        </option>
      ))}
    </SelectField>
  );
}
